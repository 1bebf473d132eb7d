import { waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import type { Work } from '@lanternwright/core/stack';
import { heading, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

function at(stepId: string, sheetId: string, works: Work[]): TestJob {
  const t = new TestJob(openingOn(['1L'], sheetId, works));
  t.workTo('1L', stepId);
  return t;
}
const press = (name: string) => step().getByRole('button', { name });
const choose = (name: string) => step().getByRole('radio', { name });

describe('the rolling torque', () => {
  it('is a pull on a cord times its radius, of new or of run-in bearings, against the maker’s figure', async () => {
    const { sent, user } = await openPage(at('rolling-torque', 'n-planetary', ['adjust']));
    await heading('Rolling torque');
    await user.click(press('Record the rolling torque'));
    expect(step().getByText(/Choose which bearings they are/)).toBeDefined();
    await user.click(choose('Bearings that have run'));
    await user.click(choose('Cord and pull scale'));
    await user.type(step().getByLabelText('Pull while it turns, N'), '60');
    await user.type(step().getByLabelText(/^Radius of the cord/), '100 mm');
    await user.type(step().getByLabelText(/^The maker asks for at least/), '7 Nm');
    await user.type(step().getByLabelText(/^At most/), '9 Nm');
    // 60 N on 0.1 m are 6 N·m.
    expect(step().getByText(/^Too loose/)).toBeDefined();
    await user.clear(step().getByLabelText('Pull while it turns, N'));
    await user.type(step().getByLabelText('Pull while it turns, N'), '80');
    expect(step().queryByText(/^Too/)).toBeNull();
    await user.type(step().getByLabelText(/^What the seal drags/), '9 Nm');
    expect(step().getByText(/The seal alone cannot drag more/)).toBeDefined();
    await user.click(press('Record the rolling torque'));
    expect(sent).toHaveLength(0);
    await user.clear(step().getByLabelText(/^What the seal drags/));
    await user.click(press('Record the rolling torque'));
    const asked = { least: { value: 7, unit: 'Nm' } };
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        data: { kind: 'rolling', bearings: 'run-in', pull: { value: 80 }, asked },
      }),
    );
  });
});

describe('shims', () => {
  it('are told from the play that was measured and the preload that is asked for', async () => {
    const { sent, user } = await openPage(at('shims', 'n-shims', ['adjust']));
    await heading('Shims chosen');
    await user.click(choose('Thicker is looser'));
    for (const [label, value] of [
      [/^Shims that are in now/, '1.5 mm'],
      [/^End play with them/, '0.3 mm'],
      [/^The maker asks for preload/, '0.02 mm'],
      [/^At most/, '0.08 mm'],
    ] as const)
      await user.type(step().getByLabelText(label), value);
    expect(step().getByRole('status').textContent).toMatch(/wants 1\.15 mm of shims/);
    await user.type(step().getByLabelText(/^Shims that go in/), '1.3 mm');
    expect(step().getByText(/^Less preload than the maker asks for/)).toBeDefined();
    await user.clear(step().getByLabelText(/^Shims that go in/));
    await user.type(step().getByLabelText(/^Shims that go in/), '1.15 mm');
    await user.click(press('Record the shims'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'shims', thicker: 'looser' } }));
  });
});

describe('a step that comes up', () => {
  it.each([
    ['hand-loose', 'a-trailer', 'Hand loose'],
    ['washer', 'a-trailer', 'Locking washer on'],
  ] as const)('has the focus on none of its answers: %s', async (stepId, sheetId, title) => {
    await openPage(at(stepId, sheetId, ['adjust']));
    await heading(title);
    expect(document.activeElement?.tagName).not.toBe('BUTTON');
  });
});

describe('a record with a slip', () => {
  it('is entered as it was in truth, with why, by whoever made it', async () => {
    const { sent, user } = await openPage(at('set', 'a-trailer', ['adjust']));
    await heading('Set torque');
    await user.click(press('Correct a record'));
    const line = step().getByText('Seat the bearings').closest('li')!;
    const button = (name: string) =>
      [...line.querySelectorAll('button')].find((b) => b.textContent === name)!;
    await user.click(button('Correct'));
    const field = (label: RegExp) => step().getByLabelText(label);
    await user.type(field(/^Reached/), '198');
    await user.type(field(/^Torque wrench/), 'TW-01');
    await user.click(button('Record the torque'));
    expect(step().getByText('Enter a reason')).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(field(/^Why the first entry is wrong/), 'Two digits turned');
    await user.click(button('Record the torque'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        ...{ kind: 'correction', reason: 'Two digits turned' },
        replacement: { kind: 'step-recorded', stepId: 'seat', data: { torque: { value: 198 } } },
      }),
    );
  });
});
