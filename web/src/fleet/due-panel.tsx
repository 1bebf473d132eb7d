import { useState } from 'react';
import { z } from 'zod';
import type { Due } from '@lanternwright/contract/fleet';
import { duties } from '@lanternwright/core/due';
import { works, type Work } from '@lanternwright/core/stack';
import { useMay } from '../people/people-api.ts';
import { formatDate, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useTellServiceMutation } from './fleet-api.ts';
import { useRequestForm } from '../use-request-form.ts';
import { PanelForm } from './panel-form.tsx';

const byWords = {
  distance: 'by distance',
  months: 'by age',
  hours: 'by hours',
  'out-of-band': 'left out of its band',
  deferred: 'the day its owner agreed to',
} as const;
const stateLook: Record<Due['state'], string> = {
  overdue: 'font-semibold text-rust',
  soon: 'font-semibold',
  later: '',
  unknown: 'text-muted',
};
const stateWords: Record<Due['state'], string> = {
  overdue: 'overdue since',
  soon: 'soon,',
  later: '',
  unknown: '',
};

/** When something is due, in words: a day, and the days between which it lies. */
export function describeDue({
  dueOn,
  earliest,
  latest,
  dueBy,
  missing,
  shortened,
}: Omit<Due, 'position' | 'work' | 'state'>): {
  day: string;
  why: string;
} {
  if (dueOn === null)
    return missing.includes('last')
      ? { day: 'unknown', why: 'No last service date' }
      : {
          day: 'unknown',
          why: `Read the ${missing.includes('hours') ? 'hour meter' : 'odometer'} on two days`,
        };
  const range =
    earliest !== latest && earliest && latest ? `, ${formatDate(earliest)} to ${formatDate(latest)}` : '';
  const uncounted = missing.length > 0 ? `; ${missing.join(' and ')} not counted yet` : '';
  const sooner =
    shortened.length > 0 ? `; sooner: ${shortened.map((d) => duties[d].toLowerCase()).join(', ')}` : '';
  return { day: formatDate(dueOn), why: `${dueBy ? byWords[dueBy] : ''}${range}${sooner}${uncounted}` };
}

/** Wheel ends with the same work due on the same day stand together. */
function grouped(due: readonly Due[]): (Due & { positions: string[] })[] {
  const groups = new Map<string, Due & { positions: string[] }>();
  for (const d of due) {
    const key = `${d.work} ${d.dueOn} ${d.lastOn} ${d.missing.join()}`;
    const group = groups.get(key);
    if (group) group.positions.push(d.position);
    else groups.set(key, { ...d, positions: [d.position] });
  }
  for (const { positions } of groups.values()) positions.sort();
  return [...groups.values()];
}

const SERVICE = 'Enter the date and the wheel ends';
const serviceSchema = z.object({
  date: z.string().min(1, SERVICE),
  positions: z.array(z.string()).min(1, SERVICE),
});

function TellService({
  unitId,
  due,
  onDone,
}: {
  unitId: string;
  due: Due & { positions: string[] };
  onDone: () => void;
}) {
  const [tell, { isLoading, error }] = useTellServiceMutation();
  const form = useRequestForm(serviceSchema, { date: '', positions: [] }, error);
  const { errorOf, field, handleSubmit, register, watch } = form;
  const save = handleSubmit(async ({ date, positions }) => {
    for (const position of positions) {
      const answer = await tell({ id: unitId, position, date, works: [due.work] });
      if (answer.error) return;
    }
    onDone();
  });
  const chosen = watch('positions');
  return (
    <PanelForm {...{ error, isLoading, onDone }} button="Save" onSave={() => void save()}>
      <div className="flex flex-wrap gap-2" role="group" aria-label="On which wheel ends">
        {due.positions.map((p) => (
          <label
            key={p}
            className={`flex min-h-12 min-w-12 cursor-pointer items-center justify-center rounded-md border px-3 text-14 has-focus-visible:outline-2 ${chosen.includes(p) ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
          >
            <input type="checkbox" className="sr-only" value={p} {...register('positions')} />
            {p}
          </label>
        ))}
      </div>
      <TextField
        label={`Day of: ${works[due.work]}`}
        type="date"
        max={shopToday()}
        {...field('date')}
        error={errorOf('positions') ?? errorOf('date')}
      />
    </PanelForm>
  );
}

/** What is due on a unit, first come first; what is unknown says what is missing. */
export function DuePanel({ unitId, due }: { unitId: string; due: readonly Due[] }) {
  const able = useMay();
  const [telling, setTelling] = useState<string | null>(null);
  const groups = grouped(due);
  return (
    <section>
      <h2 className="pb-1 text-16">What is due</h2>
      {groups.length === 0 && (
        <p className="text-13 text-muted">
          No interval is known for its wheel ends. Its sheets can say how often.
        </p>
      )}
      <ul>
        {groups.map((d) => {
          const key = `${d.work}${d.positions.join()}`;
          const { day, why } = describeDue(d);
          return (
            <li key={key} className="border-b border-rule py-2">
              <div className="flex items-baseline justify-between gap-3">
                <span className="text-14">
                  {works[d.work as Work]} <span className="font-semibold">{d.positions.join(' ')}</span>
                </span>
                <span className={`text-right text-13 ${stateLook[d.state]}`}>
                  {stateWords[d.state]} {day}
                </span>
              </div>
              <p className="text-12 text-muted">
                {why}
                {d.lastOn && `; last ${formatDate(d.lastOn)}`}
              </p>
              {d.missing.includes('last') &&
                able('add-units') &&
                (telling === key ? (
                  <TellService unitId={unitId} due={d} onDone={() => setTelling(null)} />
                ) : (
                  <Button weight="quiet" onClick={() => setTelling(key)}>
                    Enter the date
                  </Button>
                ))}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
