import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { layouts, numbered } from '@lanternwright/core/axle-plan';
import { AxleEditor, type EditedAxle } from './axle-editor.tsx';

afterEach(cleanup);

const three = layouts.find((l) => l.id === 'tractor-3')!.axles;
const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const placed = numbered(three).map((axle) => ({ ...axle, id: id(axle.number) }));

function open(axles: readonly EditedAxle[], takenOut: Parameters<typeof AxleEditor>[0]['takenOut'] = []) {
  let now = axles;
  function Form() {
    const [list, setList] = useState(axles);
    now = list;
    return <AxleEditor axles={list} onChange={setList} takenOut={takenOut} />;
  }
  render(<Form />);
  const press = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }));
  return { numbers: () => now.map((a) => a.number), ids: () => now.map((a) => a.id ?? null), press };
}

describe('axles under a unit that is there', () => {
  it('keep their numbers when one is taken out; its number is free for another, or for itself', async () => {
    const { numbers, ids, press } = open(placed, [placed[1]!]);
    expect(screen.queryByRole('button', { name: /^Move axle/ })).toBeNull();
    await press('Take axle 2 out');
    expect(numbers()).toEqual([1, 3]);
    expect(screen.getByRole('heading', { name: 'Axle 3' })).toBeDefined();
    await press('Put axle 2 back, drive');
    expect(ids()).toEqual([id(1), id(2), id(3)]);
    await press('Take axle 2 out');
    await press('Put another axle in place 2');
    expect(ids()).toEqual([id(1), null, id(3)]);
    await press('Add an axle behind');
    expect(numbers()).toEqual([1, 2, 3, 4]);
  });
});

describe('axles of a new unit', () => {
  it('are numbered as they stand, whatever is moved or taken away', async () => {
    const { numbers, press } = open(numbered(three));
    await press('Move axle 1 back');
    expect(screen.getByRole('heading', { name: 'Axle 1' })).toBeDefined();
    await press('Take axle 1 away');
    expect(numbers()).toEqual([1, 2]);
  });
});
