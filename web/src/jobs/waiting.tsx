import type { Step } from '@lanternwright/core/procedure';
import { describeRefusal, whatWaits, type WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import type { OpenJob } from './use-job.ts';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  /** What can be done on this wheel end meanwhile. */
  meanwhile: readonly Step[];
  /** The step of those that is being done; null where it is the one at hand. */
  chosen: Step | null;
  choose: (step: Step | null) => void;
}

/** What waits for what in the job, and what can be done on this wheel end until it has come. */
export function Waiting({ open, wheelEnd, meanwhile, chosen, choose }: Props) {
  const waiting = whatWaits(open.job);
  if (waiting.length === 0) return null;
  const isHere = waiting.some((w) => w.position === wheelEnd.position);
  return (
    <section
      aria-label="What waits"
      className="flex flex-col gap-3 rounded-lg border border-edge bg-panel px-3 py-2"
    >
      <p className="caption">Waiting</p>
      <ul className="text-14">
        {waiting.map(({ position, step, why }) => (
          <li key={position} className="py-0.5">
            <span className="font-semibold">
              {position}, {step.title}
            </span>
            <span className="block text-muted">{describeRefusal(why, open.job)}</span>
          </li>
        ))}
      </ul>
      {isHere && meanwhile.length > 0 && (
        <div className="flex flex-col gap-2">
          <p className="caption">Meanwhile on {wheelEnd.position}</p>
          <div className="flex flex-wrap gap-2">
            {meanwhile.map((step) => (
              <Button key={step.id} aria-pressed={step === chosen} onClick={() => choose(step)}>
                {step.title}
              </Button>
            ))}
            {chosen && (
              <Button weight="quiet" onClick={() => choose(null)}>
                Back to what waits
              </Button>
            )}
          </div>
        </div>
      )}
    </section>
  );
}
