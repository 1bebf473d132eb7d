import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { familySheet, type Sheet } from '@lanternwright/core/procedure';
import { HeatFields, HubFields, RetorqueField, SchoolFields } from './shop-choices.tsx';

afterEach(cleanup);

/** The fields over a sheet that keeps what they set. */
function editing(start: Sheet) {
  let now = start;
  function Editor() {
    const [sheet, setSheet] = useState(start);
    const set = (part: Partial<Sheet>) => {
      now = { ...sheet, ...part };
      setSheet(now);
    };
    return (
      <>
        <HubFields {...{ sheet, set }} />
        <RetorqueField {...{ sheet, set }} />
        <HeatFields {...{ sheet, set }} />
        <SchoolFields {...{ sheet, set }} />
      </>
    );
  }
  render(<Editor />);
  return { sheet: () => now, user: userEvent.setup() };
}

describe('what a shop sets in a sheet', () => {
  it('the hub’s sizes, from which its amount is reckoned at once', async () => {
    const { sheet, user } = editing({ ...familySheet('d-farm-front')!, hub: null });
    await user.type(screen.getByLabelText(/^Cavity/), '200 30');
    await user.type(screen.getByLabelText(/^Bearings: bore/), '40 80 20; 30 62 17 0.2');
    await user.tab();
    expect(screen.getByText(/Bore, outside and width in mm, mass in kg/)).toBeDefined();
    expect(sheet().hub).toBeNull();
    await user.clear(screen.getByLabelText(/^Bearings: bore/));
    await user.type(screen.getByLabelText(/^Bearings: bore/), '40 80 20 0.4; 30 62 17 0.2');
    await user.tab();
    expect(sheet().hub).toMatchObject({
      bearings: [{ boreMm: 40 }, { boreMm: 30 }],
      cavityMl: 200,
      mark: 'shop',
    });
    expect(screen.getByText(/^Hub takes about \d+ g$/)).toBeDefined();
  });

  it('how hot a hub may be: all three figures or none, and in their order', async () => {
    const { sheet, user } = editing(familySheet('a-trailer')!);
    const [look, other, refuse] = [/^Hub heat/, /^Or this much/, /^Not released this much/];
    await user.type(screen.getByLabelText(look), '60');
    await user.tab();
    expect(screen.getByText('All three in kelvin, or none')).toBeDefined();
    await user.type(screen.getByLabelText(other), '20');
    await user.type(screen.getByLabelText(refuse), '55');
    await user.tab();
    expect(screen.getByText('One looks again before one refuses')).toBeDefined();
    expect(sheet().heat).toBeNull();
    await user.clear(screen.getByLabelText(refuse));
    await user.type(screen.getByLabelText(refuse), '85,5');
    await user.tab();
    expect(sheet().heat).toEqual({
      lookOverAirK: 60,
      lookOverOtherK: 20,
      notReleasedOverAirK: 85.5,
      mark: 'shop',
      source: 'Set by the shop',
    });
    for (const label of [look, other, refuse]) await user.clear(screen.getByLabelText(label));
    await user.tab();
    expect(sheet().heat).toBeNull();
  });

  it('when wheel nuts are torqued again', async () => {
    const { sheet, user } = editing(familySheet('d-towed')!);
    await user.type(screen.getByLabelText('Retorque'), 'soon');
    await user.tab();
    expect(screen.getByText('As 50 to 100 mi, 7 days')).toBeDefined();
    await user.clear(screen.getByLabelText('Retorque'));
    await user.type(screen.getByLabelText('Retorque'), '50 to 75 mi, 5 days');
    await user.tab();
    expect(sheet().retorque).toMatchObject({ from: { value: 50, unit: 'mi' }, by: { value: 75 }, days: 5 });
    await user.clear(screen.getByLabelText('Retorque'));
    await user.tab();
    expect(sheet().retorque).toBeNull();
  });

  it('what it does where practitioners differ', async () => {
    const { sheet, user } = editing(familySheet('d-towed')!);
    await user.selectOptions(screen.getByLabelText('Hub cap joint'), 'Gasket');
    await user.selectOptions(screen.getByLabelText('Good-looking bearings'), 'Renewed while it is apart');
    expect(sheet().schools).toMatchObject({ joint: 'gasket', bearings: 'renew', packing: 'either' });
  });
});
