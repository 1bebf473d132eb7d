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
import type { Booked, ToldAbsence } from '@lanternwright/contract/plan';
import { formatRange } from '../shell/words.ts';
import { momentAt, placeOf, slotWidth, type WeekGrid } from './week-grid.ts';
import {
  blockPadding,
  blockStyle,
  BlockText,
  Lane,
  LANE_PX,
  NAME_PX,
  useDayWidth,
  WeekHead,
  type Bay,
} from './week-frame.tsx';

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
  style,
  movable,
  here,
  onOpen,
}: {
  booked: Booked;
  style: ReturnType<typeof blockStyle>;
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
        ...style,
        ...(transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : {}),
      }}
      className={`absolute top-1.5 flex overflow-hidden rounded-md border ${tone} ${isDragging ? 'z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        className={`min-w-0 grow overflow-hidden text-left ${blockPadding(style)} ${movable ? 'cursor-grab touch-none' : ''}`}
        title={say(booked)}
        {...attributes}
        {...listeners}
        aria-label={say(booked)}
        onClick={onOpen}
      >
        <BlockText
          name={booked.unit.name}
          people={booked.names}
          width={style.width}
          {...(booked.locked ? { note: 'stays' } : {})}
        />
      </button>
    </div>
  );
}

interface LaneProps extends Omit<Props, 'bays' | 'onMove'> {
  bay: Bay;
  /** Width of a day, pixels. */
  dayPx: number;
}

function BookedLane({ bay, dayPx, grid, bookings, away, now, able, onOpen }: LaneProps) {
  const { setNodeRef, isOver } = useDroppable({ id: `lane ${bay.id}` });
  return (
    <Lane {...{ bay, dayPx, grid, now, away, isOver }} laneRef={setNodeRef}>
      {bookings
        .filter((b) => b.bayId === bay.id)
        .map((b) => (
          <Block
            key={b.id}
            booked={b}
            style={blockStyle(grid, dayPx, b)}
            movable={able && !b.locked && b.from > now}
            here={b.from <= now && b.until > now}
            onOpen={() => onOpen(b)}
          />
        ))}
    </Lane>
  );
}

/** The bays of a week by the hour, with what is booked on them. */
export function WeekLanes({ grid, bays, onMove, ...rest }: Props) {
  const { box, dayPx } = useDayWidth(
    grid.days.length,
    Math.floor(placeOf(grid, rest.now)) % grid.days.length,
  );
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
          <WeekHead {...{ grid, dayPx }} />
          <ul>
            {bays.map((bay) => (
              <BookedLane key={bay.id} {...{ bay, dayPx, grid }} {...rest} />
            ))}
          </ul>
        </div>
      </DndContext>
    </div>
  );
}
