import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

/**
 * Stiffness of one roller from its effective length, N/mm^(10/9): Palmgren's line contact,
 * δ = 3.84·10⁻⁵·Q^0.9/l^0.8 (mm, N), turned round.
 */
const stiffnessOf = (lengthMm: number) => (lengthMm ** 0.8 / 3.84e-5) ** EXPONENT;
/** Load-deflection exponent of a line contact, and the Weibull exponents of the roller-load method. */
const EXPONENT = 10 / 9;

const rowSchema = z.object({
  rollers: z.int().min(5).max(100),
  contactAngleDeg: z.number().min(3).max(45),
  pitchRadiusMm: z.number().min(5).max(1000),
  /** Effective length of a roller; gives the stiffness where none is named. */
  rollerLengthMm: z.number().min(1).max(300).default(25),
  /** Load in N that presses one roller in by 1 mm, with the exponent 10/9. */
  stiffness: z.number().min(1e3).max(1e8).optional(),
  radialN: z.number().min(1).max(1e7),
});

const inputSchema = z.object({
  a: rowSchema,
  b: rowSchema,
  /** External axial load; positive loads a. */
  axialN: z.number().min(-1e7).max(1e7).default(0),
  /** End play in mm; negative is preload. */
  settingsMm: z.array(z.number().min(-0.25).max(0.25)).min(1).max(1000),
});

const rowResult = z.object({
  axialN: z.number(),
  /** Load-zone parameter: 0.5 loads half the race, 1 and over all of it, 0 nothing. */
  epsilon: z.number(),
  heaviestN: z.number(),
  rollersN: z.array(z.number()),
});
const outputSchema = z.object({
  settings: z.array(
    z.object({ settingMm: z.number(), a: rowResult, b: rowResult, relativeLife: z.number() }),
  ),
  /** Setting with the longest life among those asked for. */
  bestMm: z.number(),
});

type RowInput = z.output<typeof rowSchema>;
type RowResult = z.output<typeof rowResult>;

/** One row with everything that stays the same over the settings. */
interface Row {
  cos: Float64Array;
  cosAngle: number;
  sinAngle: number;
  stiffness: number;
  radialN: number;
}

/** Hub displacement: axial, and radial at each row, mm. */
type Place = [axial: number, radialA: number, radialB: number];

function rowOf(row: RowInput): Row {
  const angle = (row.contactAngleDeg * Math.PI) / 180;
  return {
    cos: Float64Array.from({ length: row.rollers }, (_, j) => Math.cos((2 * Math.PI * j) / row.rollers)),
    cosAngle: Math.cos(angle),
    sinAngle: Math.sin(angle),
    stiffness: row.stiffness ?? stiffnessOf(row.rollerLengthMm),
    radialN: row.radialN,
  };
}

/** Forces, stiffnesses and strain energy of a row pushed in by `axial` and `radial` mm. */
function strain(row: Row, axial: number, radial: number) {
  let energy = 0;
  let fa = 0;
  let fr = 0;
  let kaa = 0;
  let kar = 0;
  let krr = 0;
  for (const cos of row.cos) {
    const across = cos * row.cosAngle;
    const depth = radial * across + axial * row.sinAngle;
    if (depth <= 0) continue;
    const slope = row.stiffness * depth ** (EXPONENT - 1);
    const load = slope * depth;
    energy += (load * depth) / (EXPONENT + 1);
    fa += load * row.sinAngle;
    fr += load * across;
    kaa += EXPONENT * slope * row.sinAngle ** 2;
    kar += EXPONENT * slope * row.sinAngle * across;
    krr += EXPONENT * slope * across ** 2;
  }
  return { energy, fa, fr, kaa, kar, krr };
}

/** Potential energy of the hub, its slope and curvature. Convex: its least point is the balance. */
function potential(a: Row, b: Row, axialN: number, playMm: number, [z, ra, rb]: Place) {
  const sa = strain(a, z - playMm / 2, ra);
  const sb = strain(b, -z - playMm / 2, rb);
  return {
    energy: sa.energy + sb.energy - axialN * z - a.radialN * ra - b.radialN * rb,
    slope: [sa.fa - sb.fa - axialN, sa.fr - a.radialN, sb.fr - b.radialN] as Place,
    sa,
    sb,
  };
}

const MOST_STEPS = 200;

/** Newton's method on the potential, with the step halved until the energy falls. */
function balance(a: Row, b: Row, axialN: number, playMm: number, start: Place): Place {
  const force = a.radialN + b.radialN + Math.abs(axialN);
  let place = start;
  let now = potential(a, b, axialN, playMm, place);
  for (let i = 0; i < MOST_STEPS; i++) {
    const [ga, gra, grb] = now.slope;
    if (Math.abs(ga) + Math.abs(gra) + Math.abs(grb) < force * 1e-10) break;
    const ridge = 1e-6 * (a.stiffness + b.stiffness);
    const { sa, sb } = now;
    // The two radial unknowns meet only through the axial one: eliminate them.
    const ka = sa.krr + ridge;
    const kb = sb.krr + ridge;
    const kz = sa.kaa + sb.kaa + ridge - (sa.kar * sa.kar) / ka - (sb.kar * sb.kar) / kb;
    const dz = -(ga - (sa.kar * gra) / ka + (sb.kar * grb) / kb) / Math.max(kz, ridge * 1e-3);
    const step: Place = [dz, (-gra - sa.kar * dz) / ka, (-grb + sb.kar * dz) / kb];
    const descent = ga * step[0] + gra * step[1] + grb * step[2];
    let share = 1;
    for (let halvings = 0; halvings < 60; halvings++, share /= 2) {
      const tried: Place = [
        place[0] + share * step[0],
        place[1] + share * step[1],
        place[2] + share * step[2],
      ];
      const next = potential(a, b, axialN, playMm, tried);
      if (next.energy <= now.energy + 1e-4 * share * descent || share < 1e-15) {
        place = tried;
        now = next;
        break;
      }
    }
  }
  return place;
}

function rowAt(row: Row, axial: number, radial: number): RowResult {
  const rollersN = Array.from(row.cos, (cos) => {
    const depth = radial * cos * row.cosAngle + axial * row.sinAngle;
    return depth > 0 ? row.stiffness * depth ** EXPONENT : 0;
  });
  const heaviestN = Math.max(...rollersN);
  const across = radial * row.cosAngle;
  const epsilon = heaviestN === 0 || across <= 0 ? 0 : 0.5 * (1 + (axial * row.sinAngle) / across);
  return {
    axialN: rollersN.reduce((s, q) => s + q, 0) * row.sinAngle,
    epsilon: Math.max(0, Math.min(epsilon, 1e6)),
    heaviestN,
    rollersN,
  };
}

/** What a row gives to the failure sum: turning ring by mean of power 4, standing ring by 4.5, both to 4.5. */
function damage(rollersN: readonly number[]): number {
  const meanOf = (power: number) =>
    (rollersN.reduce((s, q) => s + q ** power, 0) / rollersN.length) ** (1 / power);
  return meanOf(4) ** 4.5 + meanOf(4.5) ** 4.5;
}

/**
 * Life of a hub's two opposed tapered rows against their setting, from preload to end play.
 *
 * For each setting the balance of the hub is solved: axial and radial displacement so that the rollers'
 * loads carry the radial load of each row and the external axial load. A roller takes
 * K·δ^(10/9), δ = δr·cos ψ·cos α + δa·sin α; end play e parts the rows by e along the axis. Life goes by
 * the roller loads, (turning ring power 4, standing ring 4.5, Weibull slope 9/8), relative to the life at
 * zero end play.
 *
 * A model for understanding, without heat, misalignment or bending: never a reason to change a band.
 * @returns loads in N, ε without unit, life relative to zero end play
 * @source Palmgren line contact; roller-load method after ISO/TS 16281
 */
export function settingLife(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const a = rowOf(input.a);
  const b = rowOf(input.b);
  let warm: Place = [0, 0.02, 0.02];
  const solve = (settingMm: number) => {
    const place = balance(a, b, input.axialN, settingMm, warm);
    warm = place;
    const [z, ra, rb] = place;
    const resultA = rowAt(a, z - settingMm / 2, ra);
    const resultB = rowAt(b, -z - settingMm / 2, rb);
    const life = (damage(resultA.rollersN) + damage(resultB.rollersN)) ** (-8 / 9);
    return { a: resultA, b: resultB, life };
  };
  const reference = solve(0).life;
  const order = input.settingsMm
    .map((settingMm, i) => ({ settingMm, i }))
    .sort((x, y) => x.settingMm - y.settingMm);
  const settings: z.output<typeof outputSchema>['settings'] = [];
  for (const { settingMm, i } of order) {
    const { life, ...rows } = solve(settingMm);
    settings[i] = { settingMm, ...rows, relativeLife: life / reference };
  }
  const best = settings.reduce((m, s) => (s.relativeLife > m.relativeLife ? s : m));
  return { settings, bestMm: best.settingMm };
}

/** `setting-life`: what end play or preload does to the life of the pair. */
export const settingLifeCalculation = defineCalculation({
  name: 'setting-life',
  title: 'Setting and life',
  summary:
    'Shows how end play and preload spread the load over the rollers and what that does to life: a model for understanding, never for changing a band.',
  inputSchema,
  outputSchema,
  sources: [
    {
      text: 'ISO/TS 16281, roller-load method, applied without lamina, heat or misalignment',
      mark: 'published',
    },
    { text: 'Palmgren, deflection of a line contact', mark: 'from-memory' },
  ],
  example: {
    a: { rollers: 19, contactAngleDeg: 15, pitchRadiusMm: 52, rollerLengthMm: 28, radialN: 28_000 },
    b: { rollers: 17, contactAngleDeg: 15, pitchRadiusMm: 42, rollerLengthMm: 24, radialN: 14_000 },
    axialN: 0,
    settingsMm: [-0.06, -0.04, -0.03, -0.02, -0.01, 0, 0.01, 0.025, 0.05, 0.08, 0.1, 0.127, 0.16, 0.2, 0.25],
  },
  compute: settingLife,
});
