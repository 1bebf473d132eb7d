import { useState } from 'react';
import type { Proposed } from '@lanternwright/contract/plan';
import { mondayOf } from '@lanternwright/core/work-plan';
import { useShop } from '../people/people-api.ts';
import { dayAndTime, formatDate, formatRange } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { useAbsencesQuery, useBookingsQuery } from './plan-api.ts';
import { placeOf, weekGrid, weekSpan, type WeekGrid } from './week-grid.ts';
import { blockPadding, blockStyle, BlockText, Lane, NAME_PX, useDayWidth, WeekHead } from './week-frame.tsx';

interface Props {
  rows: readonly Proposed[];
  keyOf: (row: Proposed) => string;
  /** What is chosen to be accepted; null where nobody may choose. */
  chosen: ReadonlySet<string> | null;
  toggle: (key: string) => void;
}

type Placed = Proposed['to'];
const weekOf = ({ from }: Placed) => mondayOf(dayAndTime(from).day);
const isIn = (monday: string, stand: Placed) =>
  weekOf(stand) <= monday && monday <= mondayOf(dayAndTime(stand.until).day);

interface Drawn {
  grid: WeekGrid;
  dayPx: number;
}

const looks = {
  before: 'border-dashed text-muted line-through',
  booked: 'bg-side',
};

/** What is not to be chosen: a booking that stays, or where one stood before it is moved. */
function Standing({
  name,
  stand,
  as,
  grid,
  dayPx,
}: Drawn & { name: string; stand: Pick<Placed, 'from' | 'until' | 'names'>; as: keyof typeof looks }) {
  const style = blockStyle(grid, dayPx, stand);
  return (
    <div
      style={style}
      title={`${name}, ${as}: ${formatRange(stand.from, stand.until)}`}
      className={`absolute top-1.5 flex flex-col justify-center overflow-hidden rounded-md border border-edge ${blockPadding(style)} ${looks[as]}`}
    >
      <BlockText {...{ name, width: style.width }} people={stand.names} />
    </div>
  );
}

/** Where a visit is proposed: pressed, it is among what is accepted. */
function After({
  row,
  isChosen,
  onToggle,
  grid,
  dayPx,
}: Drawn & { row: Proposed; isChosen: boolean | null; onToggle: () => void }) {
  const style = blockStyle(grid, dayPx, row.to);
  const text = `${row.unit.name}, ${formatRange(row.to.from, row.to.until)}`;
  return (
    <button
      type="button"
      style={style}
      title={text}
      aria-label={text}
      disabled={isChosen === null}
      {...(isChosen === null ? {} : { 'aria-pressed': isChosen })}
      onClick={onToggle}
      className={`absolute top-1.5 overflow-hidden rounded-md border-2 border-lamp-edge text-left ${blockPadding(style)} ${isChosen === false ? 'bg-paper' : 'bg-lamp'}`}
    >
      <BlockText name={row.unit.name} people={row.to.names} width={style.width} />
    </button>
  );
}

/** A proposal in the bays, a week at a time: what stays, where something stood, and where it is proposed. */
export function ProposalBays({ rows, keyOf, chosen, toggle }: Props) {
  const shop = useShop();
  const weeks = [...new Set(rows.flatMap((r) => [weekOf(r.to), ...(r.was ? [weekOf(r.was)] : [])]))].sort();
  const [monday, setMonday] = useState(weeks[0]!);
  const span = weekSpan(monday);
  const { data: bookings = [] } = useBookingsQuery(span);
  const { data: away = [] } = useAbsencesQuery(span);
  const grid = weekGrid(monday, shop ?? { week: [] });
  const here = rows.filter((r) => isIn(monday, r.to));
  const first = Math.min(...here.map((r) => Math.floor(placeOf(grid, r.to.from))));
  const { box, dayPx } = useDayWidth(grid.days.length, Number.isFinite(first) ? first : 0);
  if (!shop || shop.bays.length === 0) return null;
  const now = new Date().toISOString();
  const moves = new Set(rows.flatMap((r) => r.bookingId ?? []));
  const stays = bookings.filter((b) => !moves.has(b.id));
  const before = rows.flatMap((r) => (r.was && isIn(monday, r.was) ? [{ row: r, was: r.was }] : []));
  const nth = weeks.indexOf(monday);
  return (
    <section aria-label="In the bays" className="border-b border-rule px-5 py-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-2">
        <h2 className="text-18">Week of {formatDate(monday)}</h2>
        <p className="text-13 text-muted">
          {here.length} of {rows.length} {rows.length === 1 ? 'visit' : 'visits'} in this week
        </p>
        <div className="ml-auto flex gap-2">
          <Button disabled={nth <= 0} onClick={() => setMonday(weeks[nth - 1]!)}>
            Previous week
          </Button>
          <Button disabled={nth >= weeks.length - 1} onClick={() => setMonday(weeks[nth + 1]!)}>
            Next week
          </Button>
        </div>
      </div>
      <div ref={box} className="overflow-x-auto" tabIndex={chosen ? undefined : 0}>
        <div style={{ width: NAME_PX + grid.days.length * dayPx }}>
          <WeekHead {...{ grid, dayPx }} />
          <ul>
            {shop.bays.map((bay) => (
              <Lane key={bay.id} {...{ bay, grid, dayPx, away, now }}>
                {before
                  .filter(({ was }) => was.bayId === bay.id)
                  .map(({ row, was }) => (
                    <Standing
                      key={keyOf(row)}
                      {...{ grid, dayPx }}
                      name={row.unit.name}
                      stand={was}
                      as="before"
                    />
                  ))}
                {stays
                  .filter((b) => b.bayId === bay.id)
                  .map((b) => (
                    <Standing key={b.id} {...{ grid, dayPx }} name={b.unit.name} stand={b} as="booked" />
                  ))}
                {here
                  .filter((r) => r.to.bayId === bay.id)
                  .map((row) => (
                    <After
                      key={keyOf(row)}
                      {...{ row, grid, dayPx }}
                      isChosen={chosen && chosen.has(keyOf(row))}
                      onToggle={() => toggle(keyOf(row))}
                    />
                  ))}
              </Lane>
            ))}
          </ul>
        </div>
      </div>
      <p className="pt-2 text-12 text-muted">
        Framed: proposed.{chosen && ' Press one to accept it.'} Grey: booked, stays. Dashed: where a booking
        was before.
      </p>
    </section>
  );
}
