import { describeLayer, works, type LayerId } from '@lanternwright/core/stack';
import { partTitle } from '@lanternwright/core/route';
import {
  againstRelease,
  layerStates,
  layerStateWords,
  plannedLayers,
  progressOf,
  describeObjection,
  stepAtHand,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { StackView, type LayerState, type StackRow } from '../ui/stack-view.tsx';
import { useReader } from '../shell/use-reader.ts';
import { formatDate } from '../shell/words.ts';

/** How a layer stands on the panel, in words. */
const panelWords: Record<LayerState, string> = { ...layerStateWords, now: 'being worked on' };

function rowsOf(w: WheelEnd): StackRow[] {
  const states = layerStates(w);
  const now = (stepAtHand(w) as { layer?: LayerId | null } | null)?.layer;
  const targets = plannedLayers(w);
  return w.plan.stack.map((layer) => {
    const state: LayerState = layer.layer === now ? 'now' : states[layer.layer]!;
    const work = targets.get(layer.layer);
    const words = `${panelWords[state]}${work ? `, work: ${work}` : ''}`;
    return { id: layer.layer, title: describeLayer(layer), state, words, target: work !== undefined };
  });
}

/** What the owner said of a work that is not done now. */
const describeAnswer = ({ answer, until, risk, name }: WheelEnd['plan']['unwanted'][number]): string =>
  answer === 'defer' && until
    ? `Deferred by ${name}: due on ${formatDate(until)}. Risk: ${risk}`
    : `Declined by ${name}`;

/** The stack of a wheel end, what is wanted of it, and what nobody releases it without. */
export function StackPanel({ wheelEnd }: { wheelEnd: WheelEnd }) {
  const reader = useReader();
  const { plan, position } = wheelEnd;
  if (wheelEnd.firstBuild) return null;
  const missing = againstRelease(wheelEnd).filter((o) => o.guard === 'never' && o.code === 'missing');
  const left = progressOf(wheelEnd).filter((p) => p.record === null).length;
  const renewed = [
    ...new Set(
      progressOf(wheelEnd)
        .flatMap((p) => (p.record?.data?.kind === 'judge' ? p.record.data.findings : []))
        .filter((f) => f.disposition.startsWith('replace'))
        .map((f) => partTitle(f.component)),
    ),
  ];
  return (
    <section className="flex flex-col gap-4">
      <StackView rows={rowsOf(wheelEnd)} caption={`Stack of ${position}, outside to inside`} />
      <div>
        <h2 className="caption pb-1">Work on {position}</h2>
        <ul className="text-14">
          {plan.works.map((work) => (
            <li key={work} className="border-b border-rule py-1.5 font-semibold">
              {works[work]}
            </li>
          ))}
          {plan.unwanted.map((u) => (
            <li key={`${u.work} ${u.seq}`} className="border-b border-rule py-1.5 text-13 text-rust">
              {works[u.work]}. {describeAnswer(u)}
            </li>
          ))}
          {renewed.length > 0 && <li className="py-1.5 text-13 text-muted">New: {renewed.join(', ')}</li>}
        </ul>
      </div>
      {!wheelEnd.release && missing.length > 0 && (
        <details>
          <summary className="min-h-8 text-14">
            Nothing leaves before {missing.length} {missing.length === 1 ? 'more record' : 'more records'}
            {left > missing.length && `, ${left} steps in all`}
          </summary>
          <ul className="pt-1 text-13 text-muted">
            {missing.map((o) => (
              <li key={JSON.stringify(o.params)} className="py-0.5">
                {describeObjection(wheelEnd, o, reader)}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
