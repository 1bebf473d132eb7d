import type { Calendar } from './calendar.ts';

/**
 * The time that is priced, cut into buckets: wherever somebody's hours begin or end, so that none is half night, and
 * between that about as fine everywhere. `edges[k]` is where bucket k begins; after the last edge nothing has a price.
 */
export interface Buckets {
  edges: Float64Array;
  count: number;
  /** For every `page` minutes, a bucket in which they begin or one beside it. */
  pages: Int32Array;
  page: number;
}

/** Buckets of equal width, where nobody's hours cut them. */
const USUAL = 100;

/** @param hours everybody's @param horizon minute after which nothing has a price */
export function bucketsOf(hours: Iterable<Calendar>, horizon: number): Buckets {
  const cuts = new Set([0, horizon]);
  for (const { from, until } of hours)
    for (const of of [from, until]) for (const at of of) if (at > 0 && at < horizon) cuts.add(at);
  const at = [...cuts].sort((a, b) => a - b);
  const width = horizon / USUAL;
  const edges = at.flatMap((from, i) => {
    const until = at[i + 1];
    if (until === undefined) return [from];
    const parts = Math.max(1, Math.round((until - from) / width));
    return Array.from({ length: parts }, (_, k) => from + (k * (until - from)) / parts);
  });
  const count = edges.length - 1;
  const pages = new Int32Array(4 * count + 1);
  const page = horizon / (pages.length - 1);
  for (let n = 0, k = 0; n < pages.length; n++) {
    while (k < count - 1 && edges[k + 1]! <= n * page) k++;
    pages[n] = k;
  }
  return { edges: Float64Array.from(edges), count, pages, page };
}

/** The bucket of a minute that has a price. */
export function bucketAt({ edges, pages, page }: Buckets, minute: number): number {
  let k = pages[Math.min(pages.length - 1, Math.floor(minute / page))]!;
  while (k > 0 && edges[k]! > minute) k--;
  while (edges[k + 1]! <= minute) k++;
  return k;
}

/**
 * A calendar cut where a bucket or a window ends. `worked[k]` minutes are worked before cut k, where the
 * clock says `begin[k]` to whoever begins there; the piece after it lies in `bucket[k]`. After the last cut
 * it goes on without price, if the calendar does.
 */
export interface Cuts {
  worked: Float64Array;
  begin: Float64Array;
  bucket: Int32Array;
  goesOn: boolean;
}

export function cutsOf({ from, until }: Calendar, buckets: Buckets): Cuts {
  const { edges, count } = buckets;
  const worked: number[] = [];
  const begin: number[] = [];
  const bucket: number[] = [];
  const end = edges[count]!;
  let sum = 0;
  from.forEach((open, i) => {
    let at = open;
    while (at < Math.min(until[i]!, end)) {
      const k = bucketAt(buckets, at);
      const next = Math.min(until[i]!, edges[k + 1]!);
      worked.push(sum);
      begin.push(at);
      bucket.push(k);
      sum += next - at;
      at = next;
    }
  });
  const later = from.find((_, i) => until[i]! > end);
  worked.push(sum);
  begin.push(later === undefined ? Infinity : Math.max(end, later));
  bucket.push(count);
  return {
    worked: Float64Array.from(worked),
    begin: Float64Array.from(begin),
    bucket: Int32Array.from(bucket),
    goesOn: later !== undefined,
  };
}

/** The first place of a list that grows whose value is not under another. */
export function firstAtLeast(list: Float64Array, value: number): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! >= value) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Minutes of [from, until) in each bucket, added to `load`. */
export function addSpan(load: Float64Array, from: number, until: number, buckets: Buckets): void {
  const { edges, count } = buckets;
  if (from >= edges[count]!) return;
  for (let k = bucketAt(buckets, from); k < count && edges[k]! < until; k++)
    load[k]! += Math.min(until, edges[k + 1]!) - Math.max(from, edges[k]!);
}

/** Worked minutes of [from, until) in each bucket, `times` each, added to `load`. */
export function addWorked(
  load: Float64Array,
  { worked, bucket }: Cuts,
  from: number,
  until: number,
  times: number,
): void {
  for (
    let k = Math.max(0, firstAtLeast(worked, from) - 1);
    k < worked.length - 1 && worked[k]! < until;
    k++
  ) {
    const minutes = Math.min(until, worked[k + 1]!) - Math.max(from, worked[k]!);
    if (minutes > 0) load[bucket[k]!]! += times * minutes;
  }
}
