import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { StepData } from '@lanternwright/core/procedure';
import { linesToAnswer } from '@lanternwright/core/traveller';
import type { JobParts } from '@lanternwright/contract/stores';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { ReadyForm } from './ready-form.tsx';
import type { Of } from './step-form-parts.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  sessionStorage.clear();
});

const id = '00000000-0000-4000-8000-000000000047';
const coming = { orderId: id, orderNumber: 12, expected: '2026-12-05', late: false };

/** The readiness list of 2L over a store that says this of its lines. */
async function open(stands: Record<string, JobParts['stand']>, status = 200) {
  serveWith((one) => {
    if (!one.path.startsWith('/api/stores/jobs/')) return { body: [] };
    if (status !== 200) return { status, body: { status, detail: 'No network' } };
    const lines = Object.entries(stands).map(([line, stand]) => ({
      ...{ position: '2L', line, title: line, stand, fitting: [], kept: [], used: [] },
    }));
    return { body: lines };
  });
  const t = new TestJob(openingOn(['2L']));
  t.workTo('2L', 'readiness');
  const recorded: StepData[] = [];
  const wheelEnd = t.at('2L');
  const step = t.step('2L') as Of<'ready'>;
  const { user } = await show(
    <Routes>
      <Route
        path="/jobs/:id"
        element={<ReadyForm {...{ step, wheelEnd, record: (data) => void recorded.push(data) }} />}
      />
    </Routes>,
    sessionOf({ id, name: 'D. Achterberg', login: 'achterberg', role: 'technician' }),
    `/jobs/${id}`,
  );
  return { user, recorded, lines: linesToAnswer(wheelEnd) };
}
const answered = (line: string) =>
  within(screen.getByRole('radiogroup', { name: line }))
    .getAllByRole('radio')
    .find((r) => r.getAttribute('aria-checked') === 'true')?.textContent;

describe('the readiness list', () => {
  it('takes what the store says when it is asked to, and nothing by itself', async () => {
    const { user, recorded, lines } = await open({
      'part:hub-seal': { state: 'here', parts: [{ number: '47-2210', place: 'A3' }] },
      'part:flange-gasket': { state: 'ordered', number: 'FG 8-140', coming },
    });
    const said = await screen.findByText('In the store: 47-2210 at A3');
    expect(screen.getByText('FG 8-140 is on order 12, promised for 5 Dec 2026')).toBeTruthy();
    const titleOf = (what: string) => lines.find((l) => l.what === what)!.title!;
    expect(said.closest('li')!.textContent).toContain(titleOf('part:hub-seal'));
    expect(answered(titleOf('part:hub-seal'))).toBeUndefined();
    await user.click(screen.getByRole('button', { name: 'As the store says: 2 lines' }));
    expect(answered(titleOf('part:hub-seal'))).toBe('Have it');
    expect(answered(titleOf('part:flange-gasket'))).toBe('Ordered');
    await user.click(screen.getByRole('button', { name: 'The rest is at hand' }));
    await user.type(screen.getByLabelText(/^Not here/), 'The hub can come off meanwhile');
    await user.click(screen.getByRole('button', { name: 'Start all the same' }));
    await waitFor(() => expect(recorded).toHaveLength(1));
    const [data] = recorded;
    expect(data?.kind === 'ready' && data.lines.filter((l) => l.state === 'ordered')).toEqual([
      { what: 'part:flange-gasket', state: 'ordered', by: '2026-12-05' },
    ]);
  });

  it('leaves to a person what is late or not there', async () => {
    await open({
      'part:hub-seal': { state: 'late', number: '47-2210', coming: { ...coming, late: true } },
      'part:flange-gasket': { state: 'none' },
    });
    await screen.findByText(/47-2210 is on order 12, which is late/);
    expect(screen.getByText('No matching part on hand or on order')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^As the store says/ })).toBeNull();
  });

  it('is answered all the same where the store cannot be asked', async () => {
    const { user, recorded } = await open({}, 503);
    await user.click(screen.getByRole('button', { name: 'Everything is at hand' }));
    await user.click(screen.getByRole('button', { name: 'Ready' }));
    expect(recorded).toHaveLength(1);
  });
});
