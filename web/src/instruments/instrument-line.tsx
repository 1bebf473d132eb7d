import { Button } from '../ui/button.tsx';
import type { Instruments } from './use-instruments.ts';

/** The instruments that are there, who has each, and what was wrong with the last line. */
export function InstrumentLine({ what, connected, fault, known, take }: Instruments & { what: string }) {
  if (!connected && !fault) return null;
  const mine = known.find((k) => k.mine);
  return (
    <div role="status" className="flex flex-wrap items-center gap-x-4 gap-y-1 text-13 text-muted">
      <span>
        {mine
          ? `${mine.id} is yours for this step: its send key fills the field.`
          : `${what} connected${known.length === 0 ? ': press its send key once, then take it' : ''}.`}
      </span>
      {!mine &&
        known.map((k) =>
          k.holder ? (
            <span key={k.id}>
              {k.id} is with {k.holder.name}
              {k.holder.where && `, ${k.holder.where}`}
            </span>
          ) : (
            <Button key={k.id} onClick={() => take(k.id)}>
              Take {k.id}
            </Button>
          ),
        )}
      {fault && <span className="text-rust">{fault}. Nothing was taken from it.</span>}
    </div>
  );
}
