import { useState } from 'react';
import type { Shift } from '@lanternwright/contract/plan';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useMay, useShop } from '../people/people-api.ts';
import { useChangeShiftMutation, useShiftsQuery } from '../plan/plan-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { WeekFields } from './hours-fields.tsx';

/** The hours of one person: their own, or those of the shop. */
function ShiftForm({ shift }: { shift: Shift }) {
  const shopWeek = useShop()?.week ?? [];
  const [week, setWeek] = useState(shift.week);
  const [save, { error, isLoading, isSuccess }] = useChangeShiftMutation();
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save({ id: shift.id, week, seen: shift.week });
      }}
    >
      {week === null ? (
        <p className="text-14 text-muted">{shift.name} works when the shop does.</p>
      ) : (
        <WeekFields week={week} fields={problemFields(error)} onChange={setWeek} />
      )}
      <FormProblem error={error} />
      {isSuccess && !error && <Note tone="good">Saved. New plans will use it.</Note>}
      <div className="flex flex-wrap gap-3">
        {week === null ? (
          <Button onClick={() => setWeek(shopWeek)}>Hours of their own</Button>
        ) : (
          <Button onClick={() => setWeek(null)}>As the shop</Button>
        )}
        <Button type="submit" disabled={isLoading || (week === null && shift.week === null)}>
          Save the hours of {shift.name}
        </Button>
      </div>
    </form>
  );
}

/** Technicians who work other hours than the shop. */
export function ShiftsSection() {
  const able = useMay();
  const { data: shifts = [] } = useShiftsQuery(undefined, { skip: !able('plan-work') });
  const [chosen, setChosen] = useState('');
  const shift = shifts.find((s) => s.id === chosen);
  if (shifts.length === 0) return null;
  const own = shifts.filter((s) => s.week !== null).map((s) => s.name);
  return (
    <section aria-labelledby="shifts" className="flex flex-col gap-3 border-t border-rule pt-5">
      <h2 id="shifts" className="text-18">
        Hours of one person
      </h2>
      <p className="text-14 text-muted">
        {own.length === 0
          ? 'Everybody works when the shop does.'
          : `Other hours than the shop: ${own.join(', ')}.`}
      </p>
      <SelectField label="Whose" value={chosen} onChange={(e) => setChosen(e.target.value)}>
        <option value="">Choose</option>
        {shifts.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </SelectField>
      {shift && <ShiftForm key={shift.id} shift={shift} />}
    </section>
  );
}
