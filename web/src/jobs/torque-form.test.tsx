import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

const makers = () => step().queryByLabelText(/^The maker’s sheet asks for/);

describe('a maker’s figure', () => {
  it('is typed once: the second pass goes by it', async () => {
    const t = new TestJob(openingOn(['1L'], 'f-unitised'));
    t.workTo('1L', 'hub-bolts-2');
    const { sent, user } = await openPage(t);
    await heading('Hub bolts, second pass');
    expect(makers()).toBeNull();
    expect(step().getByText('60 lbf·ft (81 N·m)')).toBeDefined();
    await user.type(step().getByLabelText(/^Reached/), '60');
    await user.type(step().getByLabelText('Torque wrench'), 'Borrowed');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    const data = { asked: { value: 60, unit: 'lbf-ft' }, torque: { value: 60 } };
    await waitFor(() => expect(sent[0]).toMatchObject({ data }));
  });

  it('is offered from the other side, and taken with one tap', async () => {
    const t = new TestJob(openingOn(['1L', '1R'], 'f-unitised'));
    t.workTo('1L', 'hub-bolts-2');
    t.workTo('1R', 'hub-bolts');
    const { user } = await openPage(t);
    await user.click(await screen.findByRole('button', { name: '1R' }));
    await heading('Hub bolts, first pass');
    expect((makers() as HTMLInputElement).value).toBe('');
    await user.click(step().getByRole('button', { name: /^The same sheet as 1L: 60 lbf·ft/ }));
    expect((makers() as HTMLInputElement).value).toMatch(/^60/);
  });
});
