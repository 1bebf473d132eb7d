import { waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { heading, jobAt, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

describe('figures as they are typed into a step', () => {
  it('two readings of a separator are both offered; neither is taken by itself', async () => {
    const { sent, user } = await openPage(jobAt('seat'));
    await user.type(await step().findByLabelText(/^Reached/), '1,200 lb ft');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-01');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getByText(/could be 1\.2 lbf·ft or 1200 lbf·ft/)).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.click(step().getByRole('button', { name: '1200 lbf·ft' }));
    expect(step().getByLabelText<HTMLInputElement>(/^Reached/).value).toBe('1200 lbf·ft');
    expect(step().queryByText(/could be/)).toBeNull();
  });

  it('a temperature beside one in °F is one in °F; beside both it is asked', async () => {
    const { sent, user } = await openPage(jobAt('hub-heat'));
    await heading('Hub heat after the road');
    const type = async (label: RegExp, text: string) => {
      await user.clear(step().getByLabelText(label));
      await user.type(step().getByLabelText(label), text);
    };
    await type(/^This hub/, '140 F');
    await type(/^The other side/, '60 C');
    await type(/^The air/, '55');
    await user.click(step().getByRole('button', { name: 'Record the temperatures' }));
    expect(step().getByText('Add a unit: °C, °F')).toBeDefined();
    await type(/^The other side/, '138');
    await user.click(step().getByRole('button', { name: 'Record the temperatures' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        data: {
          here: { value: 140, unit: 'degF' },
          other: { value: 138, unit: 'degF' },
          air: { value: 55, unit: 'degF' },
        },
      }),
    );
  });

  it('linings as fractions of an inch are judged against their minimum', async () => {
    const { sent, user } = await openPage(jobAt('brakes-back'));
    await user.type(await step().findByLabelText(/^Inner lining/), '1/8"');
    expect(step().getByText(/^Replace at 6\.4 mm/)).toBeDefined();
    await user.type(step().getByLabelText(/^Outer lining/), '3/8');
    await user.click(step().getByRole('radio', { name: 'Free' }));
    expect(step().getByText(/The lining is 3\.2 mm/)).toBeDefined();
    await user.type(step().getByLabelText('What is done about it'), 'New linings, both sides');
    await user.click(step().getByRole('button', { name: 'Record the brake' }));
    // The field says millimetres, and the figure beside it was typed in inches.
    expect(step().getByText('Add a unit: mm, in')).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^Outer lining/), '"');
    await user.click(step().getByRole('button', { name: 'Record the brake' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        data: { inner: { value: 0.125, unit: 'in' }, outer: { value: 0.375, unit: 'in' } },
      }),
    );
  });

  it('of which brake is nobody’s guess: a steer axle’s drum has one of two minimums', async () => {
    const { sent, user } = await openPage(jobAt('brakes-back', 'a-steer-double'));
    await user.click(await step().findByRole('button', { name: 'Record the brake' }));
    expect(step().getByText('Which brake: say which')).toBeDefined();
    expect(step().queryByLabelText(/^Inner lining/)).toBeNull();
    expect(sent).toHaveLength(0);
    await user.click(step().getByRole('radio', { name: 'Air drum, steer axle, two pads a shoe' }));
    expect(step().getByText(/^Replace at 6\.4 mm/)).toBeDefined();
    await user.type(step().getByLabelText(/^Inner lining/), '5 mm');
    await user.type(step().getByLabelText(/^Outer lining/), '7 mm');
    expect(step().getByText(/The lining is 5 mm/)).toBeDefined();
    await user.click(step().getByRole('radio', { name: 'Air drum, steer axle' }));
    expect(step().queryByText(/The lining is/)).toBeNull();
    await user.click(step().getByRole('radio', { name: 'Free' }));
    await user.click(step().getByRole('button', { name: 'Record the brake' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { brake: 'air-drum-steer' } }));
  });
});
