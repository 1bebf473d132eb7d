import { useState } from 'react';
import { z } from 'zod';
import type { Floor, NewAbsence } from '@lanternwright/contract/plan';
import { UnitPicker, type FoundUnit } from '../fleet/unit-picker.tsx';
import { FormProblem } from '../form-problem.tsx';
import { useShop } from '../people/people-api.ts';
import { momentOf } from '../shell/words.ts';
import { useToolsQuery } from '../tools/tools-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useTellAbsenceMutation } from './plan-api.ts';

const UNIT = 'unit';

/** Whole days where no time is said. A unit is picked beside the form: its id is typed by nobody. */
const awaySchema = z
  .object({
    of: z.string().min(1, 'Choose who or what'),
    unitId: z.string(),
    from: z.string().min(1, 'Enter the first day'),
    fromTime: z.string(),
    until: z.string().min(1, 'Enter the last day'),
    untilTime: z.string(),
    why: z.string().trim().min(1, 'Enter a reason'),
  })
  .refine(({ of, unitId }) => of !== UNIT || unitId !== '', { path: ['unitId'], error: 'Choose the unit' })
  .transform(({ of, unitId, from, fromTime, until, untilTime, why }): NewAbsence => {
    const [what, id = unitId] = of.split(' ', 2) as [NewAbsence['what'], string | undefined];
    return {
      ...{ what, of: id, why },
      from: momentOf(from, fromTime || '00:00'),
      until: momentOf(until, untilTime || '24:00'),
    };
  });
const start = { of: '', unitId: '', from: '', fromTime: '', until: '', untilTime: '', why: '' };

/** Says that somebody is not here, a bay is closed, a tool away, or a unit cannot come. */
export function AwayForm({ people, onDone }: { people: Floor['people']; onDone: () => void }) {
  const bays = useShop()?.bays ?? [];
  const { data: tools = [] } = useToolsQuery();
  const [unit, setUnit] = useState<FoundUnit | null>(null);
  const [tell, { error, isLoading }] = useTellAbsenceMutation();
  const { errorOf, field, handleSubmit, setValue, watch } = useRequestForm(awaySchema, start, error);
  const save = handleSubmit(async (absence) => {
    const answer = await tell(absence);
    if (!answer.error) onDone();
  });
  return (
    <form
      className="grid items-start gap-3 border-t border-rule pt-3 md:grid-cols-3"
      onSubmit={(e) => void save(e)}
    >
      <SelectField label="Who or what" {...field('of')}>
        <option value="">Choose</option>
        <optgroup label="People">
          {people.map((p) => (
            <option key={p.id} value={`person ${p.id}`}>
              {p.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Bays">
          {bays.map((b) => (
            <option key={b.id} value={`bay ${b.id}`}>
              {b.name}
            </option>
          ))}
        </optgroup>
        <option value={UNIT}>A unit that cannot come</option>
        {tools.length > 0 && (
          <optgroup label="Tools">
            {tools.map(({ tool }) => (
              <option key={tool.id} value={`tool ${tool.id}`}>
                {tool.code}, {tool.title}
              </option>
            ))}
          </optgroup>
        )}
      </SelectField>
      {watch('of') === UNIT && (
        <UnitPicker
          label="Which unit"
          unit={unit}
          error={errorOf('unitId')}
          onChange={(chosen) => {
            setUnit(chosen);
            setValue('unitId', chosen?.id ?? '');
          }}
        />
      )}
      <div className="grid grid-cols-2 items-start gap-2">
        <TextField label="First day" type="date" {...field('from')} />
        <TextField label="From, if not all day" type="time" {...field('fromTime')} />
      </div>
      <div className="grid grid-cols-2 items-start gap-2">
        <TextField label="Last day" type="date" {...field('until')} />
        <TextField label="Until, if not all day" type="time" {...field('untilTime')} />
      </div>
      <TextField label="Why" maxLength={120} {...field('why')} />
      <div className="flex flex-wrap items-end gap-2 md:col-span-2 md:pt-5">
        <Button type="submit" weight="main" disabled={isLoading}>
          Record the absence
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
      <FormProblem error={error} />
    </form>
  );
}
