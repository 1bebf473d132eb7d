import { useReader } from '../shell/use-reader.ts';
import { labelOf, formatNumber, unitOf } from '@lanternwright/core/reckoner';

const MOST_ROWS = 60;

function isRow(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function Single({ name, value }: { name: string; value: unknown }) {
  const reader = useReader();
  if (value === null || value === undefined) return <span className="text-muted">none</span>;
  if (typeof value === 'number') {
    const unit = unitOf(name, reader);
    return (
      <span className="figure">
        {formatNumber(value, unit)} {unit?.label}
      </span>
    );
  }
  if (typeof value === 'boolean') return <span>{value ? 'yes' : 'no'}</span>;
  return <span>{String(value)}</span>;
}

function Rows({ rows }: { rows: readonly Record<string, unknown>[] }) {
  const columns = Object.keys(rows[0] ?? {}).filter(
    (c) => !rows.some((r) => typeof r[c] === 'object' && r[c] !== null),
  );
  return (
    <div className="max-h-72 overflow-auto">
      <table className="w-full text-13">
        <thead>
          <tr>
            {columns.map((c) => (
              <th key={c} scope="col" className="caption py-1 pr-4 text-left">
                {labelOf(c)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map((row, i) => (
            <tr key={i} className="border-t border-rule">
              {columns.map((c) => (
                <td key={c} className="py-1 pr-4">
                  <Single name={c} value={row[c]} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && <p className="text-12 text-muted">and {rows.length - MOST_ROWS} more</p>}
    </div>
  );
}

function Value({ name, value }: { name: string; value: unknown }) {
  if (Array.isArray(value)) {
    if (value.length === 0) return <span className="text-muted">none</span>;
    if (isRow(value[0])) return <Rows rows={value as Record<string, unknown>[]} />;
    return (
      <span className="figure">
        {(value as number[])
          .map((v) => (typeof v === 'number' ? formatNumber(v, null) : String(v)))
          .join('  ')}
      </span>
    );
  }
  return isRow(value) ? <ResultTable result={value} /> : <Single name={name} value={value} />;
}

/** Every figure of a result with its name and unit. */
export function ResultTable({ result }: { result: Record<string, unknown> }) {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
      {Object.entries(result).map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-13 text-muted">{labelOf(name)}</dt>
          <dd className="min-w-0 text-14">
            <Value name={name} value={value} />
          </dd>
        </div>
      ))}
    </dl>
  );
}
