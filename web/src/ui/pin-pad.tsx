import { Delete } from 'lucide-react';

const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;
const LONGEST = 8;
export const SHORTEST_PIN = 4;
const key = 'figure min-h-16 rounded-lg border border-edge bg-panel text-26 active:bg-lamp';

/** Digits for a gloved hand; what was typed shows as dots. */
export function PinPad({ pin, onPin }: { pin: string; onPin: (pin: string) => void }) {
  const add = (digit: string) => onPin((pin + digit).slice(0, LONGEST));
  return (
    <div className="flex flex-col gap-2">
      <p
        className="figure min-h-10 text-center text-26 tracking-[0.3em]"
        aria-label={`${pin.length} digits typed`}
      >
        {'•'.repeat(pin.length)}
      </p>
      <div role="group" aria-label="PIN" className="grid grid-cols-3 gap-2">
        {digits.map((d) => (
          <button key={d} type="button" className={key} onClick={() => add(d)}>
            {d}
          </button>
        ))}
        <span />
        <button type="button" className={key} onClick={() => add('0')}>
          0
        </button>
        <button
          type="button"
          aria-label="Back"
          className={`${key} flex items-center justify-center`}
          onClick={() => onPin(pin.slice(0, -1))}
        >
          <Delete size={24} aria-hidden />
        </button>
      </div>
    </div>
  );
}
