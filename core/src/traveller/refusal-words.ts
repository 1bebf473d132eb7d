import { liningMinimums, type BrakeKind } from '../brake/index.ts';
import { componentOf, dispositions, type Disposition } from '../inspection/index.ts';
import { seatFaults, type SeatFault, type Step } from '../procedure/index.ts';
import { partTitle, strokeFaults, type StrokeFault } from '../route/index.ts';
import { layerTitles, works, type LayerId, type Work } from '../stack/index.ts';
import { describeToolRefusal, type ToolRefusal } from '../tool/index.ts';
import { describeFinding } from './describe-finding.ts';
import { readOnly } from './first-build.ts';
import type { Objection } from './objection.ts';
import { describeRouteRefusal, type RouteRefusal } from './route-refusal.ts';

/** A wheel end. */
export interface At {
  position: string;
}
/** A step of a wheel end. */
export interface AtStep extends At {
  stage: string;
  step: string;
}

/** What only the job knows how to name. */
export interface Names {
  step: (at: AtStep) => string;
  /** A line of the readiness list. */
  line: (position: string, what: string) => string;
  objections: (position: string, against: readonly Objection[]) => string;
  /** What is off or open on a wheel end. */
  off: (position: string) => string;
}

const partOf = (id: string) => componentOf(id)?.title.toLowerCase() ?? id;
const layer = (id: LayerId) => layerTitles[id].toLowerCase();

const onlyBySupervisor = {
  bill: 'A supervisor writes estimates and bills',
  decision: 'A supervisor decides this',
  late: 'A supervisor says that late records count',
  finding: 'A supervisor answers a finding that no record answers',
  void: 'A supervisor voids a job',
  'leaving-out': 'A supervisor leaves a wheel end out of a job',
  ending: 'A supervisor ends a job out of service',
  release: 'A supervisor releases a wheel end',
  'built-differently': 'A supervisor says that it is built differently',
  'put-on-by-others': 'A supervisor says what others put on: the release will name it',
  symptom: 'A supervisor takes a symptom out of the intake',
  strike: 'A supervisor strikes out what was taken off, measured or judged; a slip of the pen is corrected',
  ended: 'The job has ended out of service: a supervisor corrects it',
} as const;

/** Why `decide` refuses, in words. A code that is not in this table cannot be refused with. */
export const refusalWords = {
  // Who, and which job.
  'for-supervisor': ({ act }: { act: keyof typeof onlyBySupervisor }) => onlyBySupervisor[act],
  'contact-answers-only': () => 'An owner’s contact answers estimates and records nothing else',
  'storekeeper-parts-only': () => 'A storekeeper records parts that came and nothing else',
  'trainee-records-nothing': () => 'A trainee practises and records nothing',
  'no-joining': () => 'Technicians and supervisors take a wheel end into a job',
  'first-build': () => readOnly,
  'job-void': () => 'The job is void',
  'job-ended': () => 'The job has ended out of service: open another',
  'job-closed': () => 'The job is closed',
  'job-closed-open-another': () => 'The job is closed: open another',
  'job-held': ({ reason }: { reason: string }) => `The job is held: ${reason}`,
  'held-already': () => 'The job is held already',
  'not-held': () => 'The job is not held',
  'named-twice': ({ position }: At) => `${position} is named twice`,
  'not-to-be-moved': () => 'It is not to be moved: say that it was recovered, or looked at where it stood',
  'nothing-wanted': ({ position }: At) => `Choose the work on ${position}`,
  'joined-already': ({ position }: At) => `${position} is in this job already`,
  'another-axle': ({ position }: At) => `${position} is on another axle: open a job for it`,
  'not-in-job': ({ position }: At) => `${position} is not in this job`,
  released: ({ position }: At) => `${position} is released`,

  // Records of steps.
  'no-such-step': ({ position }: At) => `${position} has no such step`,
  'recorded-already': (at: AtStep, names: Names) =>
    `“${names.step(at)}” on ${at.position} is recorded already`,
  'never-skipped': (at: AtStep, names: Names) =>
    `“${names.step(at)}” cannot be skipped: do it, or end the job as out of service`,
  'another-kind-of-step': ({ kind, ...at }: AtStep & { kind: Step['kind'] }, names: Names) =>
    `“${names.step(at)}” is a step to ${kind}`,
  'no-such-choice': ({ option, ...at }: AtStep & { option: string }, names: Names) =>
    `“${option}” is not a choice of “${names.step(at)}”`,
  'no-such-lock': ({ method }: { method: string }) => `“${method}” is not a way to lock this nut`,
  'no-such-sign': ({ sign }: { sign: string }) => `“${sign}” is not on the list: say it in the note`,
  'say-what-was-found': () => 'Enter what was found',
  'not-sent': ({ name }: { name: string }) =>
    `${name} signs that in person: it waits here until ${name} is signed in`,
  'same-person': () => 'Another person looks at this than who made it',
  'tool-unfit': ({ why }: { why: ToolRefusal }) => describeToolRefusal(why),

  // Torques and turns.
  'no-figure-named': () => 'Enter the figure of the maker’s sheet',
  'figure-out-of-bounds': ({ least, most }: { least: number; most: number }) =>
    `A figure between ${least} and ${most} N·m is expected here: check it and its unit`,
  'figure-told-otherwise': ({ value, unit, ...at }: AtStep & { value: number; unit: string }, names: Names) =>
    `“${names.step(at)}” has ${value} ${unit} for the same figure: correct that one if it was wrong`,
  'torque-not-over-zero': () => 'A torque is over zero',
  'torque-not-possible': () => 'A torque of this size is not possible here: check the figure and its unit',
  'torque-off': () => 'This torque is outside the sheet’s range: enter a reason',
  'turn-off': () => 'This is not the turn that was asked for: say why',

  // What is measured.
  'felt-with-a-tool': () => 'What is felt is not measured with a tool',
  'not-measured': () => 'End play is not measured',
  'not-repeated': () => 'Take three cycles that repeat within 0.001 in',
  'reading-out': ({ verdict }: { verdict: string }) => `The reading is ${verdict}`,
  'dial-says-otherwise': () =>
    'The dial read out of band for this setting: what is felt does not stand against it',
  'dial-needed': () => 'This wheel end needs the dial',
  'by-drag': () => 'This is measured by its drag',
  'by-play': () => 'This wheel end has end play, not drag',
  'no-pull': () => 'Measure the pull',
  'pull-not-possible': () => 'A pull of this size is not possible: check the figure and its unit',
  'no-pull-asked': () => 'Enter the pull that the maker asks for',
  'least-over-most': () => 'The least is over the most',
  'play-not-possible': () => 'End play of half an inch is not possible: check the figure and its unit',
  'moved-on': ({ position }: At) => `${position} has moved on since`,
  'reading-accepted': ({ position }: At) => `The reading of ${position} is accepted already`,
  'nothing-measured': ({ position }: At) => `Nothing is measured on ${position}`,
  'no-tip-distance': () => 'Enter how far from the middle of the axle the tip stood',
  'rocking-against-band': () => 'A rocking is not held against an end-play band',
  'no-kingpin': ({ position }: At) => `${position} has no kingpin to measure`,
  'no-kingpin-limit': () => 'Enter what the maker allows at the kingpin',
  'movement-negative': () => 'A movement is not negative',
  'movement-not-measured': () => 'It moves: set the indicator from knuckle to hub, or say why not',
  'no-air-temperature': () => 'Enter the air temperature',
  'hub-under-air': () => 'A hub is not colder than the air: measure again',
  'hub-hot': () => 'Much warmer than the air or the other side: say what was looked at, bearing and brake',
  'under-zero': () => 'It is not under zero',
  'no-limits': () => 'Enter its limits: the maker’s figure, or the part’s own size',
  'dimension-off': () => 'It is off its figure: put it right, or say what was found',
  'cover-not-tight': () => 'First the cover is tightened',
  'still-cures': ({ minutes }: { minutes: number }) => `It cures for another ${minutes} min`,

  // Lists and parts.
  'line-open': ({ position, what }: At & { what: string }, names: Names) =>
    `Choose the state of “${names.line(position, what)}”`,
  'line-undated': ({ position, what }: At & { what: string }, names: Names) =>
    `When does “${names.line(position, what)}” arrive`,
  'lines-lacking': ({ position, lines }: At & { lines: readonly string[] }, names: Names) =>
    `${lines.map((what) => names.line(position, what)).join(', ')} not here: say why the work starts all the same`,
  'judged-twice': () => 'A part is judged twice',
  'not-judged': ({ component }: { component: string }) => `Judge ${partOf(component)} as well`,
  'not-renewed-here': ({ component }: { component: string }) =>
    `This work does not renew ${partOf(component)}`,
  'judged-otherwise': ({ component, seen }: { component: string; seen: string }) =>
    `“${seen}” on ${component} asks for something else`,
  'not-compared': ({ part }: { part: string }) =>
    `Hold ${partTitle(part).toLowerCase()} against the old one as well`,
  'part-differs': ({ part }: { part: string }) =>
    `${partTitle(part)} is not as the old one: say why it goes in`,
  'never-again': ({ part }: { part: string }) =>
    `${partTitle(part)}: there is no old one that could go in again. Enter when it has come`,
  'another-brake': ({ brake }: { brake: BrakeKind }) =>
    `This axle has another brake: ${liningMinimums[brake].title.toLowerCase()}`,
  'linings-not-measured': () => 'Measure the lining inner and outer',
  'lining-under-nothing': () => 'A lining is not thinner than nothing',
  'brake-not-back': () => 'The brake is not back: say why',
  'lining-thin': ({ mm, leastMm }: { mm: number; leastMm: number }) =>
    `The lining is ${mm.toFixed(1)} mm, at or under ${leastMm} mm: say what is done about it`,
  'stroke-fault': ({ fault }: { fault: StrokeFault }) => strokeFaults[fault],
  'chamber-not-as-built': () =>
    'The axle is on file with another chamber: enter what is marked on this one, or change the stack',
  'stroke-out': () => 'The stroke is over its limit: find the cause, and enter what was found',
  'size-not-over-zero': () => 'A size is over zero',
  'no-runout-limit': () => 'Enter what the maker allows as runout',
  'past-discard': () => 'It is past its discard figure: enter what is done about it',
  'seal-drags-more': () => 'The seal alone cannot drag more than was pulled: check both',
  'no-rolling-asked': () => 'Enter the rolling torque that the maker asks for',
  'no-gap': () => 'Enter the gap between sensor and ring',
  'sensor-off': ({ state }: { state: 'low' | 'unlike' }) =>
    state === 'low'
      ? 'The sensor gives too little: push it up, look at the ring, and enter what was found'
      : 'One side gives twice the other: enter what was found',
  'bearings-new': () => 'The bearings of this hub are new: hold it against the figure of new bearings',
  'no-play-for-shims': () => 'Measure with some end play: at zero the preload does not show',
  'runs-out': () => 'It runs out: look at the bearings’ play and at the faces, and enter what was found',

  // Seals and lubricants.
  'seal-outside': ({ outside }: { outside: string }) => `The sheet sets this seal ${outside}: say why not`,
  'seat-fault': ({ fault }: { fault: SeatFault }) => seatFaults[fault],
  'seat-not-as-measured': () => 'The seat is not what was measured: reckon it again',
  'no-sound-depth': () => 'No depth keeps the lips on sound journal: say what is done',
  'no-seal-depth': () => 'Enter the depth of the seal',
  'seal-depth-off': () => 'At this depth a lip does not run on sound journal: set it again, or say why',
  'grease-oiled': () => 'This hub runs in grease: say why it is oiled',
  'oil-packed': () => 'This hub runs in oil: say why it is packed',
  'packed-otherwise': ({ by }: { by: 'hand' | 'packer' }) =>
    `The sheet packs ${by === 'hand' ? 'by hand' : 'with a packer'}: say why not`,
  'no-joint': () => 'Choose what closes the cap: gasket, sealant, or neither',
  'joint-otherwise': ({ joint }: { joint: 'gasket' | 'sealant' }) =>
    `The sheet closes the cap with ${joint === 'gasket' ? 'a gasket' : 'sealant'}: say why not`,
  'two-lubricants': ({ packed }: { packed: string }) =>
    `The bearings have ${packed}: one lubricant in one place, or say that the first is all out`,
  'other-lubricant': ({ asked }: { asked: string }) =>
    `The sheet calls for ${asked}. Enter why another is used, and that the old is all out`,

  // What a step waits for.
  'waits-for-shaft': ({ position }: At) => `Put the shaft of ${position} back first: the axle is closed once`,
  'waits-for-wheel': ({ position }: At) =>
    `Put the wheel of ${position} on first: both sides of an axle are lowered together`,
  'waits-for-owner': () => 'The owner has not answered the estimate yet',
  'owner-said-no': ({ answer }: { answer: 'defer' | 'decline' }) =>
    `The owner has ${answer === 'defer' ? 'deferred' : 'declined'} it: nothing more comes off`,
  'waits-for-decision': ({ component }: { component: string }) =>
    `The supervisor has to decide about ${partOf(component)} first`,
  'waits-for-part': ({ position, what }: At & { what: string }, names: Names) =>
    `${names.line(position, what)} is on order: wait until it has come, or say that the old one goes in again`,

  // Decisions, late records, findings, follow-ups.
  'nothing-to-decide': () => 'There is nothing to decide about this part',
  'decision-unfit': ({ decision }: { decision: Disposition }) =>
    `That does not fit this part: ${dispositions[decision].toLowerCase()}`,
  'not-all-late': () => 'Not all of these came late for the work at hand: do them again instead',
  'answered-already': () => 'This finding is answered already',
  'answer-too-short': () => 'Enter in a sentence what was done or found: a later reader depends on it',
  'no-follow-up': () => 'There is no such follow-up',
  'followed-up-already': () => 'It is recorded already',
  'measure-before': ({ position }: At) =>
    `${position} was released out of its band: open a job on it and measure it in band first`,
  'say-what-was-seen': () => 'Enter what was looked at and how it is now, in a sentence',

  // The owner.
  'no-estimate': () => 'There is no estimate to answer yet',
  'estimate-newer': () => 'The estimate has changed: review it before you answer',
  'no-estimate-named': () => 'Name the estimate that is answered',
  'owner-answered': ({ by }: { by: string }) =>
    `${by} answered for the owner themselves: only a new estimate asks again`,
  'deferred-without-date': () => 'Deferred needs a date and the risk in words',
  'work-deferred-without-date': ({ position, work }: At & { work: Work }) =>
    `Deferred needs a date and the risk in words: ${works[work].toLowerCase()} on ${position}`,
  'no-route-to-shorten': ({ position }: At) => `${position} has no route to take it off`,
  'nothing-wanted-at-all': () => 'No work is left in the job: give this answer for the whole estimate',

  // The route.
  'wanted-already': ({ work }: { work: Work }) => `“${works[work]}” is wanted already`,
  'cannot-have-work': ({ position, work }: At & { work: Work }) => `${position} cannot have “${works[work]}”`,
  'not-back': ({ layer: id }: { layer: LayerId }) => `${layerTitles[id]} is not back yet`,
  'built-so-no-work': ({ work }: { work: Work }) => `Built so, it cannot have “${works[work]}”`,
  'layer-lost': ({ layer: id }: { layer: LayerId }) =>
    `${layerTitles[id]} is off or open: say which layer of the new stack it is, or that it was never there`,
  'new-stack-lacks': ({ layer: id }: { layer: LayerId }) => `The new stack has no ${layer(id)}`,
  'layer-named-twice': () => 'Each layer is named once',
  'has-no-layer': ({ position, layer: id }: At & { layer: LayerId }) => `${position} has no ${layer(id)}`,
  'never-open': ({ layer: id }: { layer: LayerId }) => `${layerTitles[id]} is on or off`,
  'cannot-stand': ({ on, off }: { on: LayerId; off: LayerId }) =>
    `${layerTitles[on]} cannot be on while ${layer(off)} is off: say how both stand`,
  'not-wanted': ({ position, work }: At & { work: Work }) => `“${works[work]}” is not wanted on ${position}`,
  'only-work': ({ position }: At) =>
    `It is the only work on ${position}: void the job, or end it out of service`,
  'opened-already': ({ layer: id }: { layer: LayerId }) =>
    `${layerTitles[id]} is opened already: what was opened goes back`,
  'no-route': ({ position, why }: At & { why: RouteRefusal }) => `${position}: ${describeRouteRefusal(why)}`,
  'sheet-unfit': ({ why }: { why: RouteRefusal }) => describeRouteRefusal(why),
  'adjusting-again-already': ({ position }: At) => `${position} has gone back to Adjust already`,
  'not-left-adjust': ({ position }: At) => `${position} has not left Adjust yet`,
  'too-many-rounds': () => 'After that many adjustments, inspect the bearings instead',
  'no-turn-named': () => 'Enter how far to turn the nut',
  'begin-from-start': () => 'The sheet names no thread and lock: begin Adjust from the start',

  // Ends of a job, releases and what comes after.
  'one-is-released': ({ position }: At) => `${position} is released: the job stands`,
  'left-out': ({ position, by }: At & { by: string }) => `${position} was left out of this job by ${by}`,
  'left-out-alone': ({ position }: At) =>
    `${position} is the last wheel end of this job: void the job, or end it out of service`,
  'left-out-with-finding': ({ position, finding }: At & { finding: string }) =>
    `${position} is not left out of the job before this is answered: ${describeFinding(finding, '')}`,
  'left-out-and-changed': ({ position }: At) =>
    `${position} was left out of this job, and another job has worked on it since: record it there, or open a new one`,
  'not-as-it-was': ({ position }: At, names: Names) =>
    `${position} is not as it was: ${names.off(position)}. Finish it, or end the job out of service`,
  'axle-open': ({ position, other }: At & { other: string }) =>
    `The axle of ${position} is open: take ${other} into the job first, it hangs on the same pin and cover`,
  'band-widened-by-same': ({ position, by }: At & { by: string }) =>
    `${by} widened the band of ${position} in this job to more than twice the usual one: another supervisor releases it`,
  'nobody-releases': ({ position, against }: At & { against: readonly Objection[] }, names: Names) =>
    `${position} cannot be released: ${names.objections(position, against)}`,
  'release-needs-reason': ({ position, against }: At & { against: readonly Objection[] }, names: Names) =>
    names.objections(position, against),
  'reason-too-short': () => 'Give the reason in a sentence: somebody has to weigh it later',
  'not-released': ({ position }: At) => `${position} is not released yet`,
  'wheel-was-on': ({ position }: At) => `The wheel of ${position} was not off`,
  'retorqued-already': ({ position }: At) => `The retorque of ${position} is recorded already`,

  // Corrections.
  'no-such-record': () => 'There is no such record in this job',
  'not-theirs-to-correct': () => 'Only who recorded it, or a supervisor, corrects it',
  'intake-not-struck': () => 'The intake is put right, not struck out; a supervisor voids a job',
  'not-correctable': () => 'This is not corrected: record it anew',
  'released-correction': ({ position }: At) => `${position} is released: a supervisor corrects it`,
  'later-records-first': () => 'First strike out what was recorded after the release',
  'correction-elsewhere': () => 'A correction stays with its wheel end, its round and its kind of record',
  'correction-other-step': () => 'A correction stays with its step',
  'correction-other-kind': () => 'A correction stays with its kind of step',
  'felt-not-measured': () =>
    'What was measured is not corrected to what was felt, nor the other way: measure again',
} as const;
