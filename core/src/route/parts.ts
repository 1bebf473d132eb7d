import { componentOf, components } from '../inspection/index.ts';
import type { Compared } from '../procedure/index.ts';
import { layerOf, type LayerId, type LayerOf, type Work } from '../stack/index.ts';
import { wants, type RouteState } from './state.ts';

/**
 * Parts that are not used twice, and what of each can be held against the old one. `closes` names the closures that a
 * used one can be put into for a while: they hold nothing until a new one is in. A washer that was not bent is used
 * again; what is filled in or wetted is never used twice at all.
 * @source common practice, no source
 */
const singleUse = {
  'hub-seal': { title: 'Hub seal', like: ['bore', 'outside', 'width', 'number'], closes: ['seal'] },
  'flange-nut': { title: 'Axle nut, used once', like: ['width', 'number'], closes: ['axle-nut'] },
  'wear-sleeve': {
    ...{ title: 'Wear sleeve', like: ['bore', 'outside', 'width'], closes: ['wear-sleeve'] },
  },
  'face-seal': { title: 'Face seal, both halves', like: ['outside', 'number'], closes: ['seal'] },
  'cover-ring': { title: 'Cover gasket or O-ring', like: ['outside'], closes: ['fill'] },
  'lock-washer': {
    ...{ title: 'Locking washer, where it was bent', like: ['bore', 'outside', 'number'], closes: [] },
  },
  cotter: { title: 'Cotter', like: ['outside', 'number'], closes: ['lock'] },
  'staked-nut': { title: 'Staked nut', like: ['width', 'number'], closes: ['lock'] },
  'cap-gasket': { title: 'Hub cap gasket', like: ['outside', 'studs'], closes: ['fill'] },
  'flange-gasket': { title: 'Flange gasket', like: ['outside', 'studs'], closes: ['fill'] },
  'shaft-seal': {
    ...{ title: 'Shaft seal', like: ['bore', 'outside', 'width', 'number'] },
    closes: ['shaft-seal-in', 'seal-home'],
  },
  'cover-joint': { title: 'Cover gasket or sealant', like: [], closes: ['axle-cover-joint'] },
  threadlocker: { title: 'Medium threadlocker', like: [], closes: null },
  'axle-oil': { title: 'Axle oil', like: [], closes: null },
  'spindle-seal': {
    ...{ title: 'Spindle seal', like: ['bore', 'outside', 'width'], closes: ['spindle-seal'] },
  },
  'v-seal': { title: 'V-seal', like: ['bore', 'width'], closes: ['shaft-order'] },
  'axle-seal': {
    ...{ title: 'Inner axle seal', like: ['bore', 'outside', 'width', 'number'], closes: ['axle-seal'] },
  },
  'knuckle-seal': {
    ...{ title: 'Knuckle seal', like: ['bore', 'outside', 'width', 'number'] },
    closes: ['split-seal-in', 'seal-ring'],
  },
  'knuckle-gaskets': { title: 'Knuckle gaskets', like: ['studs'], closes: ['cap-bolts'] },
  'joint-pins': {
    ...{ title: 'Pins of the steering joints', like: ['outside'], closes: ['joint-pins', 'stub-pins'] },
  },
} as const satisfies Record<
  string,
  { title: string; like: readonly Compared[]; closes: readonly string[] | null }
>;
export type SingleUse = keyof typeof singleUse;

const onceOnly: Readonly<Record<string, { closes: readonly string[] | null }>> = singleUse;

/** The part that is not used twice and that some closure is made with, of those that are said to go in again. Ids. */
export const oldPartIn = (closure: string, again: readonly string[]): string | undefined =>
  again.find((id) => onceOnly[id]?.closes?.includes(closure));

/** Closures that a part not used twice goes into; none where it is not one, or where nothing tells that it was new. */
export const closedWith = (id: string): readonly string[] => onceOnly[id]?.closes ?? [];

const fitted: Readonly<Record<string, readonly string[]>> = {
  'cups-and-rollers': ['cup-home'],
  cage: ['cup-home'],
  studs: ['studs-home'],
  'needle-bearing': ['needle-depth'],
  'shaft-bearing': ['bearing-home'],
  'shaft-journal': ['shaft-in'],
  'axle-joint': ['shaft-order'],
  'thrust-washer': ['shaft-order'],
  'cone-and-journal': ['spindle-nuts', 'stub-on'],
  'seal-hub': ['grub-screws'],
  'ring-and-shim': ['seal-home'],
  'swivel-bearings': ['races-dry'],
  'kingpin-and-bushes': ['bushes'],
  'unit-hub-bearing': ['unit-hub-on'],
  lubricant: ['pack', 'fill', 'axle-oil'],
  'axle-oil': ['axle-oil'],
};

/** Closures that are made only with a part that was judged in new; none where no single one tells. */
export const fittedBy = (id: string): readonly string[] => fitted[id] ?? [];

/** Whether a part is one that is filled in or wetted: there is no old one that could go in again. */
export const isUsedUp = (id: string): boolean => onceOnly[id]?.closes === null;

/** What goes in new where a part is not renewed by itself but with what it belongs to. */
const newPart: Readonly<Record<string, string>> = {
  'cups-and-rollers': 'Bearings, cone and cup',
  'hub-bore': 'Hub',
  'cone-and-journal': 'Spindle',
  'spindle-shoulder': 'Spindle',
  'spindle-bore': 'Spindle',
  'shaft-journal': 'Axle shaft',
  'axle-joint': 'Axle shaft',
  'shaft-seat': 'Shaft',
  'seal-hub': 'Hub',
};

/** A part that goes in new, in words, whatever list it stands on. */
export function partTitle(id: string): string {
  const once = (singleUse as Record<string, { title: string }>)[id];
  return once?.title ?? newPart[id] ?? componentOf(id)?.title ?? id;
}

/** The part that a line of a readiness list is about; null for a tool, a lubricant or lifting gear. */
export const partOfLine = (what: string): string | null =>
  what.startsWith('part:') ? what.slice('part:'.length) : null;

/** Lines of readiness lists that a part of the store can answer, by what they are recorded by, in words. */
export const partLines: Readonly<Record<string, string>> = Object.fromEntries(
  [...Object.keys(singleUse), ...components.map((c) => c.id)]
    .filter((id) => id !== 'lubricant')
    .map((id) => [`part:${id}`, partTitle(id)])
    .concat([['lubricant', 'Lubricant']]),
);

const likeBearing: readonly Compared[] = ['bore', 'outside', 'width', 'number'];
const ofComponents: Record<string, readonly Compared[]> = {
  'cups-and-rollers': likeBearing,
  cage: likeBearing,
  'cone-and-journal': likeBearing,
  'needle-bearing': likeBearing,
  'swivel-bearings': likeBearing,
  'unit-hub-bearing': ['bore', 'studs', 'sensor', 'number'],
  'hub-bore': ['bore', 'studs', 'number'],
  studs: ['studs', 'number'],
  'tone-ring': ['bore', 'sensor', 'number'],
};

/** What of a part can be held against its old one. */
export function comparableOf(id: string): readonly Compared[] {
  return (
    (singleUse as Record<string, { like: readonly Compared[] }>)[id]?.like ?? ofComponents[id] ?? ['number']
  );
}

/** What of the joint in a knuckle is in sight: a constant-velocity joint runs in a boot. */
const jointOf = ({ joint }: LayerOf<'knuckle'>): string[] =>
  joint === 'none' ? [] : joint === 'universal' ? ['axle-joint'] : ['axle-joint', 'joint-boot'];

/** Parts that only later rules ask to judge, by the number of the rules that did first. */
export const judgedSince: Readonly<Record<string, number>> = { 'joint-boot': 5, 'thrust-washer': 5 };

/** The parts that each layer bares when it is off. */
function baredBy(id: LayerId, state: RouteState): string[] {
  const { stack } = state;
  switch (id) {
    case 'wheel':
      return layerOf(stack, 'seal-hub') ? [] : ['studs'];
    case 'cap':
      switch (layerOf(stack, 'cap')!.kind) {
        case 'oil-cap':
        case 'grease-cap':
          return ['cap'];
        case 'carrier':
          return ['planet-carrier'];
        default:
          return [];
      }
    case 'brake-outer':
      return layerOf(stack, 'brake-outer')!.kind === 'disc'
        ? ['lining', 'slides', 'drum-or-rotor']
        : ['lining', 'drum-or-rotor'];
    case 'brake-inner':
      return layerOf(stack, 'brake-inner')!.kind === 'electric'
        ? ['lining', 'magnet', 'drum-or-rotor']
        : ['lining', 'drum-or-rotor'];
    case 'nut':
      return ['nut-and-washer'];
    case 'hub':
      return [
        'cups-and-rollers',
        'cage',
        'cone-and-journal',
        'spindle-shoulder',
        ...(layerOf(stack, 'hub')!.seal === 'face' ? [] : ['seal-seat']),
        'hub-bore',
        ...(layerOf(stack, 'hub')!.toneRing ? ['tone-ring'] : []),
        'lubricant',
        // Behind a drum on the hub the linings are in sight, though the shoes stay on.
        ...(layerOf(stack, 'brake-inner') ? ['lining'] : []),
      ];
    case 'unit-hub':
      return layerOf(stack, 'unit-hub')!.kind === 'bolted'
        ? ['unit-hub-bearing', 'axle-joint', 'joint-boot']
        : ['unit-hub-bearing', 'cone-and-journal'];
    case 'seal-hub':
      return ['shaft-seat', 'ring-and-shim', 'seal-hub'];
    case 'shaft':
      return layerOf(stack, 'shaft')!.kind === 'c-clip'
        ? ['shaft-bearing', 'shaft-journal', 'clip-and-pin']
        : ['axle-joint', 'thrust-washer'];
    case 'axle':
      return ['lubricant'];
    case 'spindle':
      return layerOf(stack, 'spindle')!.kind === 'stub'
        ? ['kingpin-and-bushes']
        : ['needle-bearing', 'spindle-bore'];
    case 'knuckle':
      return state.reach.layers.get('knuckle') === 'open'
        ? ['knuckle-ball']
        : [...jointOf(layerOf(stack, 'knuckle')!), ...['swivel-bearings', 'knuckle-ball']];
  }
}

/** Parts of a spindle that a new one brings with it. */
const withSpindle: ReadonlySet<string> = new Set(['spindle-shoulder', 'seal-seat', 'spindle-bore']);

/** Ids of the parts to judge on this wheel end: what its layers bare, each once, outside in. */
export function partsToJudgeOf(state: RouteState): string[] {
  const { stack, reach, works } = state;
  const bare = stack.map((l) => l.layer).filter((id) => reach.layers.has(id));
  const parts = [...new Set(bare.flatMap((id) => baredBy(id, state)))];
  return works.includes('spindle') ? parts.filter((id) => !withSpindle.has(id)) : parts;
}

/** What each work renews, as the parts that are judged; of a wheel end those that it has. */
const renewedBy: Partial<Record<Work, string[]>> = {
  seal: ['unit-hub-bearing'],
  bearings: ['cups-and-rollers', 'cage', 'shaft-bearing', 'unit-hub-bearing'],
  linings: ['lining'],
  studs: ['studs'],
  hub: ['hub-bore', 'seal-hub'],
  'unit-hub': ['unit-hub-bearing'],
  shaft: ['shaft-journal', 'axle-joint'],
  'spindle-bearing': ['needle-bearing'],
  spindle: ['cone-and-journal'],
  swivels: ['swivel-bearings'],
  kingpin: ['kingpin-and-bushes'],
};

/** Parts that the work is there to renew, of those this wheel end has. */
export function plannedParts(state: RouteState): string[] {
  const planned = new Set(state.works.flatMap((work) => renewedBy[work] ?? []));
  return partsToJudgeOf(state).filter((id) => planned.has(id));
}

/** Whether a sleeve goes on the journal of the seal: by the work, or as was decided of a groove. */
export const isSleeved = (state: RouteState): boolean =>
  wants(state, 'sleeve') || state.renewed.has('wear-sleeve');

/** Parts not used twice on this route. */
export function singleUseOf(state: RouteState): SingleUse[] {
  const { stack, reach } = state;
  const off = (id: LayerId) => reach.layers.get(id) === 'off';
  const nut = layerOf(stack, 'nut');
  const cap = layerOf(stack, 'cap');
  const unitHub = layerOf(stack, 'unit-hub');
  const parts: (SingleUse | false)[] = [
    off('hub') && (layerOf(stack, 'hub')!.seal === 'face' ? 'face-seal' : 'hub-seal'),
    off('hub') && isSleeved(state) && 'wear-sleeve',
    off('cap') && cap?.kind === 'carrier' && 'cover-ring',
    reach.layers.has('nut') && nut?.kind === 'A' && 'lock-washer',
    reach.layers.has('nut') && nut?.kind === 'D' && 'cotter',
    reach.layers.has('nut') && nut?.kind === 'E' && 'staked-nut',
    off('cap') && cap?.kind === 'flange' && 'flange-gasket',
    off('cap') && (cap?.kind === 'oil-cap' || cap?.kind === 'hub-lock') && 'cap-gasket',
    off('unit-hub') && (unitHub?.kind === 'bolted' ? 'cotter' : 'flange-nut'),
    ((off('unit-hub') && unitHub?.kind === 'bolted') ||
      off('seal-hub') ||
      (off('shaft') && layerOf(stack, 'shaft')?.kind === 'c-clip')) &&
      'threadlocker',
    (off('seal-hub') || (off('shaft') && layerOf(stack, 'shaft')?.kind === 'c-clip')) && 'shaft-seal',
    off('axle') && 'cover-joint',
    off('axle') && 'axle-oil',
    off('spindle') && layerOf(stack, 'spindle')?.kind === 'bolted' && 'spindle-seal',
    off('shaft') && layerOf(stack, 'shaft')?.kind === 'driven' && 'v-seal',
    off('knuckle') && 'axle-seal',
    reach.layers.has('knuckle') && 'knuckle-seal',
    off('knuckle') && 'knuckle-gaskets',
    off('knuckle') && 'joint-pins',
  ];
  return [...new Set(parts.filter((p) => p !== false))];
}

/** Parts that are got and go in: a cage comes with its bearing. */
export const withoutCage = (ids: readonly string[]): string[] =>
  ids.includes('cups-and-rollers') ? ids.filter((id) => id !== 'cage') : [...ids];

/** The new parts held against their old ones: what is renewed, then what is not used twice and can be compared. */
export function partsToCompareOf(state: RouteState): string[] {
  const renewed = withoutCage([...state.renewed]).filter((id) => componentOf(id) && id !== 'lubricant');
  const once = singleUseOf(state).filter((id) => comparableOf(id).length > 0);
  return [...new Set([...renewed, ...once])];
}
