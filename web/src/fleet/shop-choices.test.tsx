import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { familySheet, type Sheet } from '@lanternwright/core/procedure';
import { InStore } from '../testing/fake-server.tsx';
import { HubFields } from './hub-fields.tsx';
import { HeatFields, RetorqueField, SchoolFields } from './shop-choices.tsx';

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
  render(<Editor />, { wrapper: InStore });
  return { sheet: () => now, user: userEvent.setup() };
}

describe('what a shop sets in a sheet', () => {
  it('the hub’s sizes, a row a bearing, from which its amount is reckoned at once', async () => {
    const { sheet, user } = editing({ ...familySheet('d-farm-front')!, hub: null });
    const bearing = async (nth: number, ...[bore, outside, width, mass]: string[]) => {
      await user.click(screen.getByRole('button', { name: 'Add a bearing' }));
      for (const [label, text] of [
        ['Bore, mm', bore],
        ['Outside, mm', outside],
        ['Width, mm', width],
        ['Mass, kg', mass],
      ] as const)
        if (text) await user.type(screen.getByLabelText(`${label}, bearing ${nth}`), text);
      await user.tab();
    };
    await bearing(1, '80', '40', '20', '0,4');
    expect(screen.getByText('It is under the outside')).toBeDefined();
    await user.clear(screen.getByLabelText('Bore, mm, bearing 1'));
    await user.type(screen.getByLabelText('Bore, mm, bearing 1'), '40');
    await user.clear(screen.getByLabelText('Outside, mm, bearing 1'));
    await user.type(screen.getByLabelText('Outside, mm, bearing 1'), '80');
    await bearing(2, '30', '62', '17', '');
    await user.type(screen.getByLabelText('Cavity, mL'), '200');
    await user.type(screen.getByLabelText('Cavity filled to, %'), '300');
    await user.tab();
    expect(screen.getByText('From 0 to 100')).toBeDefined();
    // Nothing of it stands in the sheet while a part of it cannot be read.
    expect(sheet().hub).toBeNull();
    await user.clear(screen.getByLabelText('Cavity filled to, %'));
    await user.type(screen.getByLabelText('Cavity filled to, %'), '30');
    await user.type(screen.getByLabelText('Mass, kg, bearing 2'), '200 g');
    await user.tab();
    expect(sheet().hub).toMatchObject({
      bearings: [
        { boreMm: 40, outsideMm: 80, widthMm: 20, massKg: 0.4 },
        { boreMm: 30, massKg: 0.2 },
      ],
      ...{ cavityMl: 200, cavityFillPercent: 30, mark: 'shop' },
    });
    expect(screen.getByText(/^Hub takes about \d+ g$/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Remove bearing 1' }));
    expect(sheet().hub?.bearings).toHaveLength(1);
    await user.click(screen.getByRole('button', { name: 'Remove bearing 1' }));
    expect(sheet().hub).toBeNull();
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

  it('when wheel nuts are torqued again: two distances in their order and days, or none of them', async () => {
    const { sheet, user } = editing(familySheet('d-towed')!);
    const [from, by] = [/^Retorque after/, /^Retorque at the latest/];
    const [hours, days] = [/^Without an odometer/, 'Or after so many days'];
    const type = async (label: string | RegExp, text: string) => {
      await user.clear(screen.getByLabelText(label));
      if (text) await user.type(screen.getByLabelText(label), text);
      await user.tab();
    };
    await type(from, '50 mi');
    await type(by, '30');
    expect(sheet().retorque).toBeNull();
    await type(days, 'soon');
    expect(screen.getByText('Days, from 1 to 365')).toBeDefined();
    expect(screen.getByText('It is over the first')).toBeDefined();
    await type(days, '5');
    await type(by, '75');
    expect(sheet().retorque).toMatchObject({
      ...{ from: { value: 50, unit: 'mi' }, by: { value: 75, unit: 'mi' }, days: 5 },
      hours: null,
    });
    await type(hours, 'ten');
    expect(screen.getByText('"ten" is not a figure')).toBeDefined();
    await type(hours, '25');
    expect(sheet().retorque).toMatchObject({ hours: { value: 25, unit: 'h' }, days: 5 });
    for (const label of [from, by, hours, days]) await type(label, '');
    expect(sheet().retorque).toBeNull();
  });

  it('what it does where practitioners differ', async () => {
    const { sheet, user } = editing(familySheet('d-towed')!);
    await user.selectOptions(screen.getByLabelText('Hub cap joint'), 'Gasket');
    await user.selectOptions(screen.getByLabelText('Good-looking bearings'), 'Renewed while it is apart');
    expect(sheet().schools).toMatchObject({ joint: 'gasket', bearings: 'renew', packing: 'either' });
  });
});
