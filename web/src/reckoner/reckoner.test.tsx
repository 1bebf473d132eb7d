import { configureStore } from '@reduxjs/toolkit';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Provider } from 'react-redux';
import { afterEach, describe, expect, it } from 'vitest';
import { describeCalculation, listCalculations, reckon } from '@lanternwright/core/reckoner';
import { inchReader, metricReader } from '@lanternwright/core/quantity';
import { preferencesReducer, unitsChosen } from '../shell/preferences.ts';
import { labelOf, formatNumber, unitOf } from '@lanternwright/core/reckoner';
import { groups, notes } from './notes.ts';
import { InputForm } from './schema-field.tsx';
import { startValue, type JsonSchema } from './schema.ts';
import { views } from './views/index.ts';

afterEach(cleanup);

const names = listCalculations().map((c) => c.name);

describe('the list of sums', () => {
  it('has every sum once, with its rule and its limits in words', () => {
    expect(groups.flatMap((g) => [...g.names]).sort()).toEqual([...names].sort());
    for (const name of names) expect(notes[name]?.notCovered.length).toBeGreaterThan(10);
    for (const name of Object.keys(views)) expect(names).toContain(name);
  });
});

describe('fields', () => {
  it('take label and unit from the name', () => {
    expect([labelOf('journalDiameterMm'), unitOf('journalDiameterMm', inchReader)?.label]).toEqual([
      'Journal diameter',
      'in',
    ]);
    expect([labelOf('targetNm'), unitOf('targetNm', metricReader)?.label]).toEqual(['Target', 'N·m']);
    expect([labelOf('radialN'), unitOf('radialN', inchReader)?.label]).toEqual(['Radial', 'N']);
    expect([labelOf('slots'), unitOf('slots', inchReader)]).toEqual(['Slots', null]);
    expect(formatNumber(0.211, unitOf('measuredMm', inchReader))).toBe('0.00831');
  });

  const form = (name: string, start?: unknown) => {
    const store = configureStore({ reducer: { preferences: preferencesReducer } });
    const sum = describeCalculation(name)!;
    let latest: unknown = start ?? sum.example;
    function Held() {
      const [value, setValue] = useState(latest);
      latest = value;
      return (
        <InputForm schema={sum.inputSchema as JsonSchema} value={value} issues={{}} onChange={setValue} />
      );
    }
    render(
      <Provider store={store}>
        <Held />
      </Provider>,
    );
    return { store, value: () => latest as Record<string, never> };
  };

  it('store what was typed in SI and show it in the other system when that is chosen', async () => {
    const { store, value } = form('torque-setting');
    const target = screen.getByLabelText<HTMLInputElement>('Target, lbf·ft');
    fireEvent.change(target, { target: { value: '450' } });
    expect(value()['targetNm']).toBeCloseTo(610.118, 3);
    store.dispatch(unitsChosen(metricReader));
    expect((await screen.findByLabelText<HTMLInputElement>('Target, N·m')).value).toBe('610.1');
    store.dispatch(unitsChosen(inchReader));
    expect((await screen.findByLabelText<HTMLInputElement>('Target, lbf·ft')).value).toBe('450');
  });

  it('change the choice of a union to a value of its own', () => {
    const { value } = form('nut-setting');
    fireEvent.change(screen.getByLabelText('Lock'), { target: { value: '0' } });
    expect(value()['lock']).toMatchObject({ kind: 'castellated', slots: 1 });
    expect(screen.getByLabelText('Slots')).toBeDefined();
  });

  it('take a list of lengths in the reader’s unit, and write it anew when that changes', async () => {
    const { store, value } = form('wear-limit');
    const list = screen.getByLabelText<HTMLTextAreaElement>('Measured, in');
    fireEvent.change(list, { target: { value: '1.5 1.6' } });
    const stored = value()['measuredMm'] as unknown as number[];
    expect(stored.map((mm) => mm.toFixed(3))).toEqual(['38.100', '40.640']);
    store.dispatch(unitsChosen(metricReader));
    expect((await screen.findByLabelText<HTMLTextAreaElement>('Measured, mm')).value).toBe('38.1 40.64');
  });

  it('take a choice among figures as the figure, or as none', () => {
    const { value } = form('pushrod-stroke');
    const chamber = screen.getByLabelText('Chamber, square inches');
    fireEvent.change(chamber, { target: { value: '24' } });
    expect(value()['chamber']).toBe(24);
    fireEvent.change(chamber, { target: { value: '' } });
    expect('chamber' in value()).toBe(false);
  });

  it('take a word or none: empty is none', () => {
    const { value } = form('competing-risks');
    const [first] = screen.getAllByLabelText<HTMLInputElement>('What ended it (optional)');
    expect(first!.value).toBe('leak');
    fireEvent.change(first!, { target: { value: '' } });
    expect(value()['units']![0]).toEqual({ time: 90, cause: null });
    fireEvent.change(first!, { target: { value: 'spun' } });
    expect(value()['units']![0]).toEqual({ time: 90, cause: 'spun' });
  });

  it('take a gauge study as a table: shaped, typed, pasted; while a cell is empty the result stays', () => {
    const { value } = form('gauge-study');
    const cell = (part: number, person: number, trial: number) =>
      screen.getByLabelText<HTMLInputElement>(`Part ${part}, person ${person}, trial ${trial}`);
    const example = value()['measurements'] as unknown as number[][][];
    expect(cell(2, 1, 2).value).toBe(String(example[1]![0]![1]));
    fireEvent.change(cell(1, 1, 1), { target: { value: '0,25' } });
    expect((value()['measurements'] as unknown as number[][][])[0]![0]![0]).toBe(0.25);
    fireEvent.change(cell(1, 1, 1), { target: { value: '' } });
    expect(screen.getByText(/1 of \d+ are no figure yet/)).toBeDefined();
    expect((value()['measurements'] as unknown as number[][][])[0]![0]![0]).toBe(0.25);
    fireEvent.paste(cell(1, 1, 1), { clipboardData: { getData: () => '1\t2\n3\t4\n' } });
    expect(
      (value()['measurements'] as unknown as number[][][]).slice(0, 2).map((p) => p[0]!.slice(0, 2)),
    ).toEqual([
      [1, 2],
      [3, 4],
    ]);
    const parts = example.length;
    fireEvent.click(screen.getByRole('button', { name: 'One of the parts more' }));
    expect(cell(parts + 1, 1, 1).value).toBe('');
    fireEvent.click(screen.getByRole('button', { name: 'One of the parts less' }));
    expect(screen.queryByText(/are no figure yet/)).toBeNull();
    expect(value()['measurements']).toHaveLength(parts);
  });

  it('say choices in words', () => {
    form('nut-setting');
    expect(
      screen.getByRole('option', { name: 'Castellated nut, cotter or pin through a slot' }),
    ).toBeDefined();
    expect(screen.queryByRole('option', { name: 'indexed' })).toBeNull();
  });

  it('add and take away rows', () => {
    const { value } = form('end-play');
    fireEvent.click(screen.getByRole('button', { name: /One more/ }));
    expect(value()['cycles']).toHaveLength(4);
    fireEvent.click(screen.getByRole('button', { name: 'Take cycles 1 away' }));
    expect(value()['cycles']).toHaveLength(3);
  });

  it.each(names)('%s has a whole form, and a start that its schema takes', (name) => {
    form(name);
    expect(document.querySelectorAll('input, select, textarea').length).toBeGreaterThan(0);
    const answer = reckon(name, startValue(describeCalculation(name)!.inputSchema as JsonSchema));
    expect(answer.ok || answer.reason).toBeTruthy();
  });
});
