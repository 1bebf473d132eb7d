import { StateMark, stateWords, type MarkState } from './state-mark.tsx';

interface GridColumn {
  position: string;
  cells: Record<string, MarkState>;
}

interface Props {
  stages: readonly { id: string; title: string }[];
  columns: readonly GridColumn[];
  /** Row that is lit, and column in which it is. */
  at: { stage: string; position: string };
  onSelect: (stage: string, position: string) => void;
}

/** A job: stages down, wheel ends across, the row at hand under the lantern. */
export function TravellerGrid({ stages, columns, at, onSelect }: Props) {
  return (
    <table className="w-full border-collapse text-13">
      <caption className="caption pb-2 text-left">Traveller</caption>
      <thead>
        <tr className="border-b border-rule">
          <th scope="col" className="sr-only">
            Stage
          </th>
          {columns.map((c) => (
            <th key={c.position} scope="col" className="p-0">
              <button
                type="button"
                onClick={() => onSelect('', c.position)}
                aria-pressed={c.position === at.position}
                className={`min-h-8 w-full rounded-sm px-1 text-13 font-semibold ${c.position === at.position ? 'bg-lamp text-ink' : 'text-muted hover:text-ink'}`}
              >
                {c.position}
              </button>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {stages.map((stage) => {
          const lit = stage.id === at.stage;
          return (
            <tr key={stage.id} className={lit ? 'border-y border-lamp-edge bg-lamp' : 'border-b border-rule'}>
              <th scope="row" className={`py-2 text-left font-medium ${lit ? 'pl-2' : ''}`}>
                {stage.title}
              </th>
              {columns.map((c) => {
                const state = c.cells[stage.id] ?? 'ahead';
                return (
                  <td key={c.position} className="p-0 text-center">
                    <button
                      type="button"
                      onClick={() => onSelect(stage.id, c.position)}
                      aria-label={`${stage.title}, ${c.position}: ${state === 'in-band' ? 'done' : stateWords[state]}`}
                      className="inline-flex min-h-9 w-full items-center justify-center rounded-sm hover:bg-side"
                    >
                      <StateMark state={state} size={c.position === at.position ? 17 : 14} />
                    </button>
                  </td>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
