import { expect, it } from 'vitest';
import { familySheet, type Sheet, type TorqueFigure } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import { carriedOver, ownFigures } from './index.ts';

const from = familySheet('a-drive-tang')!;
const figure = (at: number): TorqueFigure => {
  const torque = quantity(at, 'lbf-ft');
  return { min: torque, max: torque, mark: 'shop', source: 'Ours' };
};
const to: Sheet = { ...from, revision: 2, title: 'Drive, newer nut', jamTorque: figure(250) };

it('takes what the later revision says, and keeps what the axle says of its own', () => {
  expect(carriedOver(from, from, to)).toEqual(to);
  const own: Sheet = { ...from, flangeTorque: figure(90), jamTorque: figure(300) };
  expect(ownFigures(own, from)).toEqual(expect.arrayContaining(['flangeTorque', 'jamTorque']));
  expect(ownFigures(own, from)).toHaveLength(2);
  expect(carriedOver(own, from, to)).toEqual({ ...to, flangeTorque: figure(90), jamTorque: figure(300) });
});

it('sees no difference in how a database writes the same', () => {
  const turned = Object.fromEntries(Object.entries(from).reverse()) as Sheet;
  expect(ownFigures(turned, from)).toEqual([]);
  expect(carriedOver(turned, from, to)).toEqual(to);
});
