import { useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import {
  layoutsFor,
  numbered,
  unitKinds,
  unitKindSchema,
  type Layout,
  type UnitKind,
} from '@lanternwright/core/axle-plan';
import { FormProblem } from '../form-problem.tsx';
import { optionalQuantity } from '../optional-quantity.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { AxleEditor, type EditedAxle } from './axle-editor.tsx';
import { PlanDrawing } from './plan-drawing.tsx';
import { useAddUnitMutation, useOwnersQuery } from './fleet-api.ts';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

/** What is typed for a unit. @param distance what a bare odometer reading is in */
const formSchema = (distance: ReaderUnits['distance']) =>
  z.object({
    owner: z.string().trim().min(1, 'Name the owner'),
    name: z.string().trim().min(1, 'Give the unit a name').max(60),
    kind: unitKindSchema,
    plate: z.string().trim().max(20),
    distance: optionalQuantity(['km', 'mi'], distance),
    hours: optionalQuantity(['h'], 'h'),
  });
const start: z.input<ReturnType<typeof formSchema>> = {
  owner: '',
  name: '',
  kind: 'tractor',
  plate: '',
  distance: '',
  hours: '',
};

function LayoutPicker({ kind, onPick }: { kind: UnitKind; onPick: (layout: Layout) => void }) {
  return (
    <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
      {layoutsFor(kind).map((layout) => (
        <li key={layout.id}>
          <button
            type="button"
            onClick={() => onPick(layout)}
            className="flex h-full min-h-24 w-full flex-col items-start justify-between gap-2 rounded-lg border border-edge bg-panel p-3 text-left hover:border-lamp-edge hover:bg-lamp"
          >
            <PlanDrawing plan={layout} />
            <span className="text-14 font-semibold">{layout.title}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Adding a unit: who owns it, what it is, and its axles from a common plan. */
export function NewUnitPage() {
  const navigate = useNavigate();
  const reader = useReader();
  const { data: owners = [] } = useOwnersQuery();
  const [axles, setAxles] = useState<readonly EditedAxle[] | null>(null);
  const [addUnit, { isLoading, error }] = useAddUnitMutation();
  const { field, handleSubmit, watch } = useRequestForm(formSchema(reader.distance), start, error);
  const save = handleSubmit(async ({ distance, hours, ...unit }) => {
    if (!axles) return;
    const meter = { ...(distance ? { distance } : {}), ...(hours ? { hours } : {}) };
    const { data } = await addUnit({ ...unit, meter, axles: [...axles] });
    if (data) await navigate(`/fleet/${data.id}`);
  });
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-6 p-5">
      <h1 className="text-23">Add a unit</h1>
      <form className="flex flex-col gap-6" onSubmit={(e) => void save(e)}>
        <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
          <TextField label="Owner" list="owners" hint="A new name makes a new owner" {...field('owner')} />
          <datalist id="owners">
            {owners.map((o) => (
              <option key={o.id} value={o.name} />
            ))}
          </datalist>
          <TextField label="Name" {...field('name')} />
          <SelectField label="Kind" {...field('kind')}>
            {Object.entries(unitKinds).map(([id, title]) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </SelectField>
          <TextField label="Plate" {...field('plate')} />
          <TextField
            label={`Distance on the meter, ${eitherUnit(reader, 'distance')}`}
            placeholder="611,240 km"
            {...field('distance')}
          />
          <TextField label="Hours on the meter" placeholder="4,210 h" {...field('hours')} />
        </div>
        <section className="flex flex-col gap-3">
          <h2 className="text-18">{axles ? 'Axles, front to rear' : 'Which axle plan is it'}</h2>
          {axles ? (
            <AxleEditor axles={axles} onChange={setAxles} />
          ) : (
            <LayoutPicker kind={watch('kind')} onPick={(l) => setAxles(numbered(l.axles))} />
          )}
        </section>
        <FormProblem error={error} />
        <div className="flex flex-wrap gap-3">
          <Button type="submit" weight="main" disabled={!axles || isLoading}>
            Add {watch('name') || 'the unit'}
          </Button>
          {axles && <Button onClick={() => setAxles(null)}>Choose another plan</Button>}
        </div>
      </form>
    </main>
  );
}
