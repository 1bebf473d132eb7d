/** How a layer stands, for its box and its word. */
export type LayerState = 'untouched' | 'ahead' | 'open' | 'off' | 'unfinished' | 'back' | 'now';

export interface StackRow {
  id: string;
  title: string;
  state: LayerState;
  /** Its state in words, and what is done on it. */
  words: string;
  /** It holds what the work is about. */
  target: boolean;
}

const look = (state: LayerState, target: boolean): string =>
  state === 'now'
    ? 'border-lamp-edge bg-lamp'
    : state === 'untouched'
      ? 'border-dashed border-edge bg-panel text-muted'
      : state === 'unfinished'
        ? 'border-rust bg-rust-wash'
        : target
          ? 'border-pine bg-pine-wash'
          : 'border-edge bg-panel';

/** The layers of a wheel end from the outside in, each a step narrower than the one that covers it. */
export function StackView({ rows, caption }: { rows: readonly StackRow[]; caption: string }) {
  return (
    <figure>
      <figcaption className="caption pb-2">{caption}</figcaption>
      <ol className="flex flex-col">
        {rows.map((row, i) => (
          <li key={row.id} style={{ width: `${100 - i * 4.5}%` }}>
            {i > 0 && <span aria-hidden className="mx-auto block h-2.5 w-0.5 bg-edge" />}
            <div className={`rounded-lg border-2 px-3 py-1.5 ${look(row.state, row.target)}`}>
              <p className="text-14 leading-tight font-semibold">{row.title}</p>
              <p className="text-12 text-muted">{row.words}</p>
            </div>
          </li>
        ))}
      </ol>
    </figure>
  );
}
