import { leakLooks, oilLooks } from '../route/index.ts';
import { judgedParts } from './findings.ts';
import type { StepRecord, WheelEnd } from './job.ts';
import { RULES } from './rules.ts';

/** Every sign that was seen of the oil, with its last place in the record: oil that is new tells nothing of the old. */
export function signsOfOil({ records }: Pick<WheelEnd, 'records'>): ReadonlyMap<string, number> {
  const seen = new Map<string, number>();
  for (const { stepId, data, seq } of records)
    if (oilLooks.has(stepId) && data?.kind === 'found') for (const sign of data.signs) seen.set(sign, seq);
  return seen;
}

interface OilFinding {
  id: 'oil' | 'oil-burnt' | 'oil-leak';
  guard: 'never' | 'supervisor';
  note: '';
  seq: number;
}

/** The closures that mend a leak, by where it was found; for the others a part is judged, or a supervisor says. */
const mendedBy: Readonly<Record<string, readonly string[]>> = {
  seal: ['seal'],
  cap: ['fill'],
  plug: ['oil-level'],
};
/** Places from which oil gets on to the brake: nobody drives on that. */
const onToTheBrake: ReadonlySet<string> = new Set(['seal', 'hub']);

/**
 * What the oil says and nothing has answered since: water and metal ask for the bearings, burnt oil too unless a
 * supervisor says otherwise, and what is missing went somewhere. @source common practice, no source
 */
export function oilFindings(w: WheelEnd): OilFinding[] {
  const seen = signsOfOil(w);
  const last = (...signs: string[]) => Math.max(0, ...signs.map((s) => seen.get(s) ?? 0));
  const parts = judgedParts(w);
  const judged = (id: string) => parts.get(id)?.record.seq ?? 0;
  const findings: OilFinding[] = [];
  const found = (id: OilFinding['id'], guard: OilFinding['guard'], seq: number) =>
    findings.push({ id, guard, note: '', seq });

  const grave = last('water', 'metal');
  if (grave > judged('cups-and-rollers')) found('oil', 'never', grave);
  if ((w.rules ?? RULES) < 5) return findings;
  const burnt = last('burnt');
  if (burnt > judged('cups-and-rollers')) found('oil-burnt', 'supervisor', burnt);
  const missing = last('low', 'leak');
  const place = missing > 0 ? leakAt(w.records, missing) : null;
  if (!place) return findings;
  const mended = (mendedBy[place] ?? []).some((id) => (w.side.made[id]?.last.seq ?? 0) > missing);
  if (!mended && !(place === 'hub' && judged('hub-bore') > missing))
    found('oil-leak', onToTheBrake.has(place) ? 'never' : 'supervisor', missing);
  return findings;
}

/** Where oil was said to go since it was missed; null where nobody has said. */
function leakAt(records: readonly StepRecord[], since: number): string | null {
  const said = records.findLast((r) => leakLooks.has(r.stepId) && r.data !== null && r.seq > since);
  return said?.data?.kind === 'choose' ? said.data.option : null;
}
