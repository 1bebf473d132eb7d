interface Props {
  typed: string;
  onType: (text: string) => void;
  onClose: () => void;
}

/** Stands for Find until it has arrived, so that no key is lost. */
export function FindSoon({ typed, onType, onClose }: Props) {
  return (
    <div className="fixed inset-0 z-30 flex items-start justify-center bg-band/60 px-4 pt-[8vh]">
      <input
        autoFocus
        aria-label="Find a unit, a job, a part or a calculation"
        value={typed}
        onChange={(e) => onType(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') onClose();
        }}
        className="min-h-14 w-full max-w-[620px] rounded-lg border border-lamp-edge bg-lamp px-4 text-18 text-ink outline-none"
      />
    </div>
  );
}
