import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import type { DueUnit } from '@lanternwright/contract/plan';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { works, type Work } from '@lanternwright/core/stack';
import { describeWorks } from '@lanternwright/core/work-plan';
import { useTellServicesMutation } from '../fleet/fleet-api.ts';
import { LampForm } from '../lamp-form.tsx';
import { shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';

/** Works of which nobody knows when they were done last. */
const unknownWorks = ({ due }: DueUnit): Work[] => [
  ...new Set(due.flatMap((d) => (d.missing.includes('last') ? [d.work] : []))),
];

const toldSchema = z.object({
  date: z.string().min(1, 'Enter the date'),
  works: z.array(z.string()).min(1, 'Choose what was done'),
});

function TellForm({ units, onDone }: { units: readonly DueUnit[]; onDone: (told: string | null) => void }) {
  const [tell, { isLoading, error }] = useTellServicesMutation();
  const { field, errorOf, handleSubmit, register, watch } = useRequestForm(
    toldSchema,
    { date: '', works: [] },
    error,
  );
  const offered = [...new Set(units.flatMap(unknownWorks))];
  const chosen = watch('works');
  const save = handleSubmit(async (told) => {
    const { data } = await tell({
      unitIds: units.map((u) => u.unit.id),
      date: told.date,
      works: offered.filter((work) => told.works.includes(work)),
    });
    if (data)
      onDone(
        `Saved for ${data.wheelEnds} ${data.wheelEnds === 1 ? 'wheel end' : 'wheel ends'} of ${data.units} ${data.units === 1 ? 'unit' : 'units'}.`,
      );
  });
  return (
    <LampForm
      {...{ error, isLoading }}
      label="When it was done last"
      button={`Save for ${units.length} ${units.length === 1 ? 'unit' : 'units'}`}
      onSave={() => void save()}
      onCancel={() => onDone(null)}
    >
      <p className="text-14">
        It is saved for every wheel end of these units whose last date is unknown. Dates that are known stay.
      </p>
      <div className="flex flex-wrap gap-2" role="group" aria-label="What was done">
        {offered.map((work) => (
          <label
            key={work}
            className={`flex min-h-12 cursor-pointer items-center rounded-md border px-3 text-14 has-focus-visible:outline-2 ${chosen.includes(work) ? 'border-lamp-edge bg-panel font-semibold' : 'border-edge bg-panel'}`}
          >
            <input type="checkbox" className="mr-2 size-5 accent-pine" value={work} {...register('works')} />
            {works[work]}
          </label>
        ))}
      </div>
      {errorOf('works') && <p className="text-13 text-rust">{errorOf('works')}</p>}
      <div className="max-w-80">
        <TextField label="Done on, for all of them" type="date" max={shopToday()} {...field('date')} />
      </div>
    </LampForm>
  );
}

/** Units whose last service nobody knows: told one by one, or many at once. */
export function UnknownServices({ rows }: { rows: readonly DueUnit[] }) {
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [told, setTold] = useState<string | null>(null);
  const able = rows.filter((row) => unknownWorks(row).length > 0);
  const units = able.filter((row) => chosen.includes(row.unit.id));
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
  return (
    <section aria-label="Last service unknown">
      <div className="flex flex-col gap-3 border-b border-rule bg-side px-5 py-3">
        <div className="flex flex-wrap items-center gap-3">
          <p className="text-14">
            Choose units with the same last service, and enter it for all of them at once.
          </p>
          <Button onClick={() => setChosen(able.map((row) => row.unit.id))}>Choose all on this page</Button>
        </div>
        {told && <Note tone="good">{told}</Note>}
        {units.length > 0 && (
          <TellForm
            units={units}
            onDone={(words) => {
              setChosen([]);
              setTold(words);
            }}
          />
        )}
      </div>
      <ul>
        {rows.map((row) => (
          <li
            key={row.unit.id}
            className="grid items-center gap-x-4 gap-y-1 border-b border-rule px-5 py-1 md:grid-cols-[260px_1fr_auto]"
          >
            {unknownWorks(row).length > 0 ? (
              <label className="flex min-h-12 cursor-pointer items-center gap-3">
                <input
                  type="checkbox"
                  className="size-5 accent-pine"
                  checked={chosen.includes(row.unit.id)}
                  onChange={() => toggle(row.unit.id)}
                />
                <Named row={row} />
              </label>
            ) : (
              <Named row={row} />
            )}
            <span className="text-14">{describeWorks(row.due)}</span>
            <Link
              to={`/fleet/${row.unit.id}`}
              className="inline-flex min-h-12 items-center text-14 underline underline-offset-2"
            >
              {unknownWorks(row).length > 0 ? 'By wheel end' : 'Its meters'}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Named({ row: { unit } }: { row: DueUnit }) {
  return (
    <span className="min-w-0">
      <span className="block truncate text-16 font-semibold">{unit.name}</span>
      <span className="block truncate text-13 text-muted">
        {unitKinds[unit.kind]}, {unit.owner.name}
      </span>
    </span>
  );
}
