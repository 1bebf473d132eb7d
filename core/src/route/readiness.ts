import { formatHubFill, formatTorque, torques, type Dimension, type ReadyLine } from '../procedure/index.ts';
import { layerOf, type LayerId } from '../stack/index.ts';
import type { Act } from './act.ts';
import { nutProcedure } from './nut-acts.ts';
import { partTitle, plannedParts, singleUseOf, withoutCage } from './parts.ts';
import { verifyBy } from './verify-by.ts';
import type { RouteState } from './state.ts';

/** Hand tools of each layer, with points and sizes where the trade has usual ones; id, words, size. */
const ofLayers: Partial<Record<LayerId, readonly [string, string, string?][]>> = {
  wheel: [['wheel-socket', 'Wheel-nut socket', 'six point, the size of these nuts']],
  cap: [['cap-tools', 'Cap or flange tools', 'soft hammer, sockets of its bolts']],
  'brake-outer': [
    ['caliper-hook', 'Hook or wire for the caliper'],
    ['adjuster-spoon', 'Brake adjuster spoon'],
  ],
  'brake-inner': [['adjuster-spoon', 'Brake adjuster spoon']],
  hub: [
    ['seal-driver', 'Seal driver or flat block'],
    ['cup-drivers', 'Cup driver discs'],
    ['feeler', 'Feeler', '0.005 in (0.13 mm)'],
  ],
  'unit-hub': [
    ['axle-socket', 'Axle nut socket', 'six point'],
    ['hub-puller', 'Hub puller'],
  ],
  'seal-hub': [
    ['hex-keys', 'Hex keys of the grub screws'],
    ['ring-pliers', 'Snap-ring pliers'],
    ['seal-pick', 'Seal pick'],
    ['mounting-sleeve', 'Mounting sleeve'],
  ],
  shaft: [['slide-hammer', 'Slide hammer with bearing puller']],
  axle: [['drain-pan', 'Drain pan']],
  spindle: [
    ['soft-drift', 'Soft drift'],
    ['depth-gauge', 'Depth gauge'],
  ],
  knuckle: [
    ['joint-splitter', 'Joint splitter'],
    ['cup-drivers', 'Cup driver discs'],
  ],
};

/** Tools that stand on the list by what they must be able to do. */
const byNeed = /^(torque wrench|dial indicator|pull scale|socket)/i;

function handTools(state: RouteState): ReadyLine[] {
  const lines = new Map<string, ReadyLine>();
  const add = (what: string, title: string, detail?: string, points: readonly number[] = [6]) =>
    lines.set(what, {
      ...{ group: 'tool', what, title, ...(detail ? { detail } : {}) },
      ...(what.endsWith('-socket') ? { need: { kind: 'socket', points } } : {}),
    });
  for (const id of state.reach.layers.keys()) {
    for (const [what, title, detail] of ofLayers[id] ?? []) add(what, title, detail);
  }
  if (state.reach.off.includes('hub') && layerOf(state.stack, 'hub')?.seal === 'face')
    add('face-seal-tool', 'Face-seal mounting tool');
  if (state.reach.off.includes('cap') && layerOf(state.stack, 'cap')?.kind === 'carrier') {
    add('drain-pan', 'Drain pan');
    add('carrier-eye', 'Lifting eye and hoist', 'rated for the carrier');
  }
  const nut = layerOf(state.stack, 'nut');
  if (nut && state.reach.layers.has('nut')) {
    const points =
      nut.kind === 'A' || nut.kind === 'B' || nut.kind === 'C' ? 'six or eight point' : 'six point';
    if (nut.kind === 'H' || nut.kind === 'N') add('pin-tool', 'Pin tool of the nuts');
    else add('nut-socket', 'Socket of the bearing nut', points, points === 'six point' ? [6] : [6, 8]);
    for (const tool of nutProcedure(nut, state.sheet.procedureId).tools)
      if (!byNeed.test(tool) && !/socket|pin tool/i.test(tool)) add(`nut:${tool}`, tool);
  }
  return [...lines.values()];
}

/** Sizes that are read with a dial; the others are with a gauge, a rule or a straight edge. */
const byDial: ReadonlySet<Dimension> = new Set(['shaft-movement', 'kingpin-vertical']);

function calibrated(state: RouteState, acts: readonly Act[]): ReadyLine[] {
  const keys = new Set(acts.flatMap((a) => (a.kind === 'torque' ? [a.figure] : [])));
  const wrenches = torques.flatMap(([key, label]): ReadyLine[] => {
    if (!keys.has(key)) return [];
    const figure = state.sheet[key];
    return [
      {
        group: 'tool',
        what: `wrench:${key}`,
        title: `Torque wrench: ${label.toLowerCase()}`,
        detail: figure ? formatTorque(figure, null) : 'as the maker’s sheet asks',
        need: { kind: 'torque-wrench', ...(figure ? { settingNm: figure.max.si } : {}) },
      },
    ];
  });
  const measures = acts.some((a) => a.kind === 'measure' && a.stage === 'verify');
  const by = verifyBy(state.stack, state.sheet);
  const dial =
    (measures && by !== 'drag' && by !== 'none') ||
    acts.some((a) => a.kind === 'dimension' && byDial.has(a.what));
  const pull = acts.some((a) => a.id === 'drag' || a.id === 'swivel-preload' || a.kind === 'rolling');
  return [
    ...wrenches,
    ...(dial
      ? [
          {
            group: 'tool' as const,
            what: 'dial',
            title: 'Dial indicator, magnetic base',
            detail: '0.001 in or finer',
            need: { kind: 'dial-indicator' as const },
          },
        ]
      : []),
    ...(pull
      ? [
          {
            group: 'tool' as const,
            what: 'pull-scale',
            title: 'Pull scale',
            need: { kind: 'pull-scale' as const },
          },
        ]
      : []),
  ];
}

/**
 * What this route needs, line by line, each by an id: tools with sizes and points, calibrated tools by what they must
 * do, parts the work renews and parts not used twice, lubricant, lifting gear.
 * @param acts of the route
 * @source common practice, no single source
 */
export function routeReadiness(state: RouteState, acts: readonly Act[]): ReadyLine[] {
  const { sheet, reach } = state;
  const needed = [...new Set([...plannedParts(state), ...state.renewed, ...singleUseOf(state)])];
  const parts = withoutCage(needed).filter((id) => id !== 'lubricant');
  const amount = formatHubFill(sheet, null);
  const filled = acts.some((a) => a.kind === 'fill' || a.kind === 'pack' || a.id === 'pack-seal');
  return [
    ...handTools(state),
    ...calibrated(state, acts),
    ...parts.map((id) => ({ group: 'part' as const, what: `part:${id}`, title: partTitle(id) })),
    ...(filled
      ? [
          {
            group: 'lubricant' as const,
            what: 'lubricant',
            title: sheet.lubricant.name,
            ...(amount && reach.off.includes('hub') ? { detail: amount } : {}),
          },
        ]
      : []),
    { group: 'lifting', what: 'stands', title: 'Stands rated for the axle' },
    ...(reach.off.some((id) => id === 'wheel' || id === 'hub')
      ? [{ group: 'lifting' as const, what: 'dolly', title: 'Wheel and hub dolly' }]
      : []),
  ];
}
