export interface PlanBar {
  row: string;
  label: string;
  /** Shown with the label: who, or where. */
  detail: string;
  /** Minutes from the start of the plan. */
  from: number;
  to: number;
  /** Minutes past its due time, 0 when in time. */
  late: number;
}

interface Props {
  label: string;
  rows: readonly string[];
  bars: readonly PlanBar[];
}

const HOUR = 60;
const LEAST_PX_PER_HOUR = 44;

function hourStep(hours: number): number {
  return [1, 2, 4, 8, 24, 48, 168].find((step) => hours / step <= 12) ?? 336;
}

const formatHours = (minutes: number) => `${Number((minutes / HOUR).toFixed(1))} h`;

/** Work over the hours, a row for each bay or person. A late job is rust with the hours it is late. */
export function PlanBars({ label, rows, bars }: Props) {
  const end = 1.03 * Math.max(HOUR, ...bars.map((b) => b.to));
  const step = hourStep(end / HOUR);
  const ticks = Array.from({ length: Math.floor(end / (step * HOUR)) + 1 }, (_, i) => i * step);
  const at = (minute: number) => `${(100 * minute) / end}%`;
  return (
    <figure className="overflow-x-auto" aria-label={label}>
      <div style={{ minWidth: Math.min(2400, (end / HOUR) * LEAST_PX_PER_HOUR) + 96 }}>
        <div className="relative ml-24 h-6 border-b border-rule">
          {ticks.map((h) => (
            <span
              key={h}
              className="figure absolute text-12 whitespace-nowrap text-muted"
              style={{ left: at(h * HOUR) }}
            >
              {h} h
            </span>
          ))}
        </div>
        <ul>
          {rows.map((row) => (
            <li key={row} className="flex items-stretch border-b border-rule">
              <span className="w-24 shrink-0 truncate py-3 pr-2 text-13 font-semibold" title={row}>
                {row}
              </span>
              <ul className="relative min-h-12 flex-1">
                {bars
                  .filter((b) => b.row === row)
                  .map((b) => (
                    <li
                      key={b.label}
                      title={`${b.label}, ${b.detail}, ${formatHours(b.from)} to ${formatHours(b.to)}${b.late > 0 ? `, late by ${formatHours(b.late)}` : ''}`}
                      className={`absolute inset-y-1 overflow-hidden rounded-sm border px-1 text-12 leading-tight ${b.late > 0 ? 'border-rust bg-rust-wash' : 'border-pine bg-pine-wash'}`}
                      style={{ left: at(b.from), width: at(b.to - b.from) }}
                    >
                      <span className="block truncate font-semibold">{b.label}</span>
                      <span className="block truncate">
                        {b.late > 0 ? `late ${formatHours(b.late)}, ` : ''}
                        {b.detail}
                      </span>
                    </li>
                  ))}
              </ul>
            </li>
          ))}
        </ul>
      </div>
    </figure>
  );
}
