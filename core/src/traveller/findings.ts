import type { Disposition } from '../inspection/index.ts';
import type { StepData } from '../procedure/index.ts';
import { partOfLine } from '../route/index.ts';
import type { StepRecord, WheelEnd } from './job.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

/** A part as it was judged last, with the record that says so. */
export interface Judged {
  finding: DataOf<'judge'>['findings'][number];
  record: StepRecord;
}

/** Everything judged on a wheel end, each part as it was judged last: going deeper adds parts, nothing is lost. */
export function judgedParts({ records }: Pick<WheelEnd, 'records'>): ReadonlyMap<string, Judged> {
  const judged = new Map<string, Judged>();
  for (const record of records) {
    if (record.data?.kind !== 'judge') continue;
    for (const finding of record.data.findings) judged.set(finding.component, { finding, record });
  }
  return judged;
}

/** What was said of each line of the readiness list last, by the line. */
export function readyLines({ records }: Pick<WheelEnd, 'records'>) {
  const lines = new Map<string, DataOf<'ready'>['lines'][number]>();
  for (const { data } of records) {
    if (data?.kind === 'ready') for (const line of data.lines) lines.set(line.what, line);
  }
  return lines;
}

/** Parts of which the old one goes in again, as was said last. Ids. */
export function partsAgain({ received }: Pick<WheelEnd['plan'], 'received'>): string[] {
  const last = new Map(received.map((r) => [r.what, r.as]));
  return [...last].flatMap(([what, as]) => (as === 'reused' ? [partOfLine(what) ?? what] : []));
}

/** Parts not used twice of which the old one is in. Ids. */
export const oldParts = ({ side }: Pick<WheelEnd, 'side'>): string[] => [
  ...new Set(Object.values(side.made).flatMap(({ old }) => (old === undefined ? [] : [old]))),
];

/** New parts held against their old ones so far. */
export function comparedParts({ records }: Pick<WheelEnd, 'records'>): Set<string> {
  return new Set(
    records.flatMap(({ data }) => (data?.kind === 'compare' ? data.parts.map((p) => p.part) : [])),
  );
}

/** What means that a new part goes in. */
const renewing: ReadonlySet<Disposition> = new Set(['replace', 'replace-set', 'replace-pair']);

/** What was decided about a part after it was judged last; before and after is the place in the record. */
export function decidedOn(w: Pick<WheelEnd, 'decisions'>, { finding, record }: Judged): Disposition {
  const decided = w.decisions.findLast((d) => d.component === finding.component && d.seq > record.seq);
  return decided?.decision ?? finding.disposition;
}

/** Whether it was decided that a part gets a wear sleeve. */
export const isToBeSleeved = (w: Pick<WheelEnd, 'records' | 'decisions'>): boolean =>
  [...judgedParts(w).values()].some((j) => decidedOn(w, j) === 'sleeve');

/** Parts that go in new: as judged last, or as the supervisor decided since. Ids. */
export function renewedParts(w: Pick<WheelEnd, 'records' | 'decisions'>): Set<string> {
  const renewed = [...judgedParts(w).values()].filter((j) => renewing.has(decidedOn(w, j)));
  return new Set(renewed.map((j) => j.finding.component));
}
