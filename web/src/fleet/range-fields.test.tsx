import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import type { TorqueFigure } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import { RangeFields } from './range-fields.tsx';

afterEach(cleanup);

const jam: TorqueFigure = {
  ...{ min: quantity(200, 'lbf-ft'), max: quantity(275, 'lbf-ft') },
  ...{ mark: 'from-memory', source: 'Recalled' },
};

function editing(start: TorqueFigure | null) {
  let now = start;
  function Edited() {
    const [value, setValue] = useState(start);
    return (
      <>
        <RangeFields
          label="Jam nut"
          value={value}
          units={['lbf-ft', 'Nm']}
          onChange={(next) => {
            now = next;
            setValue(next);
          }}
        />
        <button type="button">elsewhere</button>
      </>
    );
  }
  render(<Edited />);
  const user = userEvent.setup();
  const field = (which: 'from' | 'to') => screen.getByLabelText<HTMLInputElement>(`Jam nut, ${which}`);
  const type = async (which: 'from' | 'to', text: string) => {
    await user.clear(field(which));
    if (text) await user.type(field(which), text);
  };
  return { now: () => now, user, field, type, leave: () => user.click(screen.getByText('elsewhere')) };
}

it('takes a range in its unit, once the fields are left; what somebody set is the shop’s', async () => {
  const { now, field, type, leave, user } = editing(jam);
  expect([field('from').value, field('to').value]).toEqual(['200', '275']);
  await type('from', '250');
  await type('to', '300');
  expect(now()).toBe(jam);
  await leave();
  expect(now()).toMatchObject({ min: { value: 250, unit: 'lbf-ft' }, max: { value: 300 }, mark: 'shop' });
  await user.selectOptions(screen.getByLabelText('Jam nut, unit'), 'N·m');
  await type('from', '340');
  await type('to', '');
  await leave();
  expect(now()).toMatchObject({ min: { value: 340, unit: 'Nm' }, max: { value: 340, unit: 'Nm' } });
});

it('keeps the old figure while the new one cannot be read or is turned about, and says so', async () => {
  const { now, type, leave } = editing(jam);
  await type('from', '300');
  await leave();
  expect(screen.getByText('The lower figure comes first')).toBeTruthy();
  expect(now()).toBe(jam);
  await type('from', 'tight');
  await leave();
  expect(screen.queryByText('The lower figure comes first')).toBeNull();
  expect(now()).toBe(jam);
  await type('from', '12 mm');
  await leave();
  expect(now()).toBe(jam);
});

it('both empty takes the figure out; a figure that was left alone keeps its mark', async () => {
  const { now, type, leave, user, field } = editing(jam);
  await user.click(field('from'));
  await leave();
  expect(now()).toBe(jam);
  await type('from', '');
  await type('to', '');
  await leave();
  expect(now()).toBeNull();
});
