const keys = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '−'] as const;

interface Props {
  /** A digit, a point, or a minus. */
  onKey: (key: string) => void;
  onBack: () => void;
  onNext: () => void;
  next: string;
}

const look = 'min-h-16 rounded-lg border text-26 active:bg-lamp';

/** Digits for a gloved hand. */
export function Keypad({ onKey, onBack, onNext, next }: Props) {
  return (
    <div role="group" aria-label="Keypad" className="grid grid-cols-[3fr_1fr] gap-2">
      <div className="grid grid-cols-3 gap-2">
        {keys.map((key) => (
          <button
            key={key}
            type="button"
            aria-label={key === '−' ? 'Minus' : key === '.' ? 'Point' : key}
            className={`figure ${look} border-edge bg-panel`}
            onClick={() => onKey(key === '−' ? '-' : key)}
          >
            {key}
          </button>
        ))}
      </div>
      <div className="grid grid-rows-[1fr_3fr] gap-2">
        <button type="button" className={`${look} border-edge bg-panel !text-16`} onClick={onBack}>
          Back
        </button>
        <button
          type="button"
          className={`${look} border-action bg-action !text-18 font-semibold text-band-ink`}
          onClick={onNext}
        >
          {next}
        </button>
      </div>
    </div>
  );
}
