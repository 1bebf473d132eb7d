import { z } from 'zod';
import {
  axleAt,
  placedAxlesSchema,
  positionSchema,
  positionsOf,
  unitKindSchema,
  type PlacedAxle,
} from '../axle-plan/index.ts';
import { saidDutiesSchema, type SaidDuty } from '../due/index.ts';
import { stackOfSheet, torqueFigureSchema, torqueKeys } from '../procedure/index.ts';
import { worksOf, workSchema, type Work } from '../stack/index.ts';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

/** Longest that the office may write of a unit, characters. */
export const LONGEST_REMARKS = 500;

/** A unit as it was added, as a file brought it in, or as it stood when its record began. */
export const unitFactsSchema = z.object({
  owner: z.object({ id: z.uuid(), name: z.string() }),
  name: z.string(),
  unitKind: unitKindSchema,
  plate: z.string(),
  axles: placedAxlesSchema,
  /** What the office knows of it, in its own words. */
  remarks: z.string().max(LONGEST_REMARKS).default(''),
});
export type UnitFacts = z.output<typeof unitFactsSchema>;

const figures = z.partialRecord(z.enum(torqueKeys), torqueFigureSchema);

const toldFields = {
  axleId: z.uuid(),
  position: positionSchema,
  date: z.iso.date(),
  works: z.array(workSchema).min(1),
};
/** What was done on wheel ends outside the jobs here. */
export const toldSchema = z.array(z.object(toldFields));

const unitBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('unit-added'), unit: unitFactsSchema }),
  /** It was there before units had a record. */
  z.object({ kind: z.literal('unit-taken-over'), unit: unitFactsSchema }),
  z.object({ kind: z.literal('axles-changed'), axles: placedAxlesSchema }),
  /** Somebody knows when works were done on a wheel end; no job here tells of it. */
  z.object({ kind: z.literal('service-told'), ...toldFields }),
  /** What makes its work come sooner: all of it, in the place of what was said before. */
  z.object({ kind: z.literal('duty-said'), duty: saidDutiesSchema }),
  z.object({ kind: z.literal('remarks-said'), remarks: z.string().max(LONGEST_REMARKS) }),
  /** Figures a release brought from the maker’s sheet. */
  z.object({ kind: z.literal('figures-filled'), axleId: z.uuid(), figures }),
]);
export type UnitBody = z.output<typeof unitBodySchema>;

export interface Unit extends UnitFacts {
  version: number;
  /** Axles that are not under the unit any more. */
  takenOut: { axle: PlacedAxle; at: string }[];
  /** What was done on wheel ends outside the jobs here. */
  told: z.output<typeof toldSchema>;
  /** What makes its work come sooner. */
  duty: SaidDuty[];
}

export type UnitCommand =
  | { kind: 'add'; unit: UnitFacts }
  | { kind: 'tell-service'; position: string; date: string; works: readonly Work[] }
  | { kind: 'say-duty'; duty: readonly SaidDuty[] }
  | { kind: 'say-remarks'; remarks: string }
  | { kind: 'change-axles'; axles: readonly PlacedAxle[] }
  | { kind: 'fill-figures'; axleId: string; figures: z.output<typeof figures> };

function whyNotAxles({ axles, takenOut }: Unit, wanted: readonly PlacedAxle[]): string | null {
  const known = [...axles, ...takenOut.map((t) => t.axle)];
  const moved = wanted.find((w) => known.some((a) => a.id === w.id && a.number !== w.number));
  if (moved) return 'An axle keeps its number: what was measured there was measured on it';
  const numbers = wanted.map((a) => a.number);
  const twice = numbers.find((n, i) => numbers.indexOf(n) !== i);
  return twice === undefined ? null : `Two axles are number ${twice}`;
}

/** Works that the wheel ends of an axle have parts for. */
const worksAt = (axle: Pick<PlacedAxle, 'sheet' | 'wheels' | 'brake' | 'role'>): readonly Work[] =>
  worksOf(stackOfSheet(axle.sheet, axle) ?? []);

/** Works that no wheel end of these axles has parts for. */
export const worksOfNone = (
  axles: readonly Parameters<typeof worksAt>[0][],
  works: readonly Work[],
): Work[] => works.filter((work) => !axles.some((axle) => worksAt(axle).includes(work)));

/** What was done on all wheel ends of a unit that have parts for it, as told of each. */
export const toldOfAll = (
  axles: readonly PlacedAxle[],
  services: readonly { date: string; works: readonly Work[] }[],
): Unit['told'] =>
  axles.flatMap((axle) =>
    services.flatMap(({ date, works }) => {
      const done = works.filter((work) => worksAt(axle).includes(work));
      if (done.length === 0) return [];
      return positionsOf([axle]).map((position) => ({ axleId: axle.id, position, date, works: done }));
    }),
  );

const byNumber = (axles: readonly PlacedAxle[]) => [...axles].sort((a, b) => a.number - b.number);

/** Fills what is missing; a figure that is there stays. */
function filled(axle: PlacedAxle, wanted: z.output<typeof figures>): PlacedAxle {
  const missing = Object.entries(wanted).filter(([key]) => !axle.sheet[key as (typeof torqueKeys)[number]]);
  return { ...axle, sheet: { ...axle.sheet, ...Object.fromEntries(missing) } };
}

/** A unit: its owner, name and axles. Axles have ids of their own; one that is taken out takes its history along. */
export const unitAggregate: Aggregate<
  Unit,
  UnitCommand,
  UnitBody,
  {
    unit: Omit<Unit, 'axles' | 'takenOut' | 'told'>;
    told: Unit['told'];
    axles: (PlacedAxle & { takenOutAt: string | null })[];
  }
> = {
  stream: 'unit',
  upcast: (body) => unitBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'add')
      return state
        ? refuse('This unit is there already')
        : { ok: true, bodies: [{ kind: 'unit-added', unit: command.unit }] };
    const unit = begun(state, 'unit');
    if (command.kind === 'change-axles') {
      const why = whyNotAxles(unit, command.axles);
      if (why) return refuse(why, 'axles');
      const axles = byNumber(command.axles);
      return { ok: true, bodies: sameJson(axles, unit.axles) ? [] : [{ kind: 'axles-changed', axles }] };
    }
    if (command.kind === 'say-duty') {
      const duty = [...command.duty].sort((a, b) => (a.of < b.of ? -1 : 1));
      return { ok: true, bodies: sameJson(duty, unit.duty) ? [] : [{ kind: 'duty-said', duty }] };
    }
    if (command.kind === 'say-remarks') {
      const { remarks } = command;
      return { ok: true, bodies: remarks === unit.remarks ? [] : [{ kind: 'remarks-said', remarks }] };
    }
    if (command.kind === 'tell-service') {
      const { position, date, works } = command;
      const on = axleAt(unit.axles, position);
      if (!on) return refuse(`The unit has no wheel end ${position}`, 'position');
      const can = worksAt(on);
      const odd = works.find((w) => !can.includes(w));
      if (odd) return refuse(`${position} has no part for that work`, 'works');
      return {
        ok: true,
        bodies: [{ kind: 'service-told', axleId: on.id, position, date, works: [...works] }],
      };
    }
    const axle = unit.axles.find((a) => a.id === command.axleId);
    const { axleId, figures } = command;
    return {
      ok: true,
      bodies:
        axle && !sameJson(axle, filled(axle, figures)) ? [{ kind: 'figures-filled', axleId, figures }] : [],
    };
  },

  fold(state, { version, at, body }) {
    if (body.kind === 'unit-added' || body.kind === 'unit-taken-over') {
      if (state) throw new StreamError('A unit is added once');
      return { ...body.unit, version, takenOut: [], told: [], duty: [] };
    }
    const unit = { ...begun(state, 'unit'), version };
    if (body.kind === 'service-told') {
      const { axleId, position, date, works } = body;
      return { ...unit, told: [...unit.told, { axleId, position, date, works }] };
    }
    if (body.kind === 'remarks-said') return { ...unit, remarks: body.remarks };
    if (body.kind === 'duty-said') return { ...unit, duty: body.duty };
    if (body.kind === 'figures-filled')
      return { ...unit, axles: unit.axles.map((a) => (a.id === body.axleId ? filled(a, body.figures) : a)) };
    const stays = new Set(body.axles.map((a) => a.id));
    return {
      ...unit,
      axles: body.axles,
      takenOut: [
        ...unit.takenOut.filter((t) => !stays.has(t.axle.id)),
        ...unit.axles.filter((a) => !stays.has(a.id)).map((axle) => ({ axle, at })),
      ],
    };
  },

  project: ({ axles, takenOut, told, ...unit }) => ({
    unit,
    told,
    axles: [
      ...axles.map((axle) => ({ ...axle, takenOutAt: null })),
      ...takenOut.map(({ axle, at }) => ({ ...axle, takenOutAt: at })),
    ],
  }),
};
