import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { answer, openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

/** A trailer whose hub seal is on order, worked to where it is needed. */
function withoutSeal(): TestJob {
  const t = new TestJob(openingOn(['1L', '1R'], 'a-trailer', ['seal']));
  const ready = answer(t.at('1L'), t.step('1L')!);
  if (ready.kind !== 'ready') throw new Error('a job begins with what is at hand');
  const lines = ready.lines.map((l) =>
    l.what === 'part:hub-seal' ? { ...l, state: 'ordered' as const, by: '2026-12-05' } : l,
  );
  t.recordStep('1L', { ...ready, lines, note: 'It comes on Friday' });
  t.workTo('1L', 'seal');
  return t;
}
const waits = () => within(screen.getByRole('region', { name: 'What waits' }));

describe('a step that waits', () => {
  it('says for what, before anybody tries it, and leads to what can be done meanwhile', async () => {
    const { sent, user } = await openPage(withoutSeal());
    await heading('Seal in');
    expect(waits().getByText('1L, Seal in')).toBeDefined();
    expect(waits().getByText(/Hub seal is on order: wait until it has come/)).toBeDefined();
    await user.click(waits().getByRole('button', { name: 'Faces and threads' }));
    await heading('Faces and threads');
    await user.click(waits().getByRole('button', { name: 'Back to what waits' }));
    await heading('Seal in');
    await user.click(waits().getByRole('button', { name: 'Faces and threads' }));
    await heading('Faces and threads');
    await user.click(step().getByRole('button', { name: 'Yes' }));
    await waitFor(() => expect(sent.at(-1)).toMatchObject({ stepId: 'wheel-faces', data: { ok: true } }));
    await heading('Seal in');
    expect(waits().queryByRole('button', { name: 'Faces and threads' })).toBeNull();
  });

  it('is not shown where nothing waits', async () => {
    await openPage(new TestJob(openingOn(['1L'], 'a-trailer', ['seal'])));
    await heading('Tools, parts and lubricant at hand');
    expect(screen.queryByRole('region', { name: 'What waits' })).toBeNull();
  });
});
