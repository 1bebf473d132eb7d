import { whyNotWithdrawn } from './decide-route.ts';
import { accept, refuse, refuseFor, type DecideContext, type Decision } from './decision.ts';
import type { BodyOf } from './event.ts';
import { isAsFound } from './is-as-found.ts';
import { isClosed, wheelEndAt, type Job, type WheelEnd } from './job.ts';
import { openFindings, type Finding } from './open-findings.ts';
import { refusal, type Refusal } from './refusal.ts';

/** Decides an owner's answer to an estimate: works come off, and a wheel end of which none is left is left out. */
export function ownerAnswered(job: Job, command: BodyOf<'owner-answered'>, { by }: DecideContext): Decision {
  const { estimate, answer } = job.money;
  if (!estimate) return refuse('no-estimate');
  if (by.role === 'owner-contact' && isClosed(job)) return refuse('job-closed');
  if (command.estimate !== undefined && command.estimate !== estimate.eventId)
    return refuse('estimate-newer');
  if (by.role === 'owner-contact' && command.estimate === undefined) return refuse('no-estimate-named');
  if (answer?.by.role === 'owner-contact' && by.role !== 'owner-contact')
    return refuse('owner-answered', { by: answer.by.name });
  if (command.answer === 'defer' && (!command.until || !command.risk)) return refuse('deferred-without-date');
  for (const [i, line] of (command.works ?? []).entries()) {
    const why = whyNotLeftOut(job, command.works!.slice(0, i), line);
    if (why) return refuseFor(why);
  }
  const idle = (w: WheelEnd) => goneFrom(w, command.works ?? []).length === w.plan.works.length;
  return job.wheelEnds.every(idle) ? refuse('nothing-wanted-at-all') : accept(command);
}

/** Works of a wheel end that come off by these answers. */
const goneFrom = (w: WheelEnd, works: readonly AnsweredWork[]) =>
  w.plan.works.filter((work) => works.some((b) => b.position === w.position && b.work === work));

type AnsweredWork = NonNullable<BodyOf<'owner-answered'>['works']>[number];

/** Why a work cannot come off the route by the owner's answer, given those that come off before it; or null. */
function whyNotLeftOut(job: Job, before: readonly AnsweredWork[], line: AnsweredWork): Refusal | null {
  const w = wheelEndAt(job, line.position);
  if (!w) return refusal('no-route-to-shorten', { position: line.position });
  if (line.answer === 'defer' && (!line.until || !line.risk))
    return refusal('work-deferred-without-date', { position: line.position, work: line.work });
  if (!w.plan.works.includes(line.work))
    return refusal('not-wanted', { position: line.position, work: line.work });
  const gone = goneFrom(w, before);
  // What is grave keeps a wheel end in the job whatever its owner says; the shop answers it, or the job ends otherwise.
  if (goneFrom(w, [...before, line]).length === w.plan.works.length) return whyNotOutOfJob(w, ['never']);
  const plan = { ...w.plan, works: w.plan.works.filter((work) => !gone.includes(work)) };
  return whyNotWithdrawn(w, plan, line.work);
}

/** Why a wheel end cannot be left out of its job, or null. @param guards of findings that hold it there */
function whyNotOutOfJob(w: WheelEnd, guards: readonly Finding['guard'][]): Refusal | null {
  const { position } = w;
  if (w.release) return refusal('released', { position });
  if (!isAsFound(w)) return refusal('not-as-it-was', { position });
  const finding = openFindings(w).find((f) => guards.includes(f.guard));
  return finding ? refusal('left-out-with-finding', { position, finding: finding.id }) : null;
}

/** Decides whether a wheel end is left out of its job as it was. */
export function leavingOut(
  job: Job,
  w: WheelEnd,
  command: BodyOf<'wheel-end-left-out'>,
  { by }: DecideContext,
): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'leaving-out' });
  if (job.wheelEnds.length === 1) return refuse('left-out-alone', { position: w.position });
  const why = whyNotOutOfJob(w, ['never', 'supervisor']);
  return why ? refuseFor(why) : accept(command);
}
