import { useState } from 'react';
import type { Floor, NewAbsence, ToldAbsence } from '@lanternwright/contract/plan';
import { problemFields } from '../api.ts';
import { UnitPicker, type FoundUnit } from '../fleet/unit-picker.tsx';
import { FormProblem } from '../form-problem.tsx';
import { useMay, useShop } from '../people/people-api.ts';
import { momentOf, formatTime } from '../shell/words.ts';
import { useToolsQuery } from '../tools/tools-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useCancelAbsenceMutation, useTellAbsenceMutation } from './plan-api.ts';

interface Props {
  away: readonly ToldAbsence[];
  people: Floor['people'];
}

const UNIT = 'unit';

/** Says that somebody is not here, a bay is closed, a tool away, or a unit cannot come. */
function AwayForm({ people, onDone }: { people: Floor['people']; onDone: () => void }) {
  const bays = useShop()?.bays ?? [];
  const { data: tools = [] } = useToolsQuery();
  const [who, setWho] = useState('');
  const [unit, setUnit] = useState<FoundUnit | null>(null);
  const [from, setFrom] = useState({ day: '', time: '00:00' });
  const [until, setUntil] = useState({ day: '', time: '24:00' });
  const [why, setWhy] = useState('');
  const [missing, setMissing] = useState<Record<string, string>>({});
  const [tell, { error, isLoading }] = useTellAbsenceMutation();
  const fields = { ...problemFields(error), ...missing };
  const save = async () => {
    const wrong = {
      ...(who && (who !== UNIT || unit) ? {} : { of: 'Choose who or what' }),
      ...(from.day ? {} : { from: 'Say the first day' }),
      ...(until.day ? {} : { until: 'Say the last day' }),
      ...(why.trim() ? {} : { why: 'Say why' }),
    };
    setMissing(wrong);
    if (Object.keys(wrong).length > 0) return;
    const [what, of = unit?.id ?? ''] = who.split(' ', 2) as [NewAbsence['what'], string | undefined];
    const answer = await tell({
      ...{ what, of, why },
      from: momentOf(from.day, from.time || '00:00'),
      until: momentOf(until.day, until.time || '24:00'),
    });
    if (!answer.error) onDone();
  };
  return (
    <form
      className="grid items-start gap-3 border-t border-rule pt-3 md:grid-cols-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <SelectField
        label="Who or what"
        value={who}
        error={who === UNIT ? undefined : fields['of']}
        onChange={(e) => setWho(e.target.value)}
      >
        <option value="">choose</option>
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
      {who === UNIT && <UnitPicker label="Which unit" unit={unit} error={fields['of']} onChange={setUnit} />}
      <div className="grid grid-cols-2 items-start gap-2">
        <TextField
          label="First day"
          type="date"
          value={from.day}
          error={fields['from']}
          onChange={(e) => setFrom({ ...from, day: e.target.value })}
        />
        <TextField
          label="from, if not all day"
          type="time"
          value={from.time === '00:00' ? '' : from.time}
          onChange={(e) => setFrom({ ...from, time: e.target.value || '00:00' })}
        />
      </div>
      <div className="grid grid-cols-2 items-start gap-2">
        <TextField
          label="Last day"
          type="date"
          value={until.day}
          error={fields['until']}
          onChange={(e) => setUntil({ ...until, day: e.target.value })}
        />
        <TextField
          label="until, if not all day"
          type="time"
          value={until.time === '24:00' ? '' : until.time}
          onChange={(e) => setUntil({ ...until, time: e.target.value || '24:00' })}
        />
      </div>
      <TextField
        label="Why"
        value={why}
        maxLength={120}
        error={fields['why']}
        onChange={(e) => setWhy(e.target.value)}
      />
      <div className="flex flex-wrap items-end gap-2 md:col-span-2 md:pt-5">
        <Button type="submit" weight="main" disabled={isLoading}>
          Write it down
        </Button>
        <Button onClick={onDone}>Not now</Button>
      </div>
      <FormProblem error={error} />
    </form>
  );
}

/** Who and what is away; what is planned meanwhile is mended. */
export function Away({ away, people }: Props) {
  const able = useMay();
  const [asked, setAsked] = useState(false);
  const [cancel] = useCancelAbsenceMutation();
  return (
    <section aria-label="Away" className="flex flex-col gap-3 px-5 py-4">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="text-16">Away</h2>
        {away.length === 0 && <p className="text-14 text-muted">Nobody and nothing is away.</p>}
        {able('plan-work') && !asked && (
          <Button className="ml-auto" onClick={() => setAsked(true)}>
            Somebody or something is away
          </Button>
        )}
      </div>
      <ul>
        {away.map((a) => (
          <li
            key={a.id}
            className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 border-b border-rule text-14"
          >
            <span>
              <span className="font-semibold">{a.name}</span>: {a.why}
            </span>
            <span className="flex items-center gap-3 text-13 text-muted">
              {formatTime(a.from)} to {formatTime(a.until)}
              {able('plan-work') && (
                <Button weight="quiet" onClick={() => void cancel({ id: a.id, seenVersion: a.version })}>
                  Take it back
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {asked && <AwayForm people={people} onDone={() => setAsked(false)} />}
    </section>
  );
}
