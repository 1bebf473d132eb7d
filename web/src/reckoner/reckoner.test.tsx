import { configureStore } from '@reduxjs/toolkit';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Provider } from 'react-redux';
import { afterEach, describe, expect, it } from 'vitest';
import { describeCalculation, listCalculations, reckon } from '@lanternwright/core/reckoner';
import { inchReader, metricReader } from '@lanternwright/core/quantity';
import { preferencesReducer, unitsChosen } from '../shell/preferences.ts';
import { labelOf, sayNumber, unitOf } from '@lanternwright/core/reckoner';
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
    expect(sayNumber(0.211, unitOf('measuredMm', inchReader))).toBe('0.00831');
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
