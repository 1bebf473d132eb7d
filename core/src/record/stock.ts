import { z } from 'zod';
import { partSchema, placeNameSchema, plainNumber, priceSchema, type Part } from '../part/index.ts';
import { positionSchema } from '../axle-plan/index.ts';
import { begun, refuse, StreamError, type Aggregate, type Decided } from './aggregate.ts';
import { sameJson } from './canonical.ts';

/** What can happen to parts that lie in the store. */
export const stockMoves = {
  received: 'Received',
  used: 'Used on a job',
  returned: 'Returned from a job',
  counted: 'Counted',
  scrapped: 'Scrapped',
  moved: 'Moved',
  lent: 'Lent',
  'lent-back': 'Came back',
  'core-returned': 'Core returned',
  'core-credited': 'Core credited',
} as const;
export type StockMove = keyof typeof stockMoves;

const words = z.string().trim().min(1).max(200);

/** One movement. Of a count, `quantity` is what lay there; of every other, how many moved. */
export const movementSchema = z.object({
  what: z.enum(Object.keys(stockMoves) as [StockMove, ...StockMove[]]),
  quantity: z.int().min(0).max(10_000),
  place: placeNameSchema,
  /** Where it was moved to. */
  to: placeNameSchema.optional(),
  /** To whom it is lent. */
  who: z.string().trim().min(1).max(80).optional(),
  /** The job it was used on, with the wheel end and the line of its readiness list. */
  jobId: z.uuid().optional(),
  position: positionSchema.optional(),
  line: z.string().min(1).max(80).optional(),
  reason: words.optional(),
  /** The order it came with. */
  orderId: z.uuid().optional(),
  /** Of one piece: as it was paid, as it is billed, or as it is credited. */
  price: priceSchema.optional(),
  /** It goes to the supplier's own service, which answers it. */
  online: z.boolean().optional(),
  /** Of a credit: the version of the part's record in which the core went back, and the supplier's number for it. */
  returnOf: z.int().min(1).optional(),
  reference: z.string().trim().min(1).max(80).optional(),
  /** What the maker printed on what came, by which a bad filling can be called back. */
  batch: z.string().trim().min(1).max(40).optional(),
});
export type Movement = z.output<typeof movementSchema>;

/** Parts that are kept for a job. */
export const reservationSchema = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  position: positionSchema,
  line: z.string().min(1).max(80),
  quantity: z.int().min(1).max(1000),
  /** The program keeps it, since the job is booked or went deeper, and no longer than it needs it. */
  planned: z.literal(true).optional(),
});
export type Reservation = z.output<typeof reservationSchema>;

const stockBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('part-listed'), part: partSchema }),
  z.object({ kind: z.literal('stock-moved'), movement: movementSchema }),
  z.object({ kind: z.literal('part-reserved'), reservation: reservationSchema }),
  z.object({ kind: z.literal('reservation-ended'), id: z.uuid() }),
]);
export type StockBody = z.output<typeof stockBodySchema>;

export interface StockMovement extends Movement {
  version: number;
  at: string;
  byName: string;
  /** By how much the shelf has more or fewer after it. */
  change: number;
}

export interface StockState {
  part: Part;
  version: number;
  changedAt: string;
  changedBy: string;
  /** What lies at each place; a place without any is left out. */
  places: Readonly<Record<string, number>>;
  lent: Readonly<Record<string, number>>;
  /** Used on each job and not returned. */
  onJobs: Readonly<Record<string, number>>;
  /** Old ones that the supplier takes back. */
  cores: number;
  reservations: readonly Reservation[];
  movements: readonly StockMovement[];
}

export type StockCommand =
  | { kind: 'list'; part: Part }
  | { kind: 'move'; movement: Movement }
  | { kind: 'reserve'; reservation: Reservation }
  | { kind: 'end-reservation'; id: string };

const sum = (counts: Readonly<Record<string, number>>) => Object.values(counts).reduce((a, b) => a + b, 0);

/** How many lie in the store, wherever. */
export const onHand = ({ places }: Pick<StockState, 'places'>): number => sum(places);

/** How many of them are kept for jobs, but for one. */
const keptForOthers = ({ reservations }: StockState, jobId?: string) =>
  reservations.reduce((n, r) => n + (r.jobId === jobId ? 0 : r.quantity), 0);

/** How many anybody may take. Negative where more are kept for jobs than there are. */
export const freeOf = (state: StockState): number => onHand(state) - keptForOthers(state);

/** A record of counts with one changed; what comes to nothing is left out. */
function changed(counts: Readonly<Record<string, number>>, of: string, by: number) {
  const { [of]: before = 0, ...rest } = counts;
  return before + by === 0 ? rest : { ...rest, [of]: before + by };
}

const many = (n: number) => (n === 0 ? 'None lies' : n === 1 ? 'Only 1 lies' : `Only ${n} lie`);

function whyNot(state: StockState, m: Movement): [reason: string, field: string] | null {
  const here = state.places[m.place] ?? 0;
  const takes = ['used', 'scrapped', 'moved', 'lent'].includes(m.what);
  if (m.what !== 'counted' && m.quantity === 0) return ['Enter the quantity', 'quantity'];
  if (takes && m.quantity > here) return [`${many(here)} at ${m.place}`, 'quantity'];
  switch (m.what) {
    case 'used': {
      if (!m.jobId) return ['Choose the job', 'jobId'];
      const kept = keptForOthers(state, m.jobId);
      return onHand(state) - kept < m.quantity
        ? [
            `${kept} of them ${kept === 1 ? 'is' : 'are'} kept for other jobs: end one of those reservations first`,
            'quantity',
          ]
        : null;
    }
    case 'returned': {
      const used = (m.jobId && state.onJobs[m.jobId]) || 0;
      return used < m.quantity ? [`This job has used ${used || 'none'} of them`, 'quantity'] : null;
    }
    case 'counted':
      return m.quantity !== here && !m.reason
        ? [`The record shows ${here} at ${m.place}. Enter a reason for the difference`, 'reason']
        : null;
    case 'scrapped':
      return m.reason ? null : ['Enter a reason', 'reason'];
    case 'moved':
      return !m.to || m.to === m.place ? ['Enter where it goes', 'to'] : null;
    case 'lent':
      return m.who ? null : ['Enter who takes it', 'who'];
    case 'lent-back': {
      const lent = (m.who && state.lent[m.who]) || 0;
      return lent < m.quantity ? [`${m.who ?? 'Nobody'} has ${lent || 'none'} of them`, 'quantity'] : null;
    }
    case 'core-returned':
      return state.cores < m.quantity
        ? [
            `${state.cores || 'No'} old ${state.cores === 1 ? 'one waits' : 'ones wait'} to go back`,
            'quantity',
          ]
        : null;
    case 'core-credited':
      return m.returnOf && m.reference
        ? null
        : ['Choose the return, and enter the supplier’s number for it', 'returnOf'];
    case 'received':
      return null;
  }
}

/** What is billed of a part used is its price on that day; what a browser says of it counts for nothing. */
function priced({ part }: StockState, movement: Movement): Movement {
  if (movement.what !== 'used' && movement.what !== 'returned') return movement;
  return { ...movement, price: part.price ?? undefined };
}

function decideMove(state: StockState, movement: Movement): Decided<StockBody> {
  const why = whyNot(state, movement);
  return why
    ? refuse(...why)
    : { ok: true, bodies: [{ kind: 'stock-moved', movement: priced(state, movement) }] };
}

/** What is used on a job is taken from what was kept for it: of the same line first. */
function withoutUsed(reservations: readonly Reservation[], m: Movement): Reservation[] {
  let left = m.quantity;
  const own = reservations
    .filter((r) => r.jobId === m.jobId)
    .sort((a, b) => Number(isFor(b, m)) - Number(isFor(a, m)));
  const rest = new Map<string, number>();
  for (const r of own) {
    const taken = Math.min(left, r.quantity);
    left -= taken;
    rest.set(r.id, r.quantity - taken);
  }
  return reservations
    .map((r) => ({ ...r, quantity: rest.get(r.id) ?? r.quantity }))
    .filter((r) => r.quantity > 0);
}
const isFor = (r: Reservation, m: Movement) => r.line === m.line && r.position === m.position;

function afterMove(state: StockState, m: Movement): StockState {
  const { places, lent, onJobs, cores, reservations } = state;
  switch (m.what) {
    case 'received':
      return { ...state, places: changed(places, m.place, m.quantity) };
    case 'used':
      return {
        ...state,
        places: changed(places, m.place, -m.quantity),
        onJobs: changed(onJobs, m.jobId!, m.quantity),
        cores: state.part.core ? cores + m.quantity : cores,
        reservations: withoutUsed(reservations, m),
      };
    case 'returned':
      return {
        ...state,
        places: changed(places, m.place, m.quantity),
        onJobs: changed(onJobs, m.jobId!, -m.quantity),
        cores: Math.max(0, state.part.core ? cores - m.quantity : cores),
      };
    case 'counted':
      return { ...state, places: changed(places, m.place, m.quantity - (places[m.place] ?? 0)) };
    case 'scrapped':
      return { ...state, places: changed(places, m.place, -m.quantity) };
    case 'moved':
      return { ...state, places: changed(changed(places, m.place, -m.quantity), m.to!, m.quantity) };
    case 'lent':
      return {
        ...state,
        places: changed(places, m.place, -m.quantity),
        lent: changed(lent, m.who!, m.quantity),
      };
    case 'lent-back':
      return {
        ...state,
        places: changed(places, m.place, m.quantity),
        lent: changed(lent, m.who!, -m.quantity),
      };
    case 'core-returned':
      return { ...state, cores: cores - m.quantity };
    case 'core-credited':
      return state;
  }
}

/** Rows that lists are made of. */
export interface StockRows {
  part: object;
  numbers: { number: string; plain: string; own: boolean }[];
  counts: { what: 'place' | 'lent' | 'job'; of: string; quantity: number }[];
  reservations: readonly Reservation[];
  movements: readonly StockMovement[];
}

const countsOf = (what: StockRows['counts'][number]['what'], counts: Readonly<Record<string, number>>) =>
  Object.entries(counts).map(([of, quantity]) => ({ what, of, quantity }));

const mm = (of: { si: number } | undefined) => (of ? of.si * 1000 : null);

/** A part of the store: what it is, where how many lie, what is kept for whom. Movements are never changed. */
export const stockAggregate: Aggregate<StockState, StockCommand, StockBody, StockRows> = {
  stream: 'stock',
  upcast: (body) => stockBodySchema.parse(body),

  decide(state, command) {
    switch (command.kind) {
      case 'list':
        return {
          ok: true,
          bodies:
            state && sameJson(state.part, command.part) ? [] : [{ kind: 'part-listed', part: command.part }],
        };
      case 'move':
        return decideMove(begun(state, 'part'), command.movement);
      case 'reserve': {
        const { reservation } = command;
        const known = begun(state, 'part').reservations.some((r) => r.id === reservation.id);
        return { ok: true, bodies: known ? [] : [{ kind: 'part-reserved', reservation }] };
      }
      case 'end-reservation':
        return begun(state, 'part').reservations.some((r) => r.id === command.id)
          ? { ok: true, bodies: [{ kind: 'reservation-ended', id: command.id }] }
          : refuse('No longer reserved');
    }
  },

  fold(state, { version, at, by, body }) {
    if (body.kind === 'part-listed') {
      const empty = { places: {}, lent: {}, onJobs: {}, cores: 0, reservations: [], movements: [] };
      return { ...empty, ...state, part: body.part, version, changedAt: at, changedBy: by.name };
    }
    const before = { ...begun(state, 'part'), version };
    if (body.kind === 'part-reserved')
      return { ...before, reservations: [...before.reservations, body.reservation] };
    if (body.kind === 'reservation-ended')
      return { ...before, reservations: before.reservations.filter((r) => r.id !== body.id) };
    const after = afterMove(before, body.movement);
    if (Object.values({ ...after.places, ...after.lent, ...after.onJobs }).some((n) => n < 0))
      throw new StreamError('More was taken than there was');
    const change = onHand(after) - onHand(before);
    const movement = { ...body.movement, version, at, byName: by.name, change };
    return { ...after, movements: [...after.movements, movement] };
  },

  project(state) {
    const { part, version, changedAt, changedBy, cores, places, lent, onJobs, reservations, movements } =
      state;
    return {
      part: {
        ...{ id: part.id, part, version, changedAt, changedBy, cores, kind: part.kind, title: part.title },
        ...{ boreMm: mm(part.dims.bore), outsideMm: mm(part.dims.outside), widthMm: mm(part.dims.width) },
        ...{ onHand: onHand(state), reserved: keptForOthers(state) },
      },
      numbers: [part.number, ...part.crossings]
        .map((number, i) => ({ number, plain: plainNumber(number), own: i === 0 }))
        .filter((n, i, all) => all.findIndex((m) => m.plain === n.plain) === i),
      counts: [...countsOf('place', places), ...countsOf('lent', lent), ...countsOf('job', onJobs)],
      reservations,
      movements,
    };
  },
};
