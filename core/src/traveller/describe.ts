import { formatTurn } from '../nut/index.ts';
import { billTotals, formatMoney } from '../cost/index.ts';
import {
  BEARING_LIMIT_MM,
  componentOf,
  conditionOf,
  dispositions,
  tiltMmPerM,
  tipPlaces,
  whichJoint,
} from '../inspection/index.ts';
import { partTitle, rollingNm, shimmedMm, strokeOf } from '../route/index.ts';
import { layerTitles, works } from '../stack/index.ts';
import { compared, readyStates, stages, type Step, type StepData } from '../procedure/index.ts';
import { formatFor, formatTypedFor, quantity, type Quantity, type Reader } from '../quantity/index.ts';
import { ownerAnswers, type EventBody, type StoredEvent } from './event.ts';
import { followUpKinds } from './follow-up-kinds.ts';
import { wheelEndEver, type Job, type WheelEnd } from './job.ts';
import { linesToSay } from './ready-words.ts';
import { describeFinding } from './describe-finding.ts';
import { describeObjection } from './describe-objection.ts';
import { leaving } from './describe-stopped.ts';
import { stepTitled } from './progress.ts';

type Finding = Extract<StepData, { kind: 'judge' }>['findings'][number];

const accepted = {
  dial: 'accepted by dial',
  feel: 'accepted by feel: no movement, spins freely',
  drag: 'light, even drag',
};

/** What a recorded step says to a reader, in words: "350 lbf·ft with TW-03, 3 rounds". */
export function describeStepData(data: StepData, reader: Reader, step?: Step, w?: WheelEnd): string {
  const note = data.note ? `. ${data.note}` : '';
  switch (data.kind) {
    case 'torque':
      return `${formatFor(data.torque, reader)} with ${data.tool}${describeVia(data)}${data.asked ? `, the maker asks for ${formatFor(data.asked, reader)}` : ''}${data.rounds > 1 ? `, ${data.rounds} rounds` : ''}${note}`;
    case 'turn':
      return `${data.turns < 0 ? 'backed off' : 'tightened'} ${formatTurn(data.turns)}${data.planned !== undefined && data.planned !== data.turns ? `, planned ${formatTurn(data.planned)}` : ''}${note}`;
    case 'inspect':
      return `${data.ok ? 'yes' : 'no'}${note}`;
    case 'joint':
      return `${describeJoint(data, reader)}${note}`;
    case 'ready': {
      const lacking = data.lines.filter((l) => l.state !== 'have');
      return `${lacking.length === 0 ? 'everything at hand' : lacking.map((l) => `${linesToSay(w, l.what)}: ${readyStates[l.state].toLowerCase()}${l.by ? ` for ${l.by}` : ''}`).join(', ')}${note}`;
    }
    case 'judge': {
      const bad = data.findings.filter((f) => f.disposition !== 'reuse');
      return `${bad.length === 0 ? 'every part sound' : bad.map(describeJudged).join('. ')}${note}`;
    }
    case 'linings':
      return `${data.brake === 'none' ? 'no brake here' : `inner ${describeReading(data.inner, reader)}, outer ${describeReading(data.outer, reader)}, ${data.set ? 'brake set' : 'not set'}`}${note}`;
    case 'heat':
      return `${formatFor(data.here, reader)} here, ${formatFor(data.other, reader)} on the other side${data.air ? `, air ${formatFor(data.air, reader)}` : ''}${note}`;
    case 'choose':
      return `${(step?.kind === 'choose' && step.options.find((o) => o.id === data.option)?.label) || data.option}${note}`;
    case 'lock': {
      const method =
        (step?.kind === 'lock' && step.methods.find((m) => m.id === data.method)?.label) || data.method;
      return `${method}${data.checkedBy ? `, checked by ${data.checkedBy}` : ''}${note}`;
    }
    case 'measure':
      return `${accepted[data.by]}${data.listed ? `, ${data.listed.code}` : ''}${data.pull ? ` with ${formatFor(data.pull, reader)}` : ''}${note}`;
    case 'fill': {
      const joint = data.joint && data.joint !== 'none' ? `, ${data.joint}` : '';
      return `${data.lubricant}${data.amount ? `, ${formatFor(data.amount, reader)}` : ''}${joint}${note}`;
    }
    case 'found': {
      const words = data.signs.map(
        (id) => (step?.kind === 'found' && step.signs.find((s) => s.id === id)?.label) || id,
      );
      return `${words.length === 0 ? 'nothing looked wrong' : words.join(', ').toLowerCase()}${note}`;
    }
    case 'compare': {
      const other = data.parts.filter((p) => p.differs.length > 0);
      const differing = other.map(
        (p) => `${partTitle(p.part)}: ${p.differs.map((d) => compared[d].toLowerCase()).join(', ')} differs`,
      );
      return `${other.length === 0 ? 'new as the old' : differing.join('. ')}${note}`;
    }
    case 'seal': {
      const depth = data.depth ? `${formatTypedFor(data.depth, reader)} below the hub face` : 'at its stop';
      return `${depth}, outside ${data.outside}${note}`;
    }
    case 'pack': {
      const by = { hand: 'by hand', packer: 'with a packer', oiled: 'oiled' }[data.by];
      return `${data.lubricant}, ${by}${data.amount ? `, ${formatFor(data.amount, reader)}` : ''}${note}`;
    }
    case 'dimension': {
      const { value, asked } = data;
      const between = asked
        ? `, to lie from ${formatTypedFor(asked.least, reader)} to ${formatTypedFor(asked.most, reader)}`
        : '';
      return `${formatTypedFor(value, reader)}${between}${note}`;
    }
    case 'wear': {
      const sizes = data.measured.map((q) => formatTypedFor(q, reader)).join(', ');
      const runout = data.runout ? `; runout ${formatTypedFor(data.runout, reader)}` : '';
      return `${sizes}, discard at ${formatTypedFor(data.discard, reader)}${runout}${note}`;
    }
    case 'stroke': {
      const { strokeMm, limitMm, state } = strokeOf(data);
      const mm = (value: number) => formatTypedFor(quantity(Number(value.toFixed(2)), 'mm'), reader);
      const size = data.chamber ? `, chamber ${data.chamber}, ${data.stroke} stroke` : '';
      return `${mm(strokeMm)} of ${mm(limitMm)}${size}: ${strokeWords[state]}${note}`;
    }
    case 'rolling': {
      const say = (q: Quantity) => formatTypedFor(q, reader);
      const turns = say(quantity(Number(rollingNm(data).toPrecision(3)), 'Nm'));
      const how = data.pull ? `, ${say(data.pull)} on a cord of ${say(data.radius!)} radius` : '';
      const asked = data.asked
        ? `, the maker asks for ${say(data.asked.least)} to ${say(data.asked.most)}`
        : '';
      return `${data.bearings === 'new' ? 'new bearings' : 'run-in bearings'} turn with ${turns}${how}${asked}${note}`;
    }
    case 'sensor': {
      const { set, gap, runout, here, other } = data;
      const say = (q: Quantity) => formatTypedFor(q, reader);
      const said = [
        { 'to-stop': 'pushed to its stop', gap: `gap ${gap ? say(gap) : ''}`, fixed: 'fixed' }[set],
        ...(runout ? [`runout ${say(runout)}`] : []),
        ...(here ? [`gives ${say(here)}`] : []),
        ...(other ? [`the other side ${say(other)}`] : []),
      ];
      return `${said.join(', ')}${note}`;
    }
    case 'shims': {
      const say = (q: Quantity) => formatTypedFor(q, reader);
      const preload = say(quantity(Number((-shimmedMm(data)).toFixed(3)), 'mm'));
      return `${say(data.chosen)} of shims, from ${say(data.play)} of play with ${say(data.current)}: preload ${preload}${note}`;
    }
    case 'cure':
      return `cured ${data.hours} h${data.air ? ` at ${formatFor(data.air, reader)}` : ''}${note}`;
    case 'instruct':
    case 'rotate':
      return data.note ? `done. ${data.note}` : 'done';
  }
}

/** What stood between wrench and nut. */
function describeVia({ via }: Extract<StepData, { kind: 'torque' }>): string {
  const between = [
    ...(via?.adapter ? [`${via.adapter.code ?? 'an adapter'} of ${via.adapter.lengthMm} mm`] : []),
    ...(via?.multiplier ? [`a multiplier of ${via.multiplier.ratio}`] : []),
  ];
  return between.length === 0 ? '' : ` through ${between.join(' and ')}`;
}

const describeReading = (q: Quantity | undefined, reader: Reader) =>
  q ? formatFor(q, reader) : 'not measured';

const feltWords = {
  nothing: 'nothing moves',
  'twelve-six': 'moves at 12 and 6',
  'three-nine': 'moves at 3 and 9',
  both: 'moves both ways',
};
const suspectWords = {
  kingpin: 'the kingpin moves',
  bearing: 'the bearing is loose',
  both: 'kingpin and bearing move',
  neither: 'both within their limits',
};

function describeJoint(
  {
    felt,
    axleToKnuckle,
    knuckleToHub,
    kingpinLimit,
    bearingLimit,
    tipAt,
    radius,
  }: Extract<StepData, { kind: 'joint' }>,
  reader: Reader,
): string {
  if (!knuckleToHub) return feltWords[felt];
  if (tipAt && tipAt !== 'hub' && radius) {
    const tilt = tiltMmPerM({ movementMm: knuckleToHub.si * 1000, radiusMm: radius.si * 1000 });
    const kingpin = axleToKnuckle ? `; axle to knuckle ${formatFor(axleToKnuckle, reader)}` : '';
    return `${feltWords[felt]}${kingpin}; rocks ${formatFor(knuckleToHub, reader)} ${tipPlaces[tipAt].toLowerCase()}, ${formatFor(radius, reader)} out: ${tilt.toFixed(1)} mm per metre`;
  }
  const { suspect } = whichJoint({
    axleToKnuckleMm: (axleToKnuckle?.si ?? 0) * 1000,
    knuckleToHubMm: knuckleToHub.si * 1000,
    kingpinLimitMm: (kingpinLimit?.si ?? 0) * 1000,
    bearingLimitMm: bearingLimit ? bearingLimit.si * 1000 : BEARING_LIMIT_MM,
  });
  return `${feltWords[felt]}; axle to knuckle ${describeReading(axleToKnuckle, reader)}, knuckle to hub ${describeReading(knuckleToHub, reader)}: ${suspectWords[suspect]}`;
}

const strokeWords = { good: 'within its limit', 'at-limit': 'at its limit', out: 'over its limit' } as const;

function describeJudged({ component, seen, disposition, note }: Finding): string {
  const words = conditionOf(component, seen)?.words ?? seen;
  return `${componentOf(component)?.title ?? component}: ${words.toLowerCase()}, ${dispositions[disposition].toLowerCase()}${note ? ` (${note})` : ''}`;
}

const partWords = (id: string) => (componentOf(id)?.title ?? partTitle(id)).toLowerCase();

/** Works that the owner answered otherwise than the whole. */
function answeredWorks({ works: lines = [] }: Extract<EventBody, { kind: 'owner-answered' }>): string {
  return lines
    .map(({ position, work, answer, until, risk }) => {
      const later = answer === 'defer' ? ` until ${until}, risk: ${risk}` : '';
      return `. ${works[work]} on ${position}: ${answer === 'defer' ? 'deferred' : 'declined'}${later}`;
    })
    .join('');
}

function describeBody(job: Job, body: EventBody, reader: Reader): string {
  switch (body.kind) {
    case 'job-opened':
      return `opened the job on ${body.wheelEnds.map((w) => w.position).join(', ')}`;
    case 'step-recorded': {
      const step = stepTitled(wheelEndEver(job, body.position), body.stage, body.stepId);
      return `${body.position}, ${step?.title ?? body.stepId}: ${describeStepData(body.data, reader, step, wheelEndEver(job, body.position))}`;
    }
    case 'step-skipped': {
      const step = stepTitled(wheelEndEver(job, body.position), body.stage, body.stepId);
      return `${body.position}, ${step?.title ?? body.stepId} skipped: ${body.reason}`;
    }
    case 'reading-taken':
      return `${body.position}, cycle: push ${formatFor(body.push, reader)}, pull ${formatFor(body.pull, reader)}${body.gauge ? ` with ${body.gauge}` : ''}`;
    case 'adjust-reopened':
      return `${body.position} back to ${stages.find((s) => s.id === 'adjust')?.title}${
        body.turns === undefined
          ? ''
          : `, to ${body.turns < 0 ? 'back off' : 'tighten'} ${formatTurn(body.turns)}`
      }`;
    case 'reckoning-kept':
      return `${body.position}, reckoned, ${body.title}: ${body.summary}${body.note ? `. ${body.note}` : ''}`;
    case 'photo-added':
      return `${body.position}, photo${body.component ? ` of ${partWords(body.component)}` : ''}${body.caption ? `: ${body.caption}` : ''}`;
    case 'decision-made': {
      return `${body.position}, decided on ${partWords(body.component)}: ${dispositions[body.decision].toLowerCase()}. ${body.reason}`;
    }
    case 'finding-answered':
      return `${body.position}, ${body.how === 'put-right' ? 'put right' : 'looked into, not so'}: ${describeFinding(body.finding, '')}. ${body.reason}`;
    case 'follow-up-done':
      return `${body.position}, ${followUpKinds[body.followUp].toLowerCase()} looked after${body.doneBy ? `, by ${body.doneBy}` : ''}${body.note ? `. ${body.note}` : ''}`;
    case 'bill-written': {
      const total = formatMoney(billTotals(body.bill).totalMinor, body.bill.currency);
      return body.as === 'estimate' ? `estimated ${total}` : `billed ${total}`;
    }
    case 'owner-answered':
      return `${body.name} answered for the owner: ${ownerAnswers[body.answer].toLowerCase()}${body.until ? ` until ${body.until}` : ''}${body.risk ? `. Risk: ${body.risk}` : ''}${answeredWorks(body)}${body.message ? `. “${body.message}”` : ''}`;
    case 'job-held':
      return `held the job: ${body.reason}`;
    case 'job-resumed':
      return 'took the job up again';
    case 'job-voided':
      return `voided the job: ${body.reason}`;
    case 'work-added':
      return `${body.position}, went deeper: ${works[body.work].toLowerCase()}. ${body.reason}`;
    case 'work-withdrawn':
      return `${body.position}, not done after all: ${works[body.work].toLowerCase()}. ${body.reason}`;
    case 'wheel-end-left-out':
      return `left ${body.position} out of the job: ${body.reason}`;
    case 'layer-opened':
      return `${body.position}, opened again: ${layerTitles[body.layer].toLowerCase()}. ${body.reason}`;
    case 'sheet-changed':
      return `${body.position}, built differently, now “${body.sheet.title}”. ${body.reason}`;
    case 'wheel-end-joined': {
      const wanted = body.wheelEnd.route?.works.map((work) => works[work].toLowerCase()).join(', ');
      return `took ${body.position} into the job: ${wanted}`;
    }
    case 'late-counted':
      return `${body.position}, ${body.records.length} that came late count: ${body.reason}`;
    case 'as-it-stands': {
      const layers = body.layers.map((l) => `${layerTitles[l.layer].toLowerCase()} ${l.is}`).join(', ');
      return `${body.position}, as it stands: ${layers}, by ${body.who}. ${body.reason}`;
    }
    case 'part-received': {
      const what = linesToSay(wheelEndEver(job, body.position), body.what);
      return `${body.position}, ${what}: ${body.as === 'received' ? 'has come' : 'the old one goes in again'}${body.note ? `. ${body.note}` : ''}`;
    }
    case 'ended-out-of-service':
      return `ended the job out of service, ${leaving[body.leaves]}. ${body.reason}. Told: ${body.told}`;
    case 'wheel-end-released':
      return `released ${body.position}${body.overrideReason ? ` in spite of: ${body.overridden.map((o) => describeObjection(wheelEndEver(job, body.position), o, reader)).join('. ')}. Reason: ${body.overrideReason}` : ''}`;
    case 'retorque-recorded': {
      const at = body.distance ?? body.hours;
      return `${body.position}, retorque: ${formatFor(body.torque, reader)} with ${body.tool}${at ? ` at ${formatFor(at, reader)}` : ''}${body.doneBy ? `, done by ${body.doneBy}` : ''}`;
    }
    case 'began-corrected':
      return `${body.position}: the job before this one was corrected, and what it left with it`;
    case 'correction': {
      const was = job.events.find((e) => e.id === body.corrects);
      const what = was ? describeBody(job, was.body, reader) : 'a record';
      if (body.replacement?.kind === 'intake') return `put the intake right: ${body.reason}`;
      return `${body.replacement ? `corrected “${what}” to “${describeBody(job, body.replacement, reader)}”` : `struck out “${what}”`}: ${body.reason}`;
    }
  }
}

/** One event as a line of the record, without its time and person. */
export function describeEvent(job: Job, event: Pick<StoredEvent, 'body'>, reader: Reader): string {
  return describeBody(job, event.body, reader);
}
