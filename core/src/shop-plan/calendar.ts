/** From a minute until before another. */
export interface Span {
  fromMin: number;
  untilMin: number;
}

/** When somebody works: windows in order that do not touch, with the minutes worked before each. */
export interface Calendar {
  from: Float64Array;
  until: Float64Array;
  before: Float64Array;
  /** For every `page` minutes after the first window's beginning, the first window that ends after them. */
  pages: Int32Array;
  page: number;
}

/** Pages of half the usual window, so that a look goes on by a window or two. */
function pagesOf(from: Float64Array, until: Float64Array): Pick<Calendar, 'pages' | 'page'> {
  const last = until.length - 1;
  const span = last < 1 || until[last]! === Infinity ? 0 : until[last]! - from[0]!;
  const count = Math.min(20_000, 4 * until.length);
  if (!(span > 0)) return { pages: new Int32Array(1), page: Infinity };
  const page = span / count;
  const pages = new Int32Array(count + 1);
  for (let k = 0, i = 0; k <= count; k++) {
    while (i < last && until[i]! <= from[0]! + k * page) i++;
    pages[k] = i;
  }
  return { pages, page };
}

/** @param spans in any order, overlapping or not; those without length are left out */
export function calendarOf(spans: readonly Span[]): Calendar {
  const merged: Span[] = [];
  for (const span of spans.toSorted((a, b) => a.fromMin - b.fromMin)) {
    if (!(span.untilMin > span.fromMin)) continue;
    const last = merged.at(-1);
    if (last && span.fromMin <= last.untilMin) last.untilMin = Math.max(last.untilMin, span.untilMin);
    else merged.push({ ...span });
  }
  const before = new Float64Array(merged.length);
  merged.forEach((_, i) => {
    if (i > 0) before[i] = before[i - 1]! + merged[i - 1]!.untilMin - merged[i - 1]!.fromMin;
  });
  const from = Float64Array.from(merged, (s) => s.fromMin);
  const until = Float64Array.from(merged, (s) => s.untilMin);
  return { from, until, before, ...pagesOf(from, until) };
}

export const always = calendarOf([{ fromMin: 0, untilMin: Infinity }]);

/** The minutes in which both work. */
export function shared(a: Calendar, b: Calendar): Calendar {
  if (a === b) return a;
  const spans: Span[] = [];
  for (let i = 0, k = 0; i < a.from.length && k < b.from.length;) {
    const untilMin = Math.min(a.until[i]!, b.until[k]!);
    spans.push({ fromMin: Math.max(a.from[i]!, b.from[k]!), untilMin });
    if (a.until[i] === untilMin) i++;
    else k++;
  }
  return calendarOf(spans);
}

/** The first window that ends after a minute; their number when none does. */
function windowAt({ from, until, pages, page }: Calendar, minute: number): number {
  if (until.length === 0 || minute < until[0]!) return 0;
  if (minute >= until[until.length - 1]!) return until.length;
  let i = pages[Math.min(pages.length - 1, Math.floor((minute - from[0]!) / page))]!;
  while (until[i]! <= minute) i++;
  // The page was reckoned, and may be one too far.
  while (i > 0 && until[i - 1]! > minute) i--;
  return i;
}

/** The first minute, not before the given one, in which work goes on; Infinity when there is none. */
export function openFrom(calendar: Calendar, minute: number): number {
  const i = windowAt(calendar, minute);
  return i === calendar.from.length ? Infinity : Math.max(minute, calendar.from[i]!);
}

/** Minutes worked before a minute. */
function workedBefore(calendar: Calendar, minute: number): number {
  const i = windowAt(calendar, minute);
  if (i < calendar.from.length) return calendar.before[i]! + Math.max(0, minute - calendar.from[i]!);
  return i === 0 ? 0 : calendar.before[i - 1]! + calendar.until[i - 1]! - calendar.from[i - 1]!;
}

function doneFrom({ from, until }: Calendar, window: number, start: number, minutes: number): number {
  let left = minutes;
  for (let i = window; i < from.length; i++) {
    const begin = Math.max(start, from[i]!);
    if (begin + left <= until[i]!) return begin + left;
    left -= until[i]! - begin;
  }
  return Infinity;
}

/** When work of some minutes that begins at a minute, and rests when nobody works, is done; or Infinity. */
export const doneAt = (calendar: Calendar, start: number, minutes: number) =>
  doneFrom(calendar, windowAt(calendar, start), start, minutes);

/** As `openFrom` and `doneAt` with one look, written into `span`. */
export function workFrom(calendar: Calendar, minute: number, minutes: number, span: Span): void {
  const i = windowAt(calendar, minute);
  span.fromMin = i === calendar.from.length ? Infinity : Math.max(minute, calendar.from[i]!);
  span.untilMin = doneFrom(calendar, i, span.fromMin, minutes);
}

/** Minutes worked from a minute until another. */
export const workedWithin = (calendar: Calendar, from: number, until: number) =>
  until > from ? workedBefore(calendar, until) - workedBefore(calendar, from) : 0;

/** Where what is taken lets go: the end of the first span that [from, until) runs into, or `from` when none does. */
export function clearFrom(taken: Calendar, from: number, until: number): number {
  const i = windowAt(taken, from);
  return i < taken.from.length && taken.from[i]! < until ? taken.until[i]! : from;
}
