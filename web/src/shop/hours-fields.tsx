import type { ShopSettings } from '@lanternwright/contract/shop';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';

const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

interface WeekProps {
  week: ShopSettings['week'];
  fields: Record<string, string>;
  onChange: (week: ShopSettings['week']) => void;
}

const errorOf = (fields: Record<string, string>, path: string) =>
  Object.entries(fields).find(([key]) => key === path || key.startsWith(`${path}.`))?.[1];

/** Hours of a week, a day a row, with its breaks. */
export function WeekFields({ week, fields, onChange }: WeekProps) {
  const setDay = (day: number, spans: ShopSettings['week'][number]) =>
    onChange(week.map((d, i) => (i === day ? spans : d)));
  return (
    <ul>
      {week.map((spans, day) => (
        <li
          key={dayNames[day]}
          className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-2"
        >
          <span className="w-28 text-14 font-semibold">{dayNames[day]}</span>
          {spans.length === 0 && <span className="text-14 text-muted">closed</span>}
          {spans.map((span, i) => (
            <span key={i} className="flex items-center gap-2">
              {(['from', 'until'] as const).map((end) => (
                <input
                  key={end}
                  type="time"
                  aria-label={`${dayNames[day]}, ${end}${spans.length > 1 ? `, part ${i + 1}` : ''}`}
                  className="min-h-12 rounded-md border border-edge bg-panel px-2 text-14"
                  value={span[end]}
                  onChange={(e) =>
                    setDay(
                      day,
                      spans.map((s, k) => (k === i ? { ...s, [end]: e.target.value } : s)),
                    )
                  }
                />
              ))}
              <Button
                weight="quiet"
                aria-label={`Remove ${dayNames[day]}, part ${i + 1}`}
                onClick={() =>
                  setDay(
                    day,
                    spans.filter((_, k) => k !== i),
                  )
                }
              >
                Remove
              </Button>
            </span>
          ))}
          <Button
            weight="quiet"
            aria-label={`Add hours on ${dayNames[day]}`}
            onClick={() => setDay(day, [...spans, { from: '', until: '' }])}
          >
            Add hours
          </Button>
          {day > 0 && spans.length === 0 && week[day - 1]!.length > 0 && (
            <Button weight="quiet" onClick={() => setDay(day, week[day - 1]!)}>
              As {dayNames[day - 1]}
            </Button>
          )}
          {errorOf(fields, `week.${day}`) && (
            <span className="text-13 text-rust">{errorOf(fields, `week.${day}`)}</span>
          )}
        </li>
      ))}
    </ul>
  );
}

interface Props {
  draft: Pick<ShopSettings, 'week' | 'holidays'>;
  fields: Record<string, string>;
  onChange: (part: Partial<Pick<ShopSettings, 'week' | 'holidays'>>) => void;
}

/** When the shop works, a day a row, with its breaks; and the days on which it does not. */
export function HoursFields({ draft: { week, holidays }, fields, onChange }: Props) {
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="pb-2 text-18 font-semibold">When the shop works</legend>
      <WeekFields week={week} fields={fields} onChange={(w) => onChange({ week: w })} />
      <h2 className="pt-2 text-16">Days closed</h2>
      {holidays.map((h, i) => (
        <div key={i} className="grid items-end gap-2 md:grid-cols-[200px_1fr_auto]">
          <TextField
            label={`Day ${i + 1}`}
            type="date"
            value={h.date}
            error={errorOf(fields, `holidays.${i}.date`)}
            onChange={(e) =>
              onChange({ holidays: holidays.map((x, k) => (k === i ? { ...x, date: e.target.value } : x)) })
            }
          />
          <TextField
            label={`What day ${i + 1} is`}
            value={h.name}
            maxLength={60}
            error={errorOf(fields, `holidays.${i}.name`)}
            onChange={(e) =>
              onChange({ holidays: holidays.map((x, k) => (k === i ? { ...x, name: e.target.value } : x)) })
            }
          />
          <Button weight="quiet" onClick={() => onChange({ holidays: holidays.filter((_, k) => k !== i) })}>
            Remove
          </Button>
        </div>
      ))}
      {fields['holidays'] && <p className="text-13 text-rust">{fields['holidays']}</p>}
      <div>
        <Button onClick={() => onChange({ holidays: [...holidays, { date: '', name: '' }] })}>
          Add a day
        </Button>
      </div>
    </fieldset>
  );
}
