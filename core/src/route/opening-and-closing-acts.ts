import { askStep, doStep, practice, type Step } from '../procedure/index.ts';
import { layerOf } from '../stack/index.ts';
import { act, type Act } from './act.ts';
import { partsToCompareOf, partsToJudgeOf } from './parts.ts';
import { wants, type RouteState } from './state.ts';

/** Works for which the wheel end is lifted and rocked. */
const lifted = ({ works, inTheAir }: RouteState) =>
  inTheAir || works.some((w) => w !== 'retorque' && w !== 'oil-level');

const rock: Step = {
  id: 'rock',
  stage: 'diagnose',
  kind: 'joint',
  title: 'Rock the wheel',
  text: 'Rock at 12 and 6, then at 3 and 9 o’clock. Where it moves, set the indicator twice. Look at the other side in the same lift.',
  caution: 'Level ground, chocks, rated stands. Never under a jack alone.',
  ...practice,
};

const asFound: Step = {
  id: 'as-found',
  stage: 'diagnose',
  kind: 'measure',
  title: 'End play as found',
  text: 'Before the nut is touched, brake free: base on the spindle end, tip square on the hub. It tells how the last setting wore.',
  ...practice,
};

/** What comes before anything is touched: readiness, chocks, and after the lift the rocking. */
export function before(state: RouteState): { ready: Act[]; ground: Act[]; lift: Act[] } {
  if (!lifted(state)) return { ready: [], ground: [], lift: [] };
  const readiness: Step = {
    id: 'readiness',
    stage: 'ready',
    kind: 'ready',
    title: 'Tools, parts and lubricant at hand',
    text: 'Before anything comes apart. A line that is missing stops the work, or somebody says why it goes on.',
    ...practice,
  };
  const touched = state.reach.layers.size > 0;
  return {
    ready: touched ? [act(null, 'before', 'supervisor', readiness)] : [],
    ground: [
      act(
        null,
        'ground',
        'supervisor',
        doStep(
          'tear-down',
          'chocks',
          'Level ground, chocks',
          'Chocks at the wheels that stay down, key out.',
        ),
      ),
    ],
    lift: [
      act(
        null,
        'lift',
        'supervisor',
        doStep(
          'tear-down',
          'lifted',
          'Lift and support',
          'Stands rated for the axle under it, then rock it on them.',
          {
            caution: 'Never under a jack alone.',
          },
        ),
      ),
      ...(state.alreadyOff.includes('wheel') ? [] : [act(null, 'lift', 'supervisor', rock)]),
    ],
  };
}

/** End play as found, before the nut is touched; a wheel-off job measures it or says why not. */
export function measuredAsFound(state: RouteState): Act[] {
  const { stack, sheet, alreadyOff, together } = state;
  if (!lifted(state)) return [];
  const nut = layerOf(stack, 'nut');
  if (!nut || nut.kind === 'N' || !sheet.band || alreadyOff.includes('nut') || together) return [];
  return [act(null, 'off', 'optional', asFound)];
}

/** What looked wrong, every bare part judged, new parts held against the old. */
export function onTheBench(state: RouteState): Act[] {
  if (partsToJudgeOf(state).length === 0) return [];
  const lookedWrong: Step = {
    id: 'looked-wrong',
    stage: 'tear-down',
    kind: 'found',
    title: 'What looked wrong',
    text: 'As it came apart, before anything is cleaned. It tells why a setting was lost.',
    signs: [
      { id: 'cap-rubbing', label: 'Cap rubbing the spindle end' },
      { id: 'seal-in-pieces', label: 'Seal in pieces' },
      { id: 'wrong-grease', label: 'Wrong lubricant' },
      { id: 'metal', label: 'Metal in the cap or the lubricant' },
      { id: 'water', label: 'Water' },
      { id: 'heat', label: 'Signs of heat' },
    ],
    ...practice,
  };
  const judging: Step = {
    id: 'judge-parts',
    stage: 'inspect',
    kind: 'judge',
    title: 'Judge the parts',
    text: 'Clean first, then judge each one that is bare. What it asks for stands beside it with its reason.',
    caution: 'Never spin a bearing with compressed air. Hot hubs burn.',
    ...practice,
  };
  const comparing: Step = {
    id: 'compare',
    stage: 'inspect',
    kind: 'compare',
    title: 'New beside old',
    text: 'Before it goes in: bore, outside diameter, width, stud count, sensor, number; only what that part has.',
    ...practice,
  };
  return [
    act(null, 'bare', 'supervisor', lookedWrong),
    act(null, 'bare', 'never', judging),
    ...(partsToCompareOf(state).length > 0 ? [act(null, 'bare', 'supervisor', comparing)] : []),
  ];
}

/** Down again, the road, the last look. */
export function atTheEnd(state: RouteState): { down: Act[]; last: Act[] } {
  const heat: Step = {
    id: 'hub-heat',
    stage: 'release',
    kind: 'heat',
    title: 'Hub heat after the road',
    text: 'After the road check, both sides of the axle at the same place, with the air. Brake drag warms a hub as well.',
    caution: 'Hot hubs burn.',
    ...practice,
  };
  const look = askStep('release', 'final-look', 'Final look', [
    'Rotates freely, no drag, no leak, leads clipped, tools and stands away.',
    'Is it fit to go?',
  ]);
  const turning =
    state.reach.layers.has('nut') || state.reach.layers.has('unit-hub') || wants(state, 'check');
  return {
    down: lifted(state)
      ? [
          act(
            null,
            'later',
            'supervisor',
            doStep('wheel-on', 'down', 'Down on its wheels', 'Stands out, chocks stay.'),
            { wait: 'ground' },
          ),
        ]
      : [],
    last: [
      ...(turning ? [act(null, 'later', 'optional', heat, { wait: 'road' })] : []),
      act(null, 'later', 'never', look, { wait: 'road' }),
    ],
  };
}
