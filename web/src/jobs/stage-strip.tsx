import type { WheelEndStand } from '@lanternwright/contract/jobs';
import { stageOrder, stages } from '@lanternwright/core/procedure';

/** The order of work as a strip: done, at hand, ahead. */
export function StageStrip({ wheelEnd }: { wheelEnd: WheelEndStand }) {
  const at = wheelEnd.released ? stages.length : stageOrder(wheelEnd.stage);
  return (
    <div className="flex gap-[3px]" aria-hidden>
      {stages.map((s, i) => (
        <span
          key={s.id}
          className={`h-2.5 w-5 rounded-[2px] sm:w-6 ${i < at ? 'bg-pine' : i === at ? (wheelEnd.trouble ? 'bg-rust' : 'bg-lamp-edge') : 'bg-rule'}`}
        />
      ))}
    </div>
  );
}

/** Where a wheel end of a job stands, in words. */
export function standWords(w: WheelEndStand): string {
  if (w.released) return 'released';
  const title = stages.find((s) => s.id === w.stage)?.title ?? w.stage;
  return w.trouble ? `${title}, ${w.trouble}` : title;
}
