import { useEffect, useRef, useState, type ReactNode, type Ref } from 'react';
import type { ToldAbsence } from '@lanternwright/contract/plan';
import { formatDate } from '../shell/words.ts';
import { clockOf, placeOf, type WeekGrid } from './week-grid.ts';

export const LANE_PX = 76;
const BLOCK_PX = LANE_PX - 12;
const LEAST_DAY_PX = 210;
export const NAME_PX = 108;
/** A visit of half an hour is still seen, and hit. */
const LEAST_BLOCK_PX = 20;
/** Narrower than this a name stands upright, or on lines of its own. */
const UPRIGHT_PX = 52;
const ONE_LINE_PX = 84;

export interface Bay {
  id: string;
  name: string;
}

/**
 * A week fills the page where it can; a day is never too narrow to be read, and a narrow page opens at a day.
 * @param first the day that is seen first, from 0
 */
export function useDayWidth(days: number, first: number) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const measure = () => setWidth(box.current?.clientWidth ?? 0);
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);
  const dayPx = Math.max(LEAST_DAY_PX, Math.floor((width - NAME_PX) / days));
  useEffect(() => {
    if (box.current) box.current.scrollLeft = first * dayPx;
  }, [first, dayPx]);
  return { box, dayPx };
}

/** Where a block stands on its lane. */
export function blockStyle(grid: WeekGrid, dayPx: number, { from, until }: { from: string; until: string }) {
  const begin = placeOf(grid, from) * dayPx;
  const width = Math.max(LEAST_BLOCK_PX, placeOf(grid, until) * dayPx - begin - 2);
  // The last of the week does not stand half outside it.
  return { left: Math.min(begin, grid.days.length * dayPx - width), width, height: BLOCK_PX };
}

/** A narrow block has its width for the name. */
export const blockPadding = ({ width }: { width: number }) => (width < 44 ? 'px-0.5' : 'px-1.5');

/** The name of a unit in its block, whole also where the block is narrow, and who works on it where there is room. */
export function BlockText({
  name,
  people,
  width,
  note,
}: {
  name: string;
  people: readonly string[];
  width: number;
  note?: string;
}) {
  if (width < ONE_LINE_PX)
    return (
      <span
        className={`block text-12 leading-tight font-semibold ${width < UPRIGHT_PX ? '[writing-mode:vertical-rl]' : 'break-words'}`}
      >
        {name}
      </span>
    );
  return (
    <>
      <span className="flex items-center gap-1 truncate text-13 font-semibold">
        {name}
        {note && <span className="text-12 font-normal">{note}</span>}
      </span>
      <span className="block truncate text-12 text-muted">
        {people.length > 0 ? people.join(', ') : 'no technician'}
      </span>
    </>
  );
}

/** The days of a week, above its lanes. */
export function WeekHead({ grid, dayPx }: { grid: WeekGrid; dayPx: number }) {
  return (
    <div className="flex border-b border-rule bg-side" style={{ paddingLeft: NAME_PX }} aria-hidden>
      {grid.days.map((day) => (
        <div key={day} className="border-l border-rule px-2 py-1.5" style={{ width: dayPx }}>
          <span className="block text-13 font-semibold">
            {new Date(`${day}T00:00:00Z`).toLocaleDateString('en-GB', { weekday: 'short', timeZone: 'UTC' })}{' '}
            {formatDate(day).replace(/ \d{4}$/, '')}
          </span>
          <span className="figure flex justify-between text-12 text-muted">
            <span>{clockOf(grid.open)}</span>
            <span>{clockOf(grid.close)}</span>
          </span>
        </div>
      ))}
    </div>
  );
}

/** A bay over a week: its name, the days, now, when it is closed, and what stands on it. */
export function Lane({
  bay,
  grid,
  dayPx,
  now,
  away,
  laneRef,
  isOver = false,
  children,
}: {
  bay: Bay;
  grid: WeekGrid;
  /** Width of a day, pixels. */
  dayPx: number;
  now: string;
  away: readonly ToldAbsence[];
  laneRef?: Ref<HTMLDivElement>;
  /** Whether something is dragged over it. */
  isOver?: boolean;
  children: ReactNode;
}) {
  const at = (iso: string) => placeOf(grid, iso) * dayPx;
  const nowAt = placeOf(grid, now);
  return (
    <li className="flex border-b border-rule" style={{ height: LANE_PX }} aria-label={bay.name}>
      <span
        className="sticky left-0 z-5 flex shrink-0 items-center border-r border-rule bg-paper pr-2 text-14 font-semibold"
        style={{ width: NAME_PX }}
      >
        {bay.name}
      </span>
      <div
        ref={laneRef}
        className={`relative ${isOver ? 'bg-lamp/40' : ''}`}
        style={{ width: grid.days.length * dayPx }}
      >
        {grid.days.slice(1).map((day, i) => (
          <span
            key={day}
            aria-hidden
            className="absolute inset-y-0 border-l border-rule"
            style={{ left: (i + 1) * dayPx }}
          />
        ))}
        {nowAt > 0 && nowAt < grid.days.length && (
          <span aria-hidden className="absolute inset-y-0 w-0.5 bg-rust" style={{ left: nowAt * dayPx }} />
        )}
        {away
          .filter((a) => a.what === 'bay' && a.of === bay.id)
          .map((a) => (
            <span
              key={a.id}
              className="absolute inset-y-0 flex items-center overflow-hidden bg-rule/60 px-2 text-12 text-muted"
              style={{ left: at(a.from), width: at(a.until) - at(a.from) }}
            >
              {a.why}
            </span>
          ))}
        {children}
      </div>
    </li>
  );
}
