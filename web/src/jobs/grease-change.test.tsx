import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { JobDetail } from '@lanternwright/contract/jobs';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { PackForm } from './bench-forms.tsx';
import { GreaseBefore } from './grease-change.tsx';
import type { OpenJob } from './use-job.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000047';
const person = sessionOf({ id, name: 'D. Achterberg', login: 'achterberg', role: 'technician' });

/** A towed hub whose sheet asks for lithium complex, with what was in it before, over a store that lists one grease. */
async function open(before: string | null, listed: object | null = null) {
  serveWith(() => ({ body: { parts: listed ? [listed] : [], more: false } }));
  const t = new TestJob(openingOn(['1L'], 'd-towed', ['bearings']));
  const lubricantBefore =
    before === null ? [] : [{ position: '1L', name: before, at: '2025-03-03T10:00:00.000Z' }];
  const detail = { lubricantBefore } as Partial<JobDetail> as JobDetail;
  await show(<GreaseBefore open={{ job: t.job, detail } as OpenJob} wheelEnd={t.at('1L')} />, person);
}

describe('what was in a hub', () => {
  it('is said, and that it does not take what the sheet asks for', async () => {
    await open('Polyurea NLGI 2');
    expect(await screen.findByText(/^In it since 3 Mar 2025/)).toBeTruthy();
    expect(screen.getByText(/^Polyurea and lithium complex do not take each other/)).toBeTruthy();
    expect(screen.getByText(/^Every trace comes out/)).toBeTruthy();
    expect(screen.getByText(/kept from memory: the makers of both decide/)).toBeTruthy();
  });

  it('is known by the store’s own list where its name does not say', async () => {
    await open('Blue 2', { title: 'Blue 2', thickener: 'lithium-complex' });
    expect(await screen.findByText('Both are thickened with lithium complex.')).toBeTruthy();
  });

  it('is no matter where it is the same, or nobody knows', async () => {
    await open('Lithium complex NLGI 2, GC-LB');
    expect(await screen.findByText(/^In it since/)).toBeTruthy();
    expect(screen.queryByText(/comes out/)).toBeNull();
    cleanup();
    await open(null);
    expect(screen.queryByText(/^In it since/)).toBeNull();
  });

  it('another that is packed is looked up in the store as well, where its name does not say', async () => {
    serveWith(() => ({ body: { parts: [{ title: 'Red 2', thickener: 'polyurea' }], more: false } }));
    const wheelEnd = new TestJob(openingOn(['1L'], 'd-towed', ['bearings'])).at('1L');
    const step = { kind: 'pack' } as Parameters<typeof PackForm>[0]['step'];
    const { user } = await show(
      <PackForm step={step} wheelEnd={wheelEnd} record={() => undefined} />,
      person,
    );
    await user.click(screen.getByLabelText('Another'));
    await user.type(screen.getByLabelText('Which lubricant'), 'Red 2');
    expect(
      await screen.findByText(/^(Lithium complex and polyurea|Polyurea and lithium complex) do not/),
    ).toBeTruthy();
  });
});
