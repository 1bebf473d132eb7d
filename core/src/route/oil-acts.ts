import { chooseStep, practice, askStep, type Option, type Step } from '../procedure/index.ts';
import type { Stack } from '../stack/index.ts';
import { layerOf } from '../stack/index.ts';
import { firstAskedBy, redo, redoLater, undo, type Act } from './act.ts';
import type { RouteState } from './state.ts';

/** Steps that look at the oil: as it stands, and as it comes out. */
export const oilLooks: ReadonlySet<string> = new Set(['oil-seen', 'oil-out']);

/** Signs of oil that got out, or of water that got in the same way. */
const ofLeaks: ReadonlySet<string> = new Set(['low', 'leak', 'water']);
/** Signs of what must not stay in a hub that gets new oil. */
const ofDirt: ReadonlySet<string> = new Set(['water', 'metal', 'burnt']);

/** What the route goes by: where the oil went is looked for, and what was in it is washed out. */
type OilTells = 'leak' | 'dirt' | 'leak-and-dirt';

/** What oil tells by its signs, for the route; null where it looks as it should. */
export function oilTells(signs: readonly string[]): OilTells | null {
  const [leak, dirt] = [ofLeaks, ofDirt].map((of) => signs.some((s) => of.has(s)));
  if (leak && dirt) return 'leak-and-dirt';
  if (leak) return 'leak';
  return dirt ? 'dirt' : null;
}

const isOilHub = ({ stack }: RouteState) => layerOf(stack, 'hub')?.fill === 'oil';
const tells = (state: RouteState, what: 'leak' | 'dirt') =>
  isOilHub(state) && (state.chosen['oil']?.includes(what) ?? false);

/** The first rules by which the oil of every hub is looked at as it comes out, not of hubs with reduction alone. */
const SINCE = 5;
const isOfReduction = (stack: Stack) => layerOf(stack, 'cap')?.kind === 'carrier';

/** Oil looked at as it comes out, before anything is apart. */
export function oilOut(state: RouteState): Act[] {
  if (!isOilHub(state)) return [];
  const reduction = isOfReduction(state.stack);
  const drained: Step = {
    kind: 'found',
    stage: 'tear-down',
    id: 'oil-out',
    title: 'Oil drained and looked at',
    text: reduction
      ? 'Mark on the cover down, plug out, oil caught warm. Wipe the magnet: a grey paste is wear, flakes and splinters are a gear or a bearing.'
      : 'Caught in a clean pan. Milky is water, glitter a bearing, a burnt smell heat.',
    signs: [
      { id: 'low', label: 'Too little' },
      { id: 'water', label: 'Milky, or water' },
      { id: 'burnt', label: 'Dark, burnt' },
      { id: 'paste', label: 'Grey paste' },
      { id: 'metal', label: 'Flakes, splinters' },
    ],
    ...practice,
  };
  const out = undo('cap', 'off', drained);
  return reduction ? out : firstAskedBy(SINCE, out);
}

const places: readonly Option[] = [
  { id: 'seal', label: 'Past the seal' },
  { id: 'cap', label: 'At the cap or its joint' },
  { id: 'plug', label: 'At the plug or the window' },
  { id: 'hub', label: 'Through the hub itself' },
  { id: 'axle', label: 'Into the axle, or out of it' },
  { id: 'none', label: 'Nothing wet found' },
];

/** Where oil went that is not there any more, looked for with the cap off or from outside. Steps. */
export const leakLooks: ReadonlySet<string> = new Set(['oil-leak', 'oil-leak-outside']);
const leakFound = (id: 'oil-leak' | 'oil-leak-outside') =>
  chooseStep(
    'lock-and-fill',
    id,
    [
      'Where the oil went',
      'Wiped dry, then looked at with a light: seal and its journal, cap joint, plug and window, the hub round its studs, the axle. Water came in the same way.',
    ],
    places,
  );

const washed = askStep('lock-and-fill', 'oil-washed', 'Hub and cap washed out', [
  'Hub, bearings, spindle and cap washed and dried. What is left of the old oil is in the new.',
  'Is nothing of it left, in no corner?',
]);

/** What bad oil asks for before new oil goes in. */
export const afterBadOil = (state: RouteState): Act[] =>
  firstAskedBy(SINCE, [
    ...(tells(state, 'leak') ? redo('cap', leakFound('oil-leak')) : []),
    ...(tells(state, 'dirt') ? redo('cap', washed) : []),
  ]);

/** Oil as it stands, with the cap on; where it went, if some is missing. */
export function oilSeen(state: RouteState): Act[] {
  const seen: Step = {
    id: 'oil-seen',
    stage: 'lock-and-fill',
    kind: 'found',
    title: 'Oil as it stands',
    text: 'Unit on the level, stood long enough to settle. Milky is water, glitter is metal: then go deeper, to the bearings.',
    signs: [
      { id: 'low', label: 'Below the mark' },
      { id: 'over', label: 'Above the mark' },
      { id: 'leak', label: 'Wet at the cap, plug or seal' },
      { id: 'water', label: 'Milky' },
      { id: 'metal', label: 'Glitter' },
    ],
    ...practice,
  };
  const leak = tells(state, 'leak') ? redoLater('cap', 'level', leakFound('oil-leak-outside')) : [];
  return [...redoLater('cap', 'level', seen), ...firstAskedBy(SINCE, leak)];
}
