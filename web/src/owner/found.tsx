import { componentOf, dispositions } from '@lanternwright/core/inspection';
import { decidedOn, judgedParts, lastVerdict, type WheelEnd } from '@lanternwright/core/traveller';
import { formatPlay } from '../shell/words.ts';
import { useReader } from '../shell/use-reader.ts';
import { StateMark, stateWords } from '../ui/state-mark.tsx';

/** Parts that are not simply used again, with what was seen and what follows. */
function findingsOf(w: WheelEnd): { title: string; seen: string; then: string }[] {
  return [...judgedParts(w).values()].flatMap((judged) => {
    const { component, seen: sign } = judged.finding;
    const part = componentOf(component);
    const decided = decidedOn(w, judged);
    if (!part || decided === 'reuse') return [];
    const seen = part.conditions.find((c) => c.id === sign)?.words ?? sign;
    return [{ title: part.title, seen, then: dispositions[decided] }];
  });
}

/** How the last reading of a wheel end stands. */
export const markOf = (w: WheelEnd) => {
  const verdict = lastVerdict(w)?.result.verdict;
  return verdict === undefined ? 'not-measured' : verdict === 'unsure' ? 'repeat' : verdict;
};

/** What was found on a wheel end: its reading, the parts that are worn, and the photos of it. */
export function Found({ w }: { w: WheelEnd }) {
  const unit = useReader().length;
  const reading = lastVerdict(w);
  const mark = markOf(w);
  const findings = findingsOf(w);
  if (!reading && findings.length === 0 && w.photos.length === 0) return null;
  return (
    <div className="flex flex-col gap-1.5">
      {reading && (
        <p className="flex flex-wrap items-center gap-2 text-14">
          <StateMark state={mark} size={16} />
          <span>
            End play <span className="figure">{formatPlay(reading.result.endPlayMm, unit)}</span>,{' '}
            {stateWords[mark]}
          </span>
        </p>
      )}
      {findings.map((f) => (
        <p key={f.title} className="text-14">
          {f.title}: {f.seen.toLowerCase()}. <span className="font-semibold">{f.then}</span>
        </p>
      ))}
      {w.photos.length > 0 && (
        <ul className="flex gap-2 overflow-x-auto">
          {w.photos.map((p) => (
            <li key={p.eventId} className="shrink-0">
              <a href={`/api/jobs/photos/${p.photoId}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/jobs/photos/${p.photoId}`}
                  alt={p.caption || `Photo of ${w.position}`}
                  loading="lazy"
                  className="aspect-4/3 h-24 rounded-sm border border-edge object-cover"
                />
              </a>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
