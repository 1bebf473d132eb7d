import type { Content } from 'pdfmake/interfaces.js';
import type { EndPlayResult } from '@lanternwright/core/end-play';
import { convert } from '@lanternwright/core/quantity';
import { INK, MUTED, RULE, WASH } from './paper.ts';

interface PlanAxle {
  number: number;
  role: string;
  wheels: 'single' | 'dual';
}

const PLAN = { pitch: 30, track: 26, wheel: 15, thick: 6, margin: 16 };

/** A unit from above, front to the left; the wheel ends of a paper are filled and named. */
export function axlePlan(axles: readonly PlanAxle[], positions: readonly string[]): Content {
  let along = PLAN.margin;
  const places = axles.map((axle, i) => {
    const before = axles[i - 1];
    if (before) along += before.role === axle.role ? PLAN.pitch : PLAN.pitch * 1.5;
    return along;
  });
  const width = along + PLAN.margin;
  const middle = 36;
  const wheels = axles.flatMap((axle, i) =>
    (['R', 'L'] as const).map((side) => {
      const position = `${axle.number}${side}`;
      const here = positions.includes(position);
      const x = places[i]!;
      const out = side === 'R' ? -1 : 1;
      const rows = axle.wheels === 'dual' ? [0, PLAN.thick + 1] : [0];
      const tyre = rows.map((row) => {
        const y = middle + out * (PLAN.track / 2 + row) - (out < 0 ? PLAN.thick : 0);
        return `<rect x="${x - PLAN.wheel / 2}" y="${y}" width="${PLAN.wheel}" height="${PLAN.thick}" rx="1.5" fill="${here ? INK : '#FFFFFF'}" stroke="${here ? INK : MUTED}" stroke-width=".8"/>`;
      });
      const y = middle + out * (PLAN.track / 2 + rows.length * (PLAN.thick + 1)) + (out < 0 ? -1.5 : 6.5);
      const name = `<text x="${x}" y="${y}" text-anchor="middle" font-size="6.5" font-family="Helvetica-Bold" fill="${INK}">${position}</text>`;
      return tyre.join('') + (here ? name : '');
    }),
  );
  const beams = places.map(
    (x) =>
      `<rect x="${x - 1}" y="${middle - PLAN.track / 2}" width="2" height="${PLAN.track}" fill="${RULE}"/>`,
  );
  return {
    svg: `<svg viewBox="0 0 ${width} 72"><rect x="4" y="${middle - 1.5}" width="${width - 6}" height="3" fill="${RULE}"/><path d="M5 ${middle - 4}l-4 4l4 4z" fill="${RULE}"/>${beams.join('')}${wheels.join('')}</svg>`,
    width: Math.min(width * 1.05, 170),
  };
}

interface Rule {
  bandMm: { minMm: number; maxMm: number };
  found: EndPlayResult | null;
  left: EndPlayResult | null;
  unit: 'in' | 'mm';
}

const RULER = { width: 150, side: 6, top: 13, height: 9 };

/**
 * The thousandths rule: the band, a ring where end play was found, a disc where it was left, a hairline for each cycle
 * that it was left by. Whole thousandths of an inch, or hundredths of a millimetre.
 */
export function thouRule({ bandMm, found, left, unit }: Rule): Content {
  const step = unit === 'in' ? convert(1, 'thou', 'mm') : 0.02;
  const furthest = Math.max(bandMm.maxMm * 1.3, found?.endPlayMm ?? 0, left?.endPlayMm ?? 0);
  const count = Math.max(unit === 'in' ? 8 : 10, Math.ceil(furthest / step + 0.5));
  const every = Math.ceil(count / 8);
  const { width, side, top, height } = RULER;
  const bottom = top + height;
  const x = (mm: number) =>
    side + (Math.min(Math.max(mm, 0), count * step) / (count * step)) * (width - 2 * side);
  const ticks = Array.from({ length: count + 1 }, (_, i) => {
    const named = i % every === 0;
    const label = unit === 'in' ? String(i) : (i * step).toFixed(2);
    const name = `<text x="${x(i * step)}" y="${bottom + 9}" text-anchor="middle" font-size="5" font-family="Helvetica" fill="${MUTED}">${label}</text>`;
    return `<path d="M${x(i * step)} ${bottom}v${named ? 3.4 : 2}" stroke="${MUTED}" stroke-width=".5"/>${named ? name : ''}`;
  });
  const hairs = (left?.cyclesMm ?? []).map(
    (mm) => `<path d="M${x(mm)} ${top + 1}v${height - 2}" stroke="${INK}" stroke-width=".4"/>`,
  );
  const at = (mm: number, fill: string) =>
    `<circle cx="${x(mm)}" cy="${top - 5}" r="2.4" fill="${fill}" stroke="${INK}" stroke-width=".9"/><path d="M${x(mm)} ${top - 2.6}v${height + 2.6}" stroke="${INK}" stroke-width=".9"/>`;
  return {
    svg: `<svg viewBox="0 0 ${width} ${bottom + 11}"><rect x="${side}" y="${top}" width="${width - 2 * side}" height="${height}" fill="${WASH}" stroke="${RULE}" stroke-width=".5"/><rect x="${x(bandMm.minMm)}" y="${top}" width="${Math.max(0.8, x(bandMm.maxMm) - x(bandMm.minMm))}" height="${height}" fill="#CFE0D3"/>${ticks.join('')}${hairs.join('')}${found ? at(found.endPlayMm, '#FFFFFF') : ''}${left ? at(left.endPlayMm, INK) : ''}</svg>`,
    width: width,
  };
}
