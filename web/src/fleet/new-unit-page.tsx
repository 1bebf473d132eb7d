import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
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
import { parseQuantity, type Unit } from '@lanternwright/core/quantity';
import { problemFields, problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { AxleEditor, type EditedAxle } from './axle-editor.tsx';
import { PlanDrawing } from './plan-drawing.tsx';
import { useAddUnitMutation, useOwnersQuery } from './fleet-api.ts';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

const typedQuantity = (units: Unit[], assumed: Unit) =>
  z.string().superRefine((text, context) => {
    const read = text.trim() === '' ? { ok: true as const } : parseQuantity(text, units, assumed);
    if (!read.ok) context.addIssue({ code: 'custom', message: read.message });
  });

/** What is typed for a unit. @param distance what a bare odometer reading is in */
const formSchema = (distance: ReaderUnits['distance']) =>
  z.object({
    owner: z.string().trim().min(1, 'Name the owner'),
    name: z.string().trim().min(1, 'Give the unit a name').max(60),
    kind: unitKindSchema,
    plate: z.string().trim().max(20),
    distance: typedQuantity(['km', 'mi'], distance),
    hours: typedQuantity(['h'], 'h'),
  });
type Form = z.infer<ReturnType<typeof formSchema>>;

function meterOf({ distance, hours }: Form, reader: ReaderUnits) {
  const km = parseQuantity(distance, ['km', 'mi'], reader.distance);
  const h = parseQuantity(hours, ['h'], 'h');
  return { ...(km.ok ? { distance: km.quantity } : {}), ...(h.ok ? { hours: h.quantity } : {}) };
}

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
  const { register, handleSubmit, watch, formState } = useForm<Form>({
    resolver: zodResolver(formSchema(reader.distance)),
    defaultValues: { owner: '', name: '', kind: 'tractor', plate: '', distance: '', hours: '' },
  });
  const refused = problemFields(error);
  const errorOf = (field: keyof Form) => formState.errors[field]?.message ?? refused[field];
  const save = handleSubmit(async (form) => {
    if (!axles) return;
    const { owner, name, kind, plate } = form;
    const { data } = await addUnit({
      owner,
      name,
      kind,
      plate,
      meter: meterOf(form, reader),
      axles: [...axles],
    });
    if (data) await navigate(`/fleet/${data.id}`);
  });
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-6 p-5">
      <h1 className="text-23">Add a unit</h1>
      <form className="flex flex-col gap-6" onSubmit={(e) => void save(e)}>
        <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
          <TextField
            label="Owner"
            list="owners"
            hint="A new name makes a new owner"
            error={errorOf('owner')}
            {...register('owner')}
          />
          <datalist id="owners">
            {owners.map((o) => (
              <option key={o.id} value={o.name} />
            ))}
          </datalist>
          <TextField label="Name" error={errorOf('name')} {...register('name')} />
          <SelectField label="Kind" error={errorOf('kind')} {...register('kind')}>
            {Object.entries(unitKinds).map(([id, title]) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </SelectField>
          <TextField label="Plate" error={errorOf('plate')} {...register('plate')} />
          <TextField
            label={`Distance on the meter, ${eitherUnit(reader, 'distance')}`}
            placeholder="611,240 km"
            error={errorOf('distance')}
            {...register('distance')}
          />
          <TextField
            label="Hours on the meter"
            placeholder="4,210 h"
            error={errorOf('hours')}
            {...register('hours')}
          />
        </div>
        <section className="flex flex-col gap-3">
          <h2 className="text-18">{axles ? 'Axles, front to rear' : 'Which axle plan is it'}</h2>
          {axles ? (
            <AxleEditor axles={axles} onChange={setAxles} />
          ) : (
            <LayoutPicker kind={watch('kind')} onPick={(l) => setAxles(numbered(l.axles))} />
          )}
        </section>
        {error && Object.keys(refused).length === 0 && <Note tone="trouble">{problemText(error)}</Note>}
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
