import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { layerOf, stackSchema, usualStack, type Stack } from '@lanternwright/core/stack';
import { StackFields } from './stack-fields.tsx';

afterEach(cleanup);

const trailer = usualStack('a-two-nuts', { role: 'trailer', wheels: 'dual', brake: 'drum' })!;

function editing(stack: Stack) {
  const onChange = vi.fn<(stack: Stack) => void>();
  render(<StackFields {...{ stack, onChange }} />);
  return { last: () => onChange.mock.lastCall?.[0], onChange, user: userEvent.setup() };
}

describe('the layers of a sheet', () => {
  it('take what is said of the wheel: studs that centre it, tapered nuts, a left-hand thread', async () => {
    const { last, user } = editing(trailer);
    await user.selectOptions(screen.getByLabelText('Centred by'), 'Its studs');
    await user.selectOptions(screen.getByLabelText('Tapered nuts that go first'), '3');
    await user.selectOptions(screen.getByLabelText('Left-hand thread on the left'), 'Yes');
    expect(layerOf(last()!, 'wheel')).toMatchObject({ pilot: 'stud', centringNuts: 3, leftHand: true });
    await user.selectOptions(screen.getByLabelText('Thread of the studs'), '3/4-16');
    await user.selectOptions(screen.getByLabelText('Nuts seat on'), 'A ball seat');
    expect(layerOf(last()!, 'wheel')).toMatchObject({ thread: '3/4-16', seat: 'ball' });
    await user.selectOptions(screen.getByLabelText('Thread of the studs'), 'Not said');
    await user.selectOptions(screen.getByLabelText('Nuts seat on'), 'Not said');
    expect(
      screen.getByText('Wheels, dual, stud-piloted, 3 centring nuts, left-hand thread on the left'),
    ).toBeDefined();
    expect(stackSchema.safeParse(last()).success).toBe(true);
  });

  it('take the chamber and the adjuster of an air brake, and leave out what is not said', async () => {
    const { last, user } = editing(trailer);
    await user.selectOptions(screen.getByLabelText('Type of the chamber'), 'Type 30');
    await user.selectOptions(screen.getByLabelText('Stroke of the chamber'), 'Long stroke');
    await user.selectOptions(screen.getByLabelText('The adjuster is'), 'Automatic');
    expect(
      screen.getByText('Brake, drum and shoes, chamber 30, long stroke, automatic adjuster'),
    ).toBeDefined();
    await user.selectOptions(screen.getByLabelText('The adjuster is'), 'Not said');
    const brake = layerOf(JSON.parse(JSON.stringify(last())) as Stack, 'brake-outer');
    expect(brake).toMatchObject({ chamberSize: 30, chamberStroke: 'long' });
    expect(brake).not.toHaveProperty('adjusting');
  });

  it('say why they make no wheel end, and the sheet keeps what it had until they do', async () => {
    const { last, onChange, user } = editing(trailer);
    await user.click(screen.getByRole('button', { name: 'Remove hub' }));
    expect(screen.getByText(/Not in the sheet yet\. It has a nut and no hub/)).toBeDefined();
    expect(onChange).not.toHaveBeenCalled();
    await user.click(screen.getByRole('button', { name: 'Remove bearing nut' }));
    expect(last()!.map((l) => l.layer)).toEqual(['wheel', 'cap', 'brake-outer']);
    await user.selectOptions(screen.getByLabelText('Add a layer'), 'Unit hub');
    expect(last()!.map((l) => l.layer)).toEqual(['wheel', 'cap', 'brake-outer', 'unit-hub']);
    expect(screen.queryByText(/Not in the sheet yet/)).toBeNull();
  });

  it('add every layer there is, in the order from outside to inside', async () => {
    const { last, user } = editing(stackSchema.parse([{ layer: 'wheel', kind: 'single' }]));
    const add = screen.getByLabelText('Add a layer');
    for (const name of ['Knuckle', 'Hub', 'Bearing nut', 'Spindle', 'Cap, flange or hub lock'])
      await user.selectOptions(add, name);
    expect(last()!.map((l) => l.layer)).toEqual(['wheel', 'cap', 'nut', 'hub', 'spindle', 'knuckle']);
  });
});
