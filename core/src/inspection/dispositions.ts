import { z } from 'zod';

/** What is done with a part that was looked at. */
export const dispositions = {
  reuse: 'Reuse',
  dress: 'Dress and reuse',
  sleeve: 'Fit a wear sleeve',
  replace: 'Replace',
  'replace-set': 'Replace as a set, cone and cup together',
  'replace-pair': 'Replace on both sides of the axle',
  ask: 'Ask the supervisor',
} as const;
export type Disposition = keyof typeof dispositions;
export const dispositionSchema = z.enum(Object.keys(dispositions) as [Disposition, ...Disposition[]]);

/** Something that can be seen on a component, and what follows from it. */
export interface Condition {
  id: string;
  /** As a person at the bench would say it. */
  words: string;
  disposition: Disposition;
  reason: string;
}

export interface Component {
  id: string;
  title: string;
  /** The first is the sound one. */
  conditions: readonly Condition[];
}

type Short = [id: string, words: string, disposition: Disposition, reason: string];
const of = (id: string, title: string, ...list: Short[]): Component => ({
  id,
  title,
  conditions: list.map(([condition, words, disposition, reason]) => ({
    id: condition,
    words,
    disposition,
    reason,
  })),
});

/** The rolling parts of both bearings. */
const BEARINGS = 'cups-and-rollers';

/** A bearing that could go either way. */
const DOUBTFUL = 'doubtful';

const sound = (words: string): Short => ['sound', words, 'reuse', 'Nothing speaks against it'];
const heat: Short = [
  'heat-tint',
  'Straw to blue heat tint',
  'replace-set',
  'Tempered steel has lost its hardness. Straw is about 230 °C, purple 280, blue 300. Look for the cause',
];

/**
 * Parts of a wheel end in the order they are looked at, what can be seen on each, and what follows.
 * @source common practice, no single source; temper colours from memory
 */
export const components: readonly Component[] = [
  of(
    'cups-and-rollers',
    'Cups and rollers',
    sound('Even grey, light tiny discolouration'),
    [
      DOUBTFUL,
      'Uneven, not even grey, but nothing a nail feels',
      'ask',
      'Reuse if clean, or replace while it is apart',
    ],
    ['pitting', 'Pitting, spalling, flakes', 'replace-set', 'The surface is breaking up and will go on'],
    [
      'dents',
      'Dents at roller spacing',
      'replace-set',
      'Struck or shaken while standing: it will spall from there',
    ],
    ['rust', 'Rust that a nail feels', 'replace-set', 'Water was in: rust pits become spalls'],
    heat,
  ),
  of('cage', 'Cage', sound('Whole, rollers held'), [
    'damaged',
    'Bent, cracked, or rollers fall out',
    'replace-set',
    'A broken cage locks the hub',
  ]),
  of(
    'cone-and-journal',
    'Cone bore and journal',
    sound('Dull, no rubbing'),
    [
      'burnished',
      'Bright burnish ring, no step felt',
      'dress',
      'The cone of a hub that turns is a slip fit and creeps by design: light marks are dressed. Heavy turning points to too little torque',
    ],
    [
      'worn-fit',
      'Under its size at one of three places, a step that is felt, galled or blue',
      'replace',
      'Worn past the fit of the bearing: a new spindle, not machined. Measure it against the bearing’s own limits',
    ],
  ),
  of(
    'spindle-shoulder',
    'Spindle shoulder',
    sound('Flat, no step'),
    [
      'small-step',
      'A small step worn by the cone',
      'ask',
      'It may stay or not: the supervisor knows the unit',
    ],
    ['deep-step', 'A deep step, or purple', 'replace', 'A worn spindle is not machined: it is replaced'],
  ),
  of(
    'seal-seat',
    'Seal seat',
    sound('Smooth to a nail'),
    ['nick', 'A nick or light rust', 'dress', 'Fine emery, then feel again'],
    [
      'groove',
      'A groove felt by a nail',
      'ask',
      'Sleeve it, or move the lip off the groove: reckon the seal depth',
    ],
  ),
  of('hub-bore', 'Hub bore', sound('The cup is tight'), [
    'cup-turns',
    'The cup turns by hand',
    'replace',
    'A cup that turns has worn the hub: a new hub',
  ]),
  of(
    'studs',
    'Studs',
    sound('Straight, threads clean'),
    [
      'one-damaged',
      'One bent, stripped or of the wrong length',
      'replace',
      'It did not hold its load and its neighbours took it: renew the one on either side as well, or as the wheel’s own rule says',
    ],
    ['several-damaged', 'Two or more damaged, or a stretched hole', 'ask', 'The hub itself may be spoilt'],
  ),
  of(
    'nut-and-washer',
    'Nut, washer, keyway',
    sound('Threads clean, marks of its lock'),
    [
      'no-stake',
      'No stake or lock marks: it was never locked',
      'replace',
      'It walked or could have: new nut, and say so in the note',
    ],
    ['thread', 'Damaged thread', 'replace', 'It cannot be set by torque'],
    ['keyway-proud', 'Keyway proud', 'dress', 'Dress it flat, or the washer lies'],
  ),
  of(
    'cap',
    'Cap',
    sound('Round, sits square'),
    [
      'dented',
      'Dented in, rubbing the spindle end',
      'dress',
      'Tap it out; replace it where it will not come',
    ],
    ['missing', 'Missing or loose', 'replace', 'Water and dirt got in: look at the lubricant'],
  ),
  of(
    'tone-ring',
    'Tone ring',
    sound('Every tooth, runs true'),
    ['bent', 'Bent or missing teeth', 'replace', 'The brake control goes blind on this wheel'],
    ['none', 'None fitted', 'reuse', 'Nothing to look at'],
  ),
  of(
    'lining',
    'Lining and shoe or pad',
    sound('Over its minimum, dry'),
    ['worn', 'At or under its minimum', 'replace-pair', 'Both sides of an axle brake alike'],
    ['oiled', 'Oil or grease on it', 'replace-pair', 'It does not clean out; find the leak'],
    [
      'gaps',
      'Gaps when the shoe is held in the drum',
      'ask',
      'Work the shoe to full contact, or expect half the grip',
    ],
    ['none', 'No brake here', 'reuse', 'Nothing to look at'],
  ),
  of(
    'slides',
    'Slide pins',
    sound('Move freely, pads wear evenly'),
    ['binding', 'Dry, binding, or uneven pads', 'dress', 'Clean, brake grease'],
    ['none', 'None fitted', 'reuse', 'Nothing to look at'],
  ),
  of(
    'lubricant',
    'Lubricant',
    sound('Clean, its own colour'),
    ['caked', 'Caked or burnt', 'replace', 'Flush it all; find the heat'],
    ['water', 'Milky: water', 'replace', 'Flush; find where it came in'],
    ['metal', 'Glitter: metal', 'replace', 'Flush; look at every roller and cup again'],
    ['mixed', 'Mixed colours', 'replace', 'Never mix thickeners: flush it all'],
  ),
];

/** Conditions that earlier records name, by part. */
const former: Readonly<Record<string, readonly Condition[]>> = {
  'cone-and-journal': [
    {
      id: 'loose-cone',
      words: 'The cone no longer grips',
      disposition: 'replace',
      reason: 'A cone that turns eats the spindle: a new spindle, not machined',
    },
  ],
};

/** Parts that only some constructions have. */
const ofSomeStacks: readonly Component[] = [
  of(
    'planet-carrier',
    'Planet carrier, gears and sun shaft',
    sound('Teeth whole, planets turn without play or noise'),
    [
      'teeth',
      'Teeth chipped, pitted or stepped',
      'replace',
      'Splinters of it go through every bearing of the hub',
    ],
    [
      'planet-play',
      'A planet rocks on its pin or runs rough',
      'replace',
      'Its needles are worn: pin, needles and planet',
    ],
    ['thrust-washer', 'A thrust washer worn thin or blue', 'replace', 'It keeps the planets in line'],
  ),
  of(
    'unit-hub-bearing',
    'Unit hub',
    sound('Turns smooth and silent, no movement'),
    ['movement', 'Movement felt', 'replace', 'It cannot be adjusted: a new hub'],
    ['rough', 'Rough, dry or noisy', 'replace', 'Its bearing is inside: a new hub'],
    ['sensor', 'Sensor lead or its plug damaged', 'ask', 'The hub may stay if the sensor comes apart'],
  ),
  of('axle-joint', 'Axle joint', sound('No play, boot whole'), [
    'play',
    'Play, or its boot torn',
    'ask',
    'It is reached now and not again soon',
  ]),
  of(
    'shaft-seat',
    'Shaft where the seal runs',
    sound('Smooth to a nail, edge clean'),
    ['nick', 'A nick or light rust', 'dress', 'Fine emery, then feel again'],
    ['groove', 'A groove felt by a nail', 'ask', 'Move the lip off it, or a new shaft'],
  ),
  of('shaft-journal', 'Shaft where the bearing runs', sound('Even, no step, no pitting'), [
    'pitting',
    'Pitting or a step',
    'replace',
    'The rollers run on the shaft itself: a new shaft and bearing',
  ]),
  of(
    'shaft-bearing',
    'Bearing on the shaft',
    sound('Every roller smooth, cage whole'),
    ['pitting', 'Pitting, rust or flakes', 'replace', 'It runs on the shaft: look at the journal as well'],
    ['cage', 'Cage broken or rollers loose', 'replace', 'It comes apart in the axle'],
  ),
  of(
    'ring-and-shim',
    'Snap ring and shim',
    sound('Ring springs, shim flat'),
    ['tired', 'Ring bent or loose in its groove', 'replace', 'It alone keeps the hub on the shaft'],
    ['shim', 'Shim worn or lost', 'replace', 'The hub moves along the shaft'],
  ),
  of(
    'seal-hub',
    'Hub and its grub screws',
    sound('Bore tight on the shaft, threads clean'),
    ['loose', 'Loose on the shaft or key', 'replace', 'It works back and forth and eats the shaft'],
    ['threads', 'Threads of the screws stripped', 'replace', 'Its screws alone hold it'],
  ),
  of('clip-and-pin', 'C-clip, cross pin and its bolt', sound('Whole, edges sharp'), [
    'worn',
    'Worn, cracked or burred',
    'replace',
    'It alone keeps the shaft in the axle',
  ]),
  of(
    'joint-boot',
    'Boot of the joint',
    sound('Whole, clamps tight, no grease outside'),
    [
      'loose',
      'A clamp loose, the joint still greased',
      'dress',
      'Clamped anew, and looked at again at the next visit',
    ],
    [
      'torn',
      'Torn, cracked through, or grease flung out',
      'replace',
      'Grit is in the joint: it is cleaned and judged, or renewed with it',
    ],
  ),
  of('thrust-washer', 'Thrust washer of the spindle', sound('Even, of its thickness, bevel sharp'), [
    'worn',
    'Thin, scored or its bevel gone',
    'replace',
    'It alone keeps the joint off the spindle',
  ]),
  of('needle-bearing', 'Needle bearing of the spindle', sound('Every needle, turns smooth'), [
    'dry',
    'Dry, rusty or a needle missing',
    'replace',
    'It does not recover',
  ]),
  of('spindle-bore', 'Bore of the spindle', sound('Dull, bearing tight'), [
    'spun',
    'Bright and oversize: the bearing turned in it',
    'replace',
    'It will turn again: a new spindle',
  ]),
  of('kingpin-and-bushes', 'Kingpin and bushes', sound('No play, no step'), [
    'worn',
    'Play or a step',
    'replace-pair',
    'Both sides of a steer axle alike',
  ]),
  of('swivel-bearings', 'Swivel bearings', sound('Even, turn smooth'), [
    'dents',
    'Dents, rust or notches',
    'replace-set',
    'It steers in steps and wears out the seal',
  ]),
  of('knuckle-ball', 'Ball of the knuckle', sound('Smooth, paint whole'), [
    'pitted',
    'Pitted or rusty where the seal runs',
    'ask',
    'It cuts the new seal',
  ]),
  of('magnet', 'Magnet', sound('Wear marks still there'), [
    'worn',
    'Its wear marks are gone',
    'replace',
    'It grips less and less: replaced when the marks go',
  ]),
  of(
    'drum-or-rotor',
    'Drum or rotor',
    sound('Even, within its size, no cracks'),
    ['cracked', 'Cracks that reach an edge', 'replace-pair', 'It breaks apart under heat'],
    ['worn', 'Over its wear size', 'replace-pair', 'Both sides of an axle brake alike'],
    ['hot', 'Blue spots or checked by heat', 'ask', 'Look for what drags'],
  ),
];

/** Every part that can be judged, as it was and as it is built. */
const everyComponent = [...components, ...ofSomeStacks];

/** A part that is judged, by its id; undefined where there is none. */
export function componentOf(id: string): Component | undefined {
  return everyComponent.find((c) => c.id === id);
}

/** What was seen on a part, offered now or named by earlier records; undefined where there is no such condition. */
export function conditionOf(component: string, seen: string): Condition | undefined {
  if (seen === PLANNED.id) return PLANNED;
  const known = [...(componentOf(component)?.conditions ?? []), ...(former[component] ?? [])];
  return known.find((c) => c.id === seen);
}

/** Parts whose worn surface a sleeve can cover. */
const sleeved: ReadonlySet<string> = new Set(['seal-seat']);

/**
 * What a supervisor can decide on a part: it stays or is replaced, and whatever else its conditions ask for. Nobody
 * replaces a lining as cone and cup together.
 */
export function decisionsOn(component: string): Exclude<Disposition, 'ask'>[] {
  const own = new Set(componentOf(component)?.conditions.map((c) => c.disposition));
  const always: readonly Disposition[] = sleeved.has(component)
    ? ['reuse', 'replace', 'sleeve']
    : ['reuse', 'replace'];
  return (Object.keys(dispositions) as Disposition[]).filter(
    (d): d is Exclude<Disposition, 'ask'> => d !== 'ask' && (always.includes(d) || own.has(d)),
  );
}

/** What the work was opened to renew: judged by the plan and not by its looks. */
export const PLANNED: Condition = {
  id: 'planned',
  words: 'Renewed as planned',
  disposition: 'replace',
  reason: 'The work asks for it',
};

/** What is known of the unit that bears on a doubtful part. */
export interface UnitPressure {
  /** It has run far since the last bearings and cannot stand still for another visit. */
  hardWorked: boolean;
  /** The sheet renews bearings whenever the hub is apart. */
  renewBearings?: boolean;
}

/**
 * What is to be done with a component as it was seen.
 * A doubtful bearing on a unit that has run far and cannot stand still is replaced, and the reason says so.
 * @returns undefined when there is no such component or condition
 * @source common practice, no single source
 */
export function dispose(
  component: string,
  seen: string,
  { hardWorked, renewBearings }: UnitPressure,
): Pick<Condition, 'disposition' | 'reason'> | undefined {
  const known = componentOf(component);
  if (known && seen === PLANNED.id) {
    const disposition = component === BEARINGS || component === 'cage' ? 'replace-set' : PLANNED.disposition;
    return { disposition, reason: PLANNED.reason };
  }
  const found = known?.conditions.find((c) => c.id === seen);
  if (!found) return undefined;
  if (found.id === DOUBTFUL && hardWorked)
    return {
      disposition: 'replace-set',
      reason: 'Doubtful, and the unit has run far and cannot stand still',
    };
  if (component === BEARINGS && found.disposition === 'reuse' && renewBearings)
    return { disposition: 'replace-set', reason: 'Sound, but this sheet renews bearings while it is apart' };
  return { disposition: found.disposition, reason: found.reason };
}
