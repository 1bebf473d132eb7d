import type { ReactNode } from 'react';

/** Lines of the sound part, and what is wrong with it on top. */
const line = { fill: 'none', className: 'stroke-ink', strokeWidth: 1.6 } as const;
const body = { className: 'fill-side stroke-ink', strokeWidth: 1.4 } as const;
const bad = { fill: 'none', className: 'stroke-rust', strokeWidth: 2 } as const;
const badFill = { className: 'fill-rust' } as const;

const dots = (places: readonly (readonly [number, number])[], r = 1.5) =>
  places.map(([x, y]) => <circle key={`${x}/${y}`} cx={x} cy={y} r={r} {...badFill} />);
const absent = <rect x={8} y={8} width={44} height={26} rx={6} {...line} strokeDasharray="3 4" />;
const turning = <path d="M18 8 a14 14 0 1 1 -6 20 m0 -6 v6 h6" {...bad} />;

const cup = (
  <>
    <path d="M4 6 h52 v9 h-52 z" {...body} />
    {[8, 18, 28, 38, 48].map((x) => (
      <rect key={x} x={x} y={17} width={7} height={16} rx={1.5} {...body} />
    ))}
  </>
);
const shaft = <path d="M4 14 h24 v-5 h28 v22 h-28 v-5 h-24 z" {...body} />;
const seat = (
  <>
    <rect x={4} y={16} width={52} height={16} {...body} />
    <path d="M30 4 v6 l-5 6" {...line} />
  </>
);
const ring = <circle cx={30} cy={20} r={14} {...body} />;
const studs = [14, 30, 46].map((x) => <path key={x} d={`M${x - 3} 34 v-26 h6 v26 z`} {...body} />);
const nut = (
  <>
    <path d="M16 20 l7 -12 h14 l7 12 l-7 12 h-14 z" {...body} />
    <circle cx={30} cy={20} r={6} {...line} />
  </>
);
const cap = <path d="M8 34 h44 c0 -18 -8 -26 -22 -26 s-22 8 -22 26 z" {...body} />;
const teeth = Array.from({ length: 12 }, (_, i) => {
  const a = (i * Math.PI) / 6;
  return [30 + 15 * Math.cos(a), 20 + 15 * Math.sin(a)] as const;
});
const toneRing = (gap: number) => (
  <>
    <circle cx={30} cy={20} r={11} {...body} />
    {teeth.slice(gap).map(([x, y]) => (
      <circle key={`${x}/${y}`} cx={x} cy={y} r={2} className="fill-ink" />
    ))}
  </>
);
const lining = (thick: number) => (
  <>
    <path d="M6 34 q24 -14 48 0" {...line} strokeWidth={3} />
    <path d={`M8 ${28 - thick} q22 -12 44 0 v${thick} q-22 -12 -44 0 z`} {...body} />
  </>
);
const slide = (
  <>
    <rect x={4} y={14} width={30} height={12} rx={2} {...body} />
    <rect x={22} y={17} width={34} height={6} rx={3} {...body} />
  </>
);
const drop = <path d="M30 5 c8 11 12 15 12 20 a12 12 0 0 1 -24 0 c0 -5 4 -9 12 -20 z" {...body} />;
const cross = <path d="M24 10 l12 20 m0 -20 l-12 20" {...bad} />;

const drawings: Partial<Record<string, ReactNode>> = {
  'cups-and-rollers/sound': cup,
  'cups-and-rollers/doubtful': (
    <>
      {cup}
      <path d="M10 10 h10 m8 2 h8 m6 -2 h10" {...line} strokeWidth={3} opacity={0.4} />
    </>
  ),
  'cups-and-rollers/pitting': (
    <>
      {cup}
      {dots([
        [12, 11],
        [16, 9],
        [27, 12],
        [31, 9],
        [42, 11],
        [45, 8],
        [21, 24],
        [41, 22],
      ])}
    </>
  ),
  'cups-and-rollers/dents': (
    <>
      {cup}
      <path d="M9 15 l3 -4 l3 4 m4 0 l3 -4 l3 4 m4 0 l3 -4 l3 4 m4 0 l3 -4 l3 4" {...bad} />
    </>
  ),
  'cups-and-rollers/rust': (
    <>
      {cup}
      <path d="M8 8 l8 6 m-4 -7 l7 6 m14 -4 l8 6 m-4 -7 l7 6" {...bad} />
    </>
  ),
  'cups-and-rollers/heat-tint': (
    <>
      {cup}
      <rect x={4} y={6} width={17} height={9} className="fill-lamp" />
      <rect x={21} y={6} width={17} height={9} className="fill-rust-wash" />
      <rect x={38} y={6} width={18} height={9} className="fill-blue" />
    </>
  ),
  'cage/sound': (
    <>
      <rect x={6} y={8} width={48} height={24} rx={3} {...body} />
      <path d="M16 12 v16 m9 -16 v16 m9 -16 v16 m9 -16 v16" {...line} strokeWidth={4} />
    </>
  ),
  'cage/damaged': (
    <>
      <rect x={6} y={8} width={48} height={24} rx={3} {...body} />
      <path d="M16 12 v16 m27 -16 v16" {...line} strokeWidth={4} />
      <path d="M30 6 l-4 9 l7 6 l-5 13" {...bad} />
    </>
  ),
  'cone-and-journal/sound': shaft,
  'cone-and-journal/burnished': (
    <>
      {shaft}
      <path d="M32 9 v22 m4 -22 v22 m4 -22 v22" {...bad} strokeWidth={1.2} />
    </>
  ),
  'cone-and-journal/worn-fit': (
    <>
      {shaft}
      <path d="M33 9 v3 h14 v-3 M33 31 v-3 h14 v3" {...bad} />
    </>
  ),
  'spindle-shoulder/sound': shaft,
  'spindle-shoulder/small-step': (
    <>
      {shaft}
      <path d="M28 9 v3 h-3 v16 h3 v3" {...bad} />
    </>
  ),
  'spindle-shoulder/deep-step': (
    <>
      {shaft}
      <path d="M28 9 v0 h-10 v22 h10 z" {...badFill} opacity={0.5} />
      <path d="M28 9 h-10 v22 h10" {...bad} />
    </>
  ),
  'seal-seat/sound': seat,
  'seal-seat/nick': (
    <>
      {seat}
      <path d="M40 16 l3 4 l3 -4" {...bad} />
    </>
  ),
  'seal-seat/groove': (
    <>
      {seat}
      <path d="M22 16 v16 m4 -16 v16" {...bad} />
    </>
  ),
  'hub-bore/sound': (
    <>
      {ring}
      <circle cx={30} cy={20} r={9} {...line} />
    </>
  ),
  'hub-bore/cup-turns': (
    <>
      {ring}
      <circle cx={30} cy={20} r={6} {...line} strokeDasharray="3 3" />
      {turning}
    </>
  ),
  'studs/sound': studs,
  'studs/one-damaged': (
    <>
      {studs.slice(0, 2)}
      <path d="M43 34 v-12 l5 -12 h6 l-5 13 v11 z" {...body} />
      <path d="M42 12 l10 8" {...bad} />
    </>
  ),
  'studs/several-damaged': (
    <>
      {studs}
      <path
        d="M9 10 l10 10 m0 -10 l-10 10 m22 -10 l10 10 m0 -10 l-10 10"
        {...bad}
        transform="translate(1 2)"
      />
    </>
  ),
  'nut-and-washer/sound': (
    <>
      {nut}
      <path d="M40 12 l5 -4" {...line} strokeWidth={3} />
    </>
  ),
  'nut-and-washer/no-stake': (
    <>
      {nut}
      <circle cx={44} cy={9} r={5} {...bad} strokeDasharray="2 3" />
    </>
  ),
  'nut-and-washer/thread': (
    <>
      {nut}
      <path d="M24 20 l2 -4 l2 4 l2 -4 l2 4 l2 -4 l2 4" {...bad} />
    </>
  ),
  'nut-and-washer/keyway-proud': (
    <>
      {ring}
      <path d="M26 8 v-5 h8 v5" {...bad} />
    </>
  ),
  'cap/sound': cap,
  'cap/dented': (
    <>
      <path d="M8 34 h44 c0 -18 -6 -24 -14 -24 q-8 16 -16 0 c-8 0 -14 6 -14 24 z" {...body} />
      <path d="M22 12 q8 16 16 0" {...bad} />
    </>
  ),
  'cap/missing': absent,
  'tone-ring/sound': toneRing(0),
  'tone-ring/bent': (
    <>
      {toneRing(3)}
      <path d="M42 24 q6 4 2 10" {...bad} />
    </>
  ),
  'tone-ring/none': absent,
  'lining/sound': lining(11),
  'lining/worn': (
    <>
      {lining(2)}
      <path d="M48 8 v12 m-3 -3 l3 3 l3 -3" {...bad} />
    </>
  ),
  'lining/oiled': (
    <>
      {lining(11)}
      <path d="M40 3 c3 5 5 6 5 9 a5 5 0 0 1 -10 0 c0 -3 2 -4 5 -9 z" {...badFill} />
    </>
  ),
  'lining/gaps': (
    <>
      {lining(9)}
      <path d="M6 14 q24 -18 48 0" {...bad} strokeDasharray="4 3" />
    </>
  ),
  'lining/none': absent,
  'slides/sound': slide,
  'slides/binding': (
    <>
      {slide}
      {cross}
    </>
  ),
  'slides/none': absent,
  'lubricant/sound': drop,
  'lubricant/caked': (
    <path d="M14 32 q-6 -10 4 -14 q0 -10 12 -8 q12 -4 14 8 q10 4 2 14 z" className="fill-ink" />
  ),
  'lubricant/water': (
    <>
      {drop}
      <path d="M20 22 q3 -3 5 0 t5 0 t5 0 t5 0 m-19 5 q3 -3 5 0 t5 0 t5 0" {...bad} strokeWidth={1.4} />
    </>
  ),
  'lubricant/metal': (
    <>
      {drop}
      {dots(
        [
          [26, 20],
          [33, 24],
          [28, 28],
          [35, 18],
        ],
        1.3,
      )}
    </>
  ),
  'lubricant/mixed': (
    <>
      {drop}
      <path d="M30 5 c8 11 12 15 12 20 a12 12 0 0 1 -12 12 z" {...badFill} opacity={0.6} />
    </>
  ),
};

/** What can be seen on a part, drawn small; its words stand beside it. */
export function ConditionDrawing({ component, condition }: { component: string; condition: string }) {
  return (
    <svg viewBox="0 0 60 40" width={54} height={36} className="shrink-0" aria-hidden>
      {drawings[`${component}/${condition}`]}
    </svg>
  );
}

/** Whether there is a drawing for a condition; the words alone would do, but each one is meant to have one. */
export const isDrawn = (component: string, condition: string): boolean =>
  drawings[`${component}/${condition}`] !== undefined;
