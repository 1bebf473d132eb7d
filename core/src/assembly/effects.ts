import type { Act } from '../route/index.ts';
import { layerOf, needsOffFor, type LayerId, type Stack } from '../stack/index.ts';
import type { LayerPlace } from './side.ts';

/** What an act does to the metal, beside what its words say. */
export interface Effect {
  /** Where its layer is afterwards. */
  moves?: LayerPlace;
  /** It closes its layer where that was only opened. */
  closes?: true;
  /** Closures of its layer that it breaks, besides those that a moved layer breaks by itself. */
  breaks?: readonly string[];
  /** Done again, it moves what rests on it: a closure that is only proved again does not. */
  shifts?: true;
  /** What has to be off while it is done, where that is not everything outside its layer. */
  under?: readonly LayerId[];
  /** Closures it rests on: it counts only while they are made, and were made before it. */
  restsOn?: readonly string[];
}

/**
 * Effects by layer and act, as the rules of number 2 have them. An act that is not named moves nothing, and its closure
 * rests on nothing. The bearing nut's own steps follow one another as its procedure has them.
 * @source geometry of the layers; what has to be before what: `wheel-end-stack.md`, common practice, no single source
 */
const effects: Record<LayerId, Record<string, Effect>> = {
  wheel: {
    'wheel-cracked': { breaks: ['wheel-nuts', 'inner-nuts', 'wheel-nuts-road'] },
    'wheel-off': { moves: 'off' },
    'track-slack': { breaks: ['track-sag'] },
    'wheel-drawn': {
      moves: 'on',
      restsOn: ['wheel-faces', 'centring-nuts', 'inner-nuts', 'bracket-bolts', 'caliper-bolts', 'drum-on'],
    },
    inflated: { restsOn: ['wheel-drawn'] },
    // To reach the inner nuts, the outer ones are loosened.
    'inner-nuts-again': { breaks: ['wheel-nuts', 'wheel-nuts-road'] },
    'wheel-nuts': { restsOn: ['wheel-drawn', 'inflated'] },
    'wheel-nuts-road': { restsOn: ['wheel-nuts'] },
    'track-sag': { restsOn: ['wheel-nuts'] },
  },
  cap: {
    'cap-cracked': { breaks: ['flange-nuts'] },
    'cap-off': { moves: 'off' },
    fill: { moves: 'on', restsOn: ['carrier-in', 'oil-washed'] },
    'flange-nuts': { restsOn: ['fill'] },
    'cap-square': { restsOn: ['fill'] },
    'oil-level': { restsOn: ['fill', 'flange-nuts', 'cap-square'] },
  },
  'brake-outer': {
    caged: { breaks: ['uncaged', 'brake-proved'] },
    caging: { breaks: ['uncaged', 'brake-proved'] },
    'adjuster-off': { moves: 'open' },
    'brake-off': { moves: 'off' },
    'caliper-bolts': { moves: 'on', restsOn: ['bracket-bolts'] },
    'drum-on': { moves: 'on' },
    hose: { under: [] },
    uncaged: { under: [] },
    adjuster: { shifts: true },
    'running-clearance': { restsOn: ['caliper-bolts'] },
    'pushrod-stroke': { restsOn: ['uncaged', 'adjuster'] },
    'brake-proved': {
      under: [],
      restsOn: ['bracket-bolts', 'caliper-bolts', 'drum-on', 'hose', 'uncaged', 'adjuster'],
    },
  },
  'brake-inner': {
    'inner-brake-off': { moves: 'off' },
    'shoe-contact': { moves: 'on' },
    adjuster: { shifts: true },
    'inner-brake-proved': { restsOn: ['shoe-contact', 'adjuster'] },
  },
  nut: {
    'nut-off': { moves: 'off' },
    'nut-opened': { moves: 'open' },
    lock: { moves: 'on', shifts: true },
    'brake-freed': { breaks: ['brake-again'], under: [] },
    'brake-again': { under: [] },
  },
  hub: {
    'hub-off': { moves: 'off' },
    'swage-cut': { breaks: ['studs-home'] },
    'hub-on': {
      moves: 'on',
      restsOn: [
        ...['cup-home', 'matched-set', 'studs-home', 'pack', 'seal', 'seal-height', 'spindle-nuts'],
        'kingpin-lock',
        'shoe-contact',
      ],
    },
    seal: { restsOn: ['wear-sleeve'] },
    'seal-height': { restsOn: ['seal'] },
    sensor: { under: [], restsOn: ['hub-on'] },
    'sensor-output': { under: [] },
  },
  'unit-hub': {
    'axle-nut-broken': { breaks: ['axle-nut', 'lock'] },
    'unit-hub-off': { moves: 'off' },
    'unit-hub-on': { moves: 'on', restsOn: ['bore-clean'] },
    'hub-bolts': { restsOn: ['unit-hub-on'] },
    'hub-bolts-2': { restsOn: ['hub-bolts'] },
    'axle-nut': { shifts: true, under: [], restsOn: ['hub-bolts-2'] },
    'end-play': { under: [], restsOn: ['axle-nut'] },
    lock: { under: [], restsOn: ['axle-nut'] },
    'sensor-lead': { under: [] },
    'sensor-output': { under: [] },
  },
  'seal-hub': {
    'seal-out': { moves: 'off' },
    'seal-home': { restsOn: ['pack-seal'] },
    'grub-screws': { moves: 'on', restsOn: ['seal-home'] },
    lock: { under: [], restsOn: ['grub-screws'] },
  },
  spindle: {
    'spindle-off': { moves: 'off' },
    'kingpin-out': { moves: 'off' },
    'needle-out': { breaks: ['needle-depth'] },
    'spindle-nuts': { moves: 'on', restsOn: ['needle-depth', 'spindle-seal', 'shaft-order'] },
    'stub-links-off': { breaks: ['stub-links', 'stub-pins'] },
    'stub-on': { moves: 'on', shifts: true, restsOn: ['bushes', 'kingpin-clearance', 'thrust-bearing'] },
    'vertical-play': { restsOn: ['stub-on'] },
    'kingpin-lock': { restsOn: ['stub-on', 'vertical-play'] },
    'kingpin-lock-bolt': { restsOn: ['kingpin-lock'] },
    'kingpin-plugs': { restsOn: ['kingpin-lock'] },
    'kingpin-grease': { restsOn: ['kingpin-plugs'] },
    'stub-links': { shifts: true, under: [], restsOn: ['stub-on'] },
    'stub-pins': { under: [], restsOn: ['stub-links'] },
  },
  shaft: {
    'pin-out': { breaks: ['shaft-in', 'pin-bolt', 'shaft-movement'] },
    'shaft-out': { moves: 'off' },
    'shaft-order': { moves: 'on', restsOn: ['cap-bolts', 'swivel-preload'] },
    'shaft-in': { moves: 'on', restsOn: ['bearing-home', 'shaft-seal-in'] },
    'pin-bolt': { under: ['axle'], restsOn: ['shaft-in'] },
    'shaft-movement': { under: [], restsOn: ['shaft-in'] },
  },
  axle: {
    'axle-opened': { moves: 'off' },
    'axle-cover-1': { moves: 'on', restsOn: ['axle-cover-joint', 'pin-bolt'] },
    'axle-cover-2': { restsOn: ['axle-cover-1'] },
    'axle-cover-3': { restsOn: ['axle-cover-2'] },
    'axle-cover-cured': { restsOn: ['axle-cover-3'] },
    'axle-oil': { restsOn: ['axle-cover-3', 'axle-cover-cured'] },
    'axle-level': { restsOn: ['axle-oil'] },
  },
  knuckle: {
    'ring-off': { moves: 'open' },
    'links-off': { breaks: ['seal-ring', 'links', 'joint-pins'] },
    'caps-off': { moves: 'off' },
    'cap-bolts': { moves: 'on', shifts: true, restsOn: ['races-dry', 'axle-seal', 'two-greases'] },
    'swivel-preload': { restsOn: ['cap-bolts'] },
    'split-seal-in': { under: [] },
    // The ring of an opened knuckle closes it; that of one that was off comes after its preload.
    'seal-ring': { closes: true, under: [], restsOn: ['swivel-preload', 'split-seal-in'] },
    links: { shifts: true, under: [], restsOn: ['swivel-preload'] },
    'joint-pins': { under: [], restsOn: ['links'] },
  },
};

const none: Effect = {};

/** What is undone with a layer besides, by its act: `hub-circlips-off` breaks `hub-circlips` and `hub-circlips-back`. */
function ofAlsoUndone({ layer, id, phase }: Act): Effect {
  if (!layer || !id.startsWith(`${layer}-`)) return none;
  if (phase === 'ground' || phase === 'off') {
    const own = id.replace(/-off$/, '');
    return { breaks: [own, `${own}-back`] };
  }
  return { under: [], restsOn: id.endsWith('-back') ? [id.replace(/-back$/, '')] : [] };
}

const known = new WeakMap<Act, Effect>();

/** What an act does to the metal of its layer. */
export function effectOf(act: Act): Effect {
  let effect = known.get(act);
  if (!effect) {
    const { layer, disturbs } = act;
    effect = layer ? (effects[layer][act.id] ?? (disturbs ? { shifts: true } : ofAlsoUndone(act))) : none;
    known.set(act, effect);
  }
  return effect;
}

/**
 * The layers that have to be off while an act is done.
 * @param together wheel, drum and hub came off in one: the brake is got at without the wheel off
 */
export function mustBeOff(stack: Stack, act: Act, together: boolean): readonly LayerId[] {
  const { layer, phase } = act;
  if (!layer || phase === 'before' || phase === 'lift' || phase === 'bare') return [];
  const { under, moves } = effectOf(act);
  if (under) return under.filter((id) => layerOf(stack, id));
  // Cracking, caging and parting links move no layer, and what waits for the wheel or the road is got at from outside.
  if (phase === 'later' || ((phase === 'ground' || phase === 'off') && !moves)) return [];
  if (together && layer === 'brake-outer') return [];
  return [...needsOffFor(stack, layer, moves === 'open' ? 'open' : 'off', together)];
}

/** What is seen of a locked nut from outside. */
export const seenOnTheNut: ReadonlySet<string> = new Set(['lock-seen', 'lock-looked-at']);

/**
 * Whether what an act makes can only be taken on the word of whoever put its layer on: it is done with the layer off,
 * or sets and locks the nut.
 * @param order the layer's put-back acts
 */
export const isUnderCover = (order: readonly Act[], act: Act): boolean =>
  act.layer === 'nut'
    ? act.stage !== 'verify' && act.id !== 'brake-again' && !seenOnTheNut.has(act.id)
    : needsLayerOff(order, act);

/** Where the act that puts a layer on stands among the layer's put-back acts; -1 where none does. */
const putOnAt = (order: readonly Act[]) => order.findIndex((a) => effectOf(a).moves === 'on');

/** Whether a put-back act is done once its layer is on. @param order the layer's put-back acts */
export function isAfterPutOn(order: readonly Act[], act: Act): boolean {
  const on = putOnAt(order);
  return on >= 0 && order.findIndex((a) => a.id === act.id) > on;
}

/**
 * Whether a put-back act can be done only with its layer off: it comes before the one that puts the layer on, or is that
 * one. A torque that puts a layer on can be proved again with the layer on.
 * @param order the layer's put-back acts
 */
export function needsLayerOff(order: readonly Act[], act: Act): boolean {
  const on = putOnAt(order);
  const at = order.findIndex((a) => a.id === act.id);
  return at < on || (at >= 0 && at === on && order[on]!.kind !== 'torque');
}
