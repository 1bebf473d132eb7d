import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import { familySheet, type Sheet } from '@lanternwright/core/procedure';
import { InStore } from '../testing/fake-server.tsx';
import { IntervalFields } from './interval-fields.tsx';

afterEach(cleanup);

it('writes how often each work is wanted; a row that is not whole changes nothing, none means what is usual', async () => {
  const user = userEvent.setup();
  let sheet: Sheet = familySheet('a-drive-tang')!;
  function Edited() {
    const [shown, setShown] = useState(sheet);
    const set = (part: Partial<Sheet>) => {
      sheet = { ...sheet, ...part };
      setShown(sheet);
    };
    return <IntervalFields sheet={shown} set={set} />;
  }
  render(<Edited />, { wrapper: InStore });
  expect(screen.getByText(/As is usual/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Add an interval' }));
  await user.selectOptions(screen.getByLabelText('Work'), 'seal');
  expect(sheet.intervals).toBeNull();
  await user.type(screen.getByLabelText('Months'), '3x');
  expect(screen.getByText('Whole months')).toBeTruthy();
  await user.type(screen.getByLabelText('Months'), '{Backspace}0');
  await user.type(screen.getByLabelText('Distance, km or mi'), '300,000 mi');
  expect(sheet.intervals).toMatchObject([
    { work: 'seal', months: 30, distance: { value: 300_000, unit: 'mi' }, hours: null, mark: 'shop' },
  ]);
  await user.click(screen.getByRole('button', { name: 'Remove' }));
  expect(sheet.intervals).toBeNull();
});
