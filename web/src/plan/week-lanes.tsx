import {
  DndContext,
  KeyboardCode,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { useEffect, useRef, useState } from 'react';
import type { Booked, ToldAbsence } from '@lanternwright/contract/plan';
import { formatDate, formatRange } from '../shell/words.ts';
import { clockOf, momentAt, placeOf, slotWidth, type WeekGrid } from './week-grid.ts';

const LANE_PX = 76;
const LEAST_DAY_PX = 210;
const NAME_PX = 108;

interface Bay {
  id: string;
  name: string;
}

interface Props {
  grid: WeekGrid;
  bays: readonly Bay[];
  bookings: readonly Booked[];
  away: readonly ToldAbsence[];
  now: string;
  /** Whether this person plans. */
  able: boolean;
  onMove: (booked: Booked, to: { bayId: string; from: string }) => void;
  onOpen: (booked: Booked) => void;
}

const say = (b: Booked) => `${b.unit.name}, ${formatRange(b.from, b.until)}`;

/** A booking on its lane: dragged by hand, or with the space bar and the arrows. */
function Block({
  booked,
  left,
  width,
  movable,
  here,
  onOpen,
}: {
  booked: Booked;
  left: number;
  width: number;
  movable: boolean;
  here: boolean;
  onOpen: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: booked.id,
    disabled: !movable,
  });
  const tone = here ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel';
  return (
    <div
      ref={setNodeRef}
      style={{
        ...{ left, width: Math.max(44, width), height: LANE_PX - 12 },
        ...(transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : {}),
      }}
      className={`absolute top-1.5 flex overflow-hidden rounded-md border ${tone} ${isDragging ? 'z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        className={`min-w-0 grow px-1.5 text-left ${movable ? 'cursor-grab touch-none' : ''}`}
        title={say(booked)}
        {...attributes}
        {...listeners}
        aria-label={say(booked)}
        onClick={onOpen}
      >
        <span className="flex items-center gap-1 truncate text-13 font-semibold">
          {booked.unit.name}
          {booked.locked && <span className="text-12 font-normal">stays</span>}
        </span>
        <span className="block truncate text-12 text-muted">
          {booked.names.length > 0 ? booked.names.join(', ') : 'no technician'}
        </span>
      </button>
    </div>
  );
}

interface LaneProps extends Omit<Props, 'bays' | 'onMove'> {
  bay: Bay;
  /** Width of a day, pixels. */
  dayPx: number;
}

function Lane({ bay, dayPx, grid, ...rest }: LaneProps) {
  const { setNodeRef, isOver } = useDroppable({ id: `lane ${bay.id}` });
  const { bookings, away, now, able, onOpen } = rest;
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
        ref={setNodeRef}
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
        {bookings
          .filter((b) => b.bayId === bay.id)
          .map((b) => (
            <Block
              key={b.id}
              booked={b}
              left={at(b.from)}
              width={at(b.until) - at(b.from) - 2}
              movable={able && !b.locked && b.from > now}
              here={b.from <= now && b.until > now}
              onOpen={() => onOpen(b)}
            />
          ))}
      </div>
    </li>
  );
}

/** A week fills the page where it can; a day is never too narrow to be read. */
function useDayWidth(days: number) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const measure = () => setWidth(box.current?.clientWidth ?? 0);
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);
  return { box, dayPx: Math.max(LEAST_DAY_PX, Math.floor((width - NAME_PX) / days)) };
}

/** The bays of a week by the hour, with what is booked on them. */
export function WeekLanes({ grid, bays, onMove, ...rest }: Props) {
  const { box, dayPx } = useDayWidth(grid.days.length);
  const slot = slotWidth(grid) * dayPx;
  const byArrow: KeyboardCoordinateGetter = (event, { currentCoordinates: { x, y } }) => {
    switch (event.code) {
      case KeyboardCode.Right:
        return { x: x + slot, y };
      case KeyboardCode.Left:
        return { x: x - slot, y };
      case KeyboardCode.Down:
        return { x, y: y + LANE_PX };
      case KeyboardCode.Up:
        return { x, y: y - LANE_PX };
      default:
        return undefined;
    }
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byArrow,
      // Enter opens a booking; the space bar picks it up.
      keyboardCodes: {
        start: [KeyboardCode.Space],
        cancel: [KeyboardCode.Esc],
        end: [KeyboardCode.Space, KeyboardCode.Enter],
      },
    }),
  );
  const target = (id: string, dx: number, dy: number) => {
    const booked = rest.bookings.find((b) => b.id === id)!;
    const lane = bays.findIndex((b) => b.id === booked.bayId) + Math.round(dy / LANE_PX);
    const bay = bays[Math.min(bays.length - 1, Math.max(0, lane))]!;
    return { booked, bay, from: momentAt(grid, placeOf(grid, booked.from) + dx / dayPx) };
  };
  const end = ({ active, delta }: DragEndEvent) => {
    const { booked, bay, from } = target(String(active.id), delta.x, delta.y);
    if (bay.id !== booked.bayId || from !== booked.from) onMove(booked, { bayId: bay.id, from });
  };
  const nameOf = (id: string | number) => rest.bookings.find((b) => b.id === id)?.unit.name ?? '';
  return (
    <div ref={box} className="overflow-x-auto">
      <DndContext
        sensors={sensors}
        onDragEnd={end}
        autoScroll={false}
        accessibility={{
          screenReaderInstructions: {
            draggable:
              'Press the space bar to pick it up, the arrows to move it by half an hour or a bay, the space bar to put it down, Escape to leave it where it was.',
          },
          announcements: {
            onDragStart: ({ active }) => `${nameOf(active.id)} is picked up`,
            onDragMove: () => undefined,
            onDragOver: () => undefined,
            onDragEnd: ({ active }) => `${nameOf(active.id)} is put down`,
            onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was`,
          },
        }}
      >
        <div style={{ width: NAME_PX + grid.days.length * dayPx }}>
          <div className="flex border-b border-rule bg-side" style={{ paddingLeft: NAME_PX }} aria-hidden>
            {grid.days.map((day) => (
              <div key={day} className="border-l border-rule px-2 py-1.5" style={{ width: dayPx }}>
                <span className="block text-13 font-semibold">
                  {new Date(`${day}T00:00:00Z`).toLocaleDateString('en-GB', {
                    weekday: 'short',
                    timeZone: 'UTC',
                  })}{' '}
                  {formatDate(day).replace(/ \d{4}$/, '')}
                </span>
                <span className="figure flex justify-between text-12 text-muted">
                  <span>{clockOf(grid.open)}</span>
                  <span>{clockOf(grid.close)}</span>
                </span>
              </div>
            ))}
          </div>
          <ul>
            {bays.map((bay) => (
              <Lane key={bay.id} {...{ bay, dayPx, grid }} {...rest} />
            ))}
          </ul>
        </div>
      </DndContext>
    </div>
  );
}
