import type { UnitKind } from '../axle-plan/index.ts';
import { works as workTitles, type Work } from '../stack/index.ts';
import { IN_AND_OUT_MIN, workTime, type MeasuredTime } from '../work-plan/index.ts';
import { isSplit, type Bill, type BillLine, type Tax } from './bill.ts';

/** A part that works on a wheel end need. Money in the smallest coin; null where nobody knows the price. */
export interface EstimatedPart {
  title: string;
  works: readonly Work[];
  minor: number | null;
}

/** What is estimated on one wheel end. */
export interface EstimatedEnd {
  position: string;
  works: readonly Work[];
  parts: readonly EstimatedPart[];
}

/** What the shop charges. */
export interface Rates {
  currency: string;
  /** An hour of labour, in the smallest coin; null where it is not set. */
  hourMinor: number | null;
  suppliesPercent: number;
  taxes: readonly Tax[];
}

const QUARTER_MIN = 15;
/** Hours in whole quarters, begun ones counted. */
const hoursOf = (minutes: number) => Math.ceil(minutes / QUARTER_MIN - 1e-9) / 4;

/**
 * Labour on one wheel end. Works done together share their way in: the longest decides, and the shorter are done on its
 * way. So the shortest is charged whole, for whichever of them is done, and each longer one only with what it takes
 * more. Whatever is left out, the rest then comes to the time of the longest that is done.
 */
function labourOf(
  { position, works }: EstimatedEnd,
  kind: UnitKind,
  measured: readonly MeasuredTime[],
  unitMinor: number,
): BillLine[] {
  const times = works
    .map((work) => ({ work, hours: hoursOf(workTime(work, kind, measured).usual) }))
    .sort((a, b) => a.hours - b.hours);
  return times.flatMap(({ work, hours }, i) => {
    const quantity = hours - (times[i - 1]?.hours ?? 0);
    if (quantity <= 0) return [];
    const of = times.slice(i).map((t) => t.work);
    const what = i === 0 ? workTitles[work] : `${workTitles[work]}, additional time`;
    return [{ group: 'labour', what, per: 'hour', quantity, unitMinor, at: { position, works: of } }];
  });
}

/**
 * A first estimate: the hours that the planner reckons with at the shop's rate, and the parts of the route at their
 * price, each line tied to the works it is for. What has no price has 0, to be entered by whoever writes the estimate.
 * @param measured this shop's own times
 * @source the planner's times, see `workTime`; hours in whole quarters are common practice, no source
 */
export function estimateOf(
  ends: readonly EstimatedEnd[],
  { kind, measured, rates }: { kind: UnitKind; measured: readonly MeasuredTime[]; rates: Rates },
): Bill {
  const unitMinor = rates.hourMinor ?? 0;
  const inAndOut: BillLine = {
    ...{ group: 'labour', what: 'Unit in, on stands and out', per: 'hour' },
    ...{ quantity: hoursOf(IN_AND_OUT_MIN), unitMinor },
  };
  const lines = ends.flatMap((end) => [
    ...labourOf(end, kind, measured, unitMinor),
    ...end.parts.map(({ title, works, minor }): BillLine => {
      const at = { position: end.position, works: [...works] };
      return { group: 'parts', what: title, per: 'piece', quantity: 1, unitMinor: minor ?? 0, at };
    }),
  ]);
  const { currency, suppliesPercent, taxes } = rates;
  return { currency, lines: [inAndOut, ...lines], suppliesPercent, taxes: [...taxes] };
}

/**
 * An estimate or a bill to be written anew, by the works of today. A wheel end with a new work has the labour of the draft
 * and the parts that it did not have; lines that are for works left out since are gone. What was typed stands besides:
 * prices, lines that are for no work, and the other wheel ends.
 * @param written one that is not split by work is left as it is
 * @param draft what `estimateOf` gives for the works of today
 */
export function writtenAnew(written: Bill, draft: Bill): Bill {
  if (!isSplit(written) || !isSplit(draft)) return written;
  const worksAt = (bill: Bill, position: string) =>
    new Set(bill.lines.flatMap(({ at }) => (at?.position === position ? at.works : [])));
  const positions = new Set(draft.lines.flatMap(({ at }) => at?.position ?? []));
  const changed = new Set(
    [...positions].filter((position) => {
      const known = worksAt(written, position);
      return [...worksAt(draft, position)].some((work) => !known.has(work));
    }),
  );
  const isChanged = ({ at }: BillLine) => at !== undefined && changed.has(at.position);
  const isOfToday = ({ at }: BillLine) =>
    at === undefined || at.works.some((work) => worksAt(draft, at.position).has(work));
  const isSame = (a: BillLine) => (b: BillLine) =>
    a.group === b.group && a.what === b.what && a.at?.position === b.at?.position;
  const kept = written.lines
    .filter((l) => isOfToday(l) && (l.group === 'parts' || !isChanged(l)))
    .map((l) => {
      const now = isChanged(l) ? draft.lines.find(isSame(l)) : undefined;
      return now?.at ? { ...l, at: now.at } : l;
    });
  const added = draft.lines.filter((l) => isChanged(l) && (l.group === 'labour' || !kept.some(isSame(l))));
  return { ...written, lines: [...kept, ...added] };
}
