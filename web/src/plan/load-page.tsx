import {
  Bar,
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Legend,
  Line,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { problemText } from '../api.ts';
import { formatDate } from '../shell/words.ts';
import { Note } from '../ui/problem-note.tsx';
import { useCapacityQuery } from './plan-api.ts';
import { PlanHead } from './plan-head.tsx';

const round = (hours: number) => Math.round(10 * hours) / 10;

/** Twelve weeks on: hours that people have, and hours that are booked or will be asked for, with their range. */
export function LoadPage() {
  const { data, error } = useCapacityQuery();
  const rows = (data ?? []).map((w) => ({
    week: formatDate(w.monday).replace(/ \d{4}$/, ''),
    capacity: round(w.capacity),
    booked: round(w.booked),
    due: round(w.due.usual),
    range: [round(w.due.usual - w.due.low), round(w.due.high - w.due.usual)],
    high: round(w.booked + w.due.high),
    low: round(w.booked + w.due.low),
  }));
  const tight = rows.filter((r) => r.high > r.capacity);
  return (
    <main>
      <PlanHead
        note={
          data &&
          (tight.length === 0
            ? 'There are hours enough in all twelve weeks'
            : `Hours may not do in ${tight.length === 1 ? 'one week' : `${tight.length} weeks`} of twelve`)
        }
      />
      {error && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {data && (
        <>
          <figure className="px-5 pt-5" aria-label="Hours of people against hours asked for, by week">
            <ResponsiveContainer width="100%" height={320}>
              <ComposedChart data={rows} margin={{ top: 8, right: 12, bottom: 4, left: 0 }}>
                <CartesianGrid stroke="var(--color-rule)" vertical={false} />
                <XAxis dataKey="week" tick={{ fontSize: 12, fill: 'var(--color-muted)' }} />
                <YAxis unit=" h" width={56} tick={{ fontSize: 12, fill: 'var(--color-muted)' }} />
                <Tooltip
                  contentStyle={{ background: 'var(--color-panel)', border: '1px solid var(--color-edge)' }}
                  formatter={(value, name) => [`${String(value)} h`, name]}
                />
                <Legend wrapperStyle={{ fontSize: 13 }} />
                <Bar
                  dataKey="booked"
                  name="booked"
                  stackId="asked"
                  fill="var(--color-pine)"
                  isAnimationActive={false}
                />
                <Bar
                  dataKey="due"
                  name="due besides"
                  stackId="asked"
                  fill="var(--color-lamp-edge)"
                  isAnimationActive={false}
                >
                  <ErrorBar dataKey="range" stroke="var(--color-ink)" width={6} />
                </Bar>
                <Line
                  dataKey="capacity"
                  name="hours people have"
                  type="step"
                  stroke="var(--color-ink)"
                  strokeWidth={2}
                  dot={false}
                  isAnimationActive={false}
                />
              </ComposedChart>
            </ResponsiveContainer>
          </figure>
          <div className="overflow-x-auto px-5 py-4">
            <table className="w-full text-left text-14">
              <thead className="text-13 text-muted">
                <tr>
                  <th className="py-2 font-normal">Week of</th>
                  <th className="font-normal">People have</th>
                  <th className="font-normal">Booked</th>
                  <th className="font-normal">Due besides</th>
                  <th className="font-normal">Range of both</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr
                    key={r.week}
                    className={`border-t border-rule ${r.high > r.capacity ? 'text-rust' : ''}`}
                  >
                    <th className="py-2 font-semibold">{r.week}</th>
                    <td className="figure">{r.capacity} h</td>
                    <td className="figure">{r.booked} h</td>
                    <td className="figure">{r.due} h</td>
                    <td className="figure">
                      {r.low} to {r.high} h
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="px-5 pb-6 text-13 text-muted">
            Hours of work due follow from each unit’s own use and from how long such work took here; the range
            is that of the middle half. What is overdue counts in the first week.
          </p>
        </>
      )}
    </main>
  );
}
