import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { axleRoles, positionsOf, type Axle, type AxleRole } from '@lanternwright/core/axle-plan';
import { familySheet } from '@lanternwright/core/procedure';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { SheetEditor } from './sheet-editor.tsx';

const MOST_AXLES = 9;

interface Props {
  axles: readonly Axle[];
  onChange: (axles: Axle[]) => void;
}

/** A new axle: like the last one, or a plain trailer axle. */
function nextAxle(axles: readonly Axle[]): Axle {
  return (
    axles.at(-1) ?? { role: 'trailer', wheels: 'single', brake: 'drum', sheet: familySheet('a-trailer')! }
  );
}

/** The axles front to rear, drawn and edited one by one. */
export function AxleEditor({ axles, onChange }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const change = (i: number, part: Partial<Axle>) =>
    onChange(axles.map((a, k) => (k === i ? { ...a, ...part } : a)));
  const move = (i: number, by: number) => {
    const list = [...axles];
    const [axle] = list.splice(i, 1);
    list.splice(i + by, 0, axle!);
    onChange(list);
  };
  return (
    <div className="flex flex-col gap-4">
      <div className="overflow-x-auto rounded-lg border border-edge bg-panel p-4">
        <AxlePlan
          axles={axles}
          wheelEnds={positionsOf(axles.length).map((position) => ({
            position,
            state: 'not-measured' as const,
          }))}
          label="The axle plan so far"
        />
        <p className="caption pt-2">Seen from above, front to the left</p>
      </div>
      {axles.map((axle, i) => (
        <fieldset key={i} className="flex flex-col gap-3 border-t border-rule pt-3">
          <legend className="sr-only">Axle {i + 1}</legend>
          <div className="flex flex-wrap items-end gap-3">
            <h3 className="w-16 pb-3 text-16">Axle {i + 1}</h3>
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
              <Button
                aria-label={`Move axle ${i + 1} forward`}
                disabled={i === 0}
                onClick={() => move(i, -1)}
              >
                <ArrowUp size={18} aria-hidden />
              </Button>
              <Button
                aria-label={`Move axle ${i + 1} back`}
                disabled={i === axles.length - 1}
                onClick={() => move(i, 1)}
              >
                <ArrowDown size={18} aria-hidden />
              </Button>
              <Button
                aria-label={`Take axle ${i + 1} away`}
                disabled={axles.length === 1}
                onClick={() => onChange(axles.filter((_, k) => k !== i))}
              >
                <Trash2 size={18} aria-hidden />
              </Button>
            </span>
          </div>
          {open === i && <SheetEditor sheet={axle.sheet} onChange={(sheet) => change(i, { sheet })} />}
        </fieldset>
      ))}
      <div>
        <Button disabled={axles.length >= MOST_AXLES} onClick={() => onChange([...axles, nextAxle(axles)])}>
          Add an axle behind
        </Button>
      </div>
    </div>
  );
}
