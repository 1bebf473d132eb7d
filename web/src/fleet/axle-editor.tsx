import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  axleRoles,
  numbered,
  positionsOf,
  type Axle,
  type AxleRole,
  type PlacedAxle,
} from '@lanternwright/core/axle-plan';
import { familySheet } from '@lanternwright/core/procedure';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { SheetEditor } from './sheet-editor.tsx';

const MOST_AXLES = 9;

/** An axle as it is edited: one that stands under the unit has its id, and keeps its number. */
export type EditedAxle = Axle & { id?: string; number: number };

interface Props {
  axles: readonly EditedAxle[];
  onChange: (axles: EditedAxle[]) => void;
  /** Axles that stand or stood under the unit: those that are not there can be put back. */
  takenOut?: readonly PlacedAxle[];
}

/** A new axle: like the one before it, or a plain trailer axle. */
function nextAxle(axles: readonly EditedAxle[], number: number): EditedAxle {
  const before = axles.findLast((a) => a.number < number) ?? axles[0];
  if (!before)
    return { number, role: 'trailer', wheels: 'single', brake: 'drum', sheet: familySheet('a-trailer')! };
  const { role, wheels, brake, sheet } = before;
  return { number, role, wheels, brake, sheet };
}

/** Numbers a further axle can have: those left free, and the one behind the last. */
function freeNumbers(axles: readonly EditedAxle[]): number[] {
  const last = Math.max(0, ...axles.map((a) => a.number));
  return Array.from({ length: Math.min(last + 1, MOST_AXLES) }, (_, i) => i + 1).filter(
    (n) => !axles.some((a) => a.number === n),
  );
}

const inOrder = (axles: readonly EditedAxle[]) => [...axles].sort((a, b) => a.number - b.number);

/** The axles front to rear, drawn and edited one by one. Under a unit that is there none is renumbered. */
export function AxleEditor({ axles, onChange, takenOut = [] }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const placed = axles.some((a) => a.id !== undefined);
  const change = (i: number, part: Partial<Axle>) =>
    onChange(axles.map((a, k) => (k === i ? { ...a, ...part } : a)));
  const move = (i: number, by: number) => {
    const list = [...axles];
    const [axle] = list.splice(i, 1);
    list.splice(i + by, 0, axle!);
    onChange(numbered(list));
  };
  const takeAway = (i: number) => {
    const rest = axles.filter((_, k) => k !== i);
    onChange(placed ? rest : numbered(rest));
  };
  const free = freeNumbers(axles);
  const last = Math.max(0, ...axles.map((a) => a.number));
  const add = (axle: EditedAxle) => onChange(inOrder([...axles, axle]));
  return (
    <div className="flex flex-col gap-4">
      <div className="overflow-x-auto rounded-lg border border-edge bg-panel p-4">
        <AxlePlan
          size="large"
          axles={axles}
          wheelEnds={positionsOf(axles).map((position) => ({
            position,
            state: 'not-measured' as const,
          }))}
          label="The axle plan so far"
        />
        <p className="caption pt-2">Seen from above, front to the left</p>
      </div>
      {axles.map((axle, i) => (
        <fieldset key={axle.id ?? i} className="flex flex-col gap-3 border-t border-rule pt-3">
          <legend className="sr-only">Axle {axle.number}</legend>
          <div className="flex flex-wrap items-end gap-3">
            <h3 className="w-16 pb-3 text-16">Axle {axle.number}</h3>
            <SelectField
              label="Role"
              value={axle.role}
              onChange={(e) => change(i, { role: e.target.value as AxleRole })}
            >
              {Object.entries(axleRoles).map(([id, title]) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Wheels"
              value={axle.wheels}
              onChange={(e) => change(i, { wheels: e.target.value as Axle['wheels'] })}
            >
              <option value="single">Single</option>
              <option value="dual">Dual</option>
            </SelectField>
            <SelectField
              label="Brake"
              value={axle.brake}
              onChange={(e) => change(i, { brake: e.target.value as Axle['brake'] })}
            >
              <option value="drum">Drum</option>
              <option value="disc">Disc</option>
              <option value="none">None</option>
            </SelectField>
            <Button onClick={() => setOpen(open === i ? null : i)} aria-expanded={open === i}>
              {open === i ? 'Close the sheet' : axle.sheet.title}
            </Button>
            <span className="flex gap-1">
              {!placed && (
                <>
                  <Button
                    aria-label={`Move axle ${axle.number} forward`}
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                  >
                    <ArrowUp size={18} aria-hidden />
                  </Button>
                  <Button
                    aria-label={`Move axle ${axle.number} back`}
                    disabled={i === axles.length - 1}
                    onClick={() => move(i, 1)}
                  >
                    <ArrowDown size={18} aria-hidden />
                  </Button>
                </>
              )}
              <Button
                aria-label={`Take axle ${axle.number} ${placed ? 'out' : 'away'}`}
                disabled={axles.length === 1}
                onClick={() => takeAway(i)}
              >
                <Trash2 size={18} aria-hidden />
              </Button>
            </span>
          </div>
          {open === i && <SheetEditor sheet={axle.sheet} onChange={(sheet) => change(i, { sheet })} />}
        </fieldset>
      ))}
      <div className="flex flex-wrap gap-3">
        {takenOut
          .filter((t) => free.includes(t.number) && !axles.some((a) => a.id === t.id))
          .map((t) => (
            <Button key={t.id} onClick={() => add(t)}>
              Put axle {t.number} back, {axleRoles[t.role].toLowerCase()}
            </Button>
          ))}
        {free.map((number) => (
          <Button key={number} onClick={() => add(nextAxle(axles, number))}>
            {number > last ? 'Add an axle behind' : `Put another axle in place ${number}`}
          </Button>
        ))}
      </div>
    </div>
  );
}
