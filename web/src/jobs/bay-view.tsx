import { stages } from '@lanternwright/core/procedure';
import { stageAtHand, stepAtHand, wheelEndAt, type WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import type { OpenJob } from './use-job.ts';

interface HeadProps {
  open: OpenJob;
  position: string;
  onSelect: (position: string) => void;
  switchBay: () => void;
}

/** In the bay: which unit, which wheel end, how far; nothing else. */
export function BayHead({ open, position, onSelect, switchBay }: HeadProps) {
  const { job, detail } = open;
  const stage = stageAtHand(wheelEndAt(job, position)!);
  const at = stages.findIndex((s) => s.id === stage);
  return (
    <div className="sticky top-0 z-10 flex flex-col gap-2 border-b border-rule bg-paper px-4 py-2">
      <div className="flex items-center gap-3">
        <h1 className="min-w-0 shrink truncate text-16">{detail.unit.name}</h1>
        <div role="group" aria-label="Wheel end" className="flex grow flex-wrap justify-end gap-2">
          {job.wheelEnds.map((w) => (
            <Button
              key={w.position}
              aria-pressed={w.position === position}
              className={`min-w-14 ${w.position === position ? 'border-lamp-edge !bg-lamp' : ''}`}
              onClick={() => onSelect(w.position)}
            >
              {w.position}
            </Button>
          ))}
        </div>
        <Button weight="quiet" onClick={switchBay}>
          Whole job
        </Button>
      </div>
      <div
        className="flex gap-1"
        role="img"
        aria-label={`Stage ${at + 1} of ${stages.length}, ${stages[at]?.title}`}
      >
        {stages.map((s, i) => (
          <span
            key={s.id}
            className={`h-2 flex-1 rounded-[2px] ${i < at ? 'bg-pine' : i === at ? 'bg-lamp-edge' : 'bg-rule'}`}
          />
        ))}
      </div>
    </div>
  );
}

/** The caution of the step, in sight without the side panel. */
export function BayCaution({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const caution = stepAtHand(wheelEnd)?.caution;
  if (!caution) return null;
  return (
    <p className="m-4 rounded-r-md border-l-4 border-rust bg-rust-wash px-3 py-2.5 text-16">
      {caution} <span className="text-13">Follow the maker’s instructions and local rules.</span>
    </p>
  );
}
