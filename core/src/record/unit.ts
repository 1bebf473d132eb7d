import { z } from 'zod';
import { placedAxlesSchema, unitKindSchema, type PlacedAxle } from '../axle-plan/index.ts';
import { torqueFigureSchema, torqueKeys } from '../procedure/index.ts';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

/** A unit as it was added, as a file brought it in, or as it stood when its record began. */
export const unitFactsSchema = z.object({
  owner: z.object({ id: z.uuid(), name: z.string() }),
  name: z.string(),
  unitKind: unitKindSchema,
  plate: z.string(),
  axles: placedAxlesSchema,
});
export type UnitFacts = z.output<typeof unitFactsSchema>;

const figures = z.partialRecord(z.enum(torqueKeys), torqueFigureSchema);

const unitBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('unit-added'), unit: unitFactsSchema }),
  /** It was there before units had a record. */
  z.object({ kind: z.literal('unit-taken-over'), unit: unitFactsSchema }),
  z.object({ kind: z.literal('axles-changed'), axles: placedAxlesSchema }),
  /** Figures a release brought from the maker’s sheet. */
  z.object({ kind: z.literal('figures-filled'), axleId: z.uuid(), figures }),
]);
export type UnitBody = z.output<typeof unitBodySchema>;

export interface Unit extends UnitFacts {
  version: number;
  /** Axles that are not under the unit any more. */
  takenOut: { axle: PlacedAxle; at: string }[];
}

export type UnitCommand =
  | { kind: 'add'; unit: UnitFacts }
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
  { unit: Omit<Unit, 'axles' | 'takenOut'>; axles: (PlacedAxle & { takenOutAt: string | null })[] }
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
      return { ...body.unit, version, takenOut: [] };
    }
    const unit = { ...begun(state, 'unit'), version };
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

  project: ({ axles, takenOut, ...unit }) => ({
    unit,
    axles: [
      ...axles.map((axle) => ({ ...axle, takenOutAt: null })),
      ...takenOut.map(({ axle, at }) => ({ ...axle, takenOutAt: at })),
    ],
  }),
};
