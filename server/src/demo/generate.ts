import { layouts, type Axle } from '@lanternwright/core/axle-plan';
import { addDays } from '@lanternwright/core/interval';
import { stackOfSheet } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import { newHub, type HubTruth } from '@lanternwright/core/rig';
import { worksOf } from '@lanternwright/core/stack';
import type { Actor, JobOpened, Meter, StoredEvent } from '@lanternwright/core/traveller';
import { demoBill, demoEstimate } from './bills.ts';
import type { Picture } from './pictures.ts';
import { seededRandom, type Random } from './random.ts';
import { complaints, fleetLines, type FleetLine } from './scenario.ts';
import { workJob, type JobPlan } from './work-job.ts';
import { ToolCrib } from './tool-crib.ts';

export interface DemoUnit {
  /** Its visits are the scenario's: nobody remembers any other. */
  isScheduled: boolean;
  id: string;
  owner: string;
  name: string;
  kind: FleetLine['kind'];
  plate: string;
  axles: readonly Axle[];
  meters: { date: string; km: number | null; hours: number | null }[];
}

export interface Demo {
  units: DemoUnit[];
  crib: ToolCrib;
  /** Jobs in the order in which they opened. */
  jobs: { id: string; unitId: string; title: string; openedAt: string; events: StoredEvent[] }[];
  /** Of the last weeks: older ones would only make the start longer. */
  photos: (Picture & { id: string; jobId: string })[];
}

const FOUR_YEARS = 4 * 365;
const PLATE_LETTERS = 'ABCDEFGHJKLMNPRSTVWX';

/**
 * Four years of the invented shop, or fewer days, ending today. The same seed and date give the same shop.
 * @param people demo people; the supervisors release, the technicians work
 * @param options.tell is told how far it is, from 0 to 1
 */
export function generateDemo(
  people: readonly Actor[],
  today: string,
  {
    seed = 620,
    days = FOUR_YEARS,
    tell,
  }: { seed?: number; days?: number; tell?: (share: number) => void } = {},
): Demo {
  const random = seededRandom(seed);
  const crib = new ToolCrib(seededRandom(seed + 1));
  const demo: Demo = { units: [], jobs: [], crib, photos: [] };
  const all = fleetLines.reduce((sum, line) => sum + line.count, 0);
  for (const line of fleetLines) {
    for (let i = 0; i < line.count; i++) {
      addUnit(random, demo, people, { today, days }, line, line.first + i);
      tell?.(demo.units.length / all);
    }
  }
  openTodaysJobs(random, demo, people, today);
  demo.jobs.sort((a, b) => (a.openedAt < b.openedAt ? -1 : 1));
  demo.jobs.forEach(({ events: [opened] }, i) => {
    if (opened?.body.kind === 'job-opened') opened.body.number = i + 1;
  });
  return demo;
}

interface UnitClock {
  km: (day: number) => number | null;
  hours: (day: number) => number | null;
}

function usage(random: Random, line: FleetLine): UnitClock {
  const kmRate = random.between(...line.kmAYear) / 365;
  const hourRate = line.hoursAYear ? random.between(...line.hoursAYear) / 365 : null;
  const start = Math.round(random.between(...line.start));
  return {
    km: (day) => (kmRate === 0 ? null : Math.round(start + kmRate * day)),
    hours: (day) =>
      hourRate === null ? null : Math.round((kmRate === 0 ? start : start / 5) + hourRate * day),
  };
}

function plateOf(random: Random): string {
  const letter = () => random.pick([...PLATE_LETTERS]);
  return `${letter()}${letter()}${letter()} ${random.whole(100, 999)}`;
}

function addUnit(
  random: Random,
  demo: Demo,
  people: readonly Actor[],
  { today, days }: { today: string; days: number },
  line: FleetLine,
  number: number,
): void {
  const layout = layouts.find((l) => l.id === line.layout)!;
  const clock = usage(random, line);
  const firstDay = addDays(today, -days);
  const unit: DemoUnit = {
    id: random.uuid(),
    owner: line.owner,
    name: `${line.name} ${number}`,
    kind: line.kind,
    plate: line.kind === 'implement' || line.kind === 'crawler' ? '' : plateOf(random),
    axles: layout.axles,
    meters: [],
    isScheduled: line.daysAgo !== undefined,
  };
  demo.units.push(unit);
  for (let day = random.whole(0, 50); day <= days; day += 61) {
    unit.meters.push({ date: addDays(firstDay, day), km: clock.km(day), hours: clock.hours(day) });
  }
  unit.meters.push({ date: today, km: clock.km(days), hours: clock.hours(days) });
  layout.axles.forEach((axle, a) => {
    const positions = [`${a + 1}L`, `${a + 1}R`];
    const hubs: Record<string, HubTruth> = Object.fromEntries(
      positions.map((p) => [p, newHub(random, clock.km(0) ?? 0)]),
    );
    for (const day of visitDays(random, line, days, a)) {
      const date = addDays(firstDay, day);
      // A tang recorded as bent that never was, on a trailer now and then: the nut walks until the next visit.
      const forgetsLock = random.next() < 0.02 && axle.role === 'trailer' && axle.sheet.family === 'A';
      addJob(random, demo, people, unit, {
        positions,
        date,
        km: clock.km(day),
        hours: clock.hours(day),
        hubs,
        forgetsLock,
        isRecent: day > days - 40,
        isForSeals: line.daysAgo !== undefined,
      });
    }
  });
}

/** Days of the shop's past on which an axle comes in: by chance, or where the scenario says when. */
function* visitDays(random: Random, line: FleetLine, days: number, axle: number): Generator<number> {
  if (line.daysAgo) {
    if (axle === 0) yield* line.daysAgo.map((ago) => days - ago).filter((day) => day > 0);
    return;
  }
  let day = random.whole(20, line.serviceDays[0]);
  while (day < days - 8) {
    yield day;
    day += random.whole(...line.serviceDays);
  }
}

interface Visit {
  positions: string[];
  date: string;
  km: number | null;
  hours: number | null;
  hubs: Record<string, HubTruth>;
  forgetsLock: boolean;
  /** So fresh that its retorque may still be open. */
  isRecent?: boolean;
  /** It comes for its seals, whatever else there is. */
  isForSeals?: boolean;
  stopAt?: JobPlan['stopAt'];
  doubt?: JobPlan['doubt'];
  startMinutes?: number;
  /** Its owner is asked before it goes on. */
  isEstimated?: boolean;
}

function openingOf(random: Random, unit: DemoUnit, visit: Visit): JobOpened {
  const isForSeals = visit.stopAt !== undefined || visit.isForSeals === true;
  const [complaint, reportedBy, noticed, wanted] = random.pick(
    isForSeals ? complaints.filter(([, , , work]) => work === 'seal') : complaints,
  );
  const meter: Meter = {
    ...(visit.km === null ? {} : { distance: quantity(visit.km, 'km') }),
    ...(visit.hours === null ? {} : { hours: quantity(visit.hours, 'h') }),
  };
  const axle = unit.axles[Number(visit.positions[0]!.slice(0, -1)) - 1]!;
  const stack = [...stackOfSheet(axle.sheet, axle)!];
  const work = (isForSeals ? 'seal' : ([wanted, 'seal'] as const).find((w) => worksOf(stack).includes(w)))!;
  return {
    kind: 'job-opened',
    unitId: unit.id,
    title: `${axle.role === 'steer' ? 'Steer' : axle.role === 'drive' ? 'Drive' : 'Axle'} hubs, ${complaint.toLowerCase()}`,
    complaint,
    reportedBy,
    symptoms: [...noticed],
    meter,
    wheelEnds: visit.positions.map((position) => ({
      position,
      sheet: axle.sheet,
      axle: axle.role,
      route: { rules: 1, stack, works: [work], alreadyOff: [], together: false },
    })),
  };
}

function addJob(random: Random, demo: Demo, people: readonly Actor[], unit: DemoUnit, visit: Visit): void {
  const supervisors = people.filter((p) => p.role === 'supervisor');
  const technicians = people.filter((p) => p.role === 'technician');
  const first = random.whole(0, technicians.length - 1);
  const id = random.uuid();
  const start = new Date(
    Date.parse(`${visit.date}T07:00:00Z`) + (visit.startMinutes ?? random.whole(0, 240)) * 60_000,
  );
  const events = workJob(random, {
    id,
    opening: openingOf(random, unit, visit),
    start,
    km: visit.km ?? 0,
    hubs: visit.hubs,
    technicians: [technicians[first]!, technicians[(first + 1) % technicians.length]!],
    supervisor: random.pick(supervisors),
    forgetsLock: visit.forgetsLock,
    crib: demo.crib,
    retorque: !visit.stopAt && random.next() < (visit.isRecent ? 0.5 : 0.995),
    stopAt: visit.stopAt,
    doubt: visit.doubt,
    storePicture:
      visit.isRecent || visit.stopAt
        ? (photoId, picture) => demo.photos.push({ id: photoId, jobId: id, ...picture })
        : undefined,
  });
  const opening = events[0]!.body as JobOpened;
  const [supervisor] = supervisors;
  const billed = [
    ...events,
    ...(visit.stopAt || visit.isRecent ? [] : [demoBill(events, supervisor!)]),
    ...(visit.isEstimated ? [demoEstimate(events, unit.kind, supervisor!)] : []),
  ];
  demo.jobs.push({
    ...{ id, unitId: unit.id, title: opening.title, openedAt: start.toISOString(), events: billed },
  });
}

interface InTheBay extends Pick<Required<JobPlan>, 'stopAt'> {
  unit: string;
  axle: number;
  doubt?: JobPlan['doubt'];
  isEstimated?: true;
}
/** What stands in the bays this morning, each at another point of its work. */
const inTheBays: readonly InTheBay[] = [
  { unit: 'Tern 418', axle: 2, stopAt: { stage: 'verify' } },
  {
    unit: 'Valley 27',
    axle: 1,
    stopAt: { stage: 'assemble' },
    doubt: {
      component: 'spindle-shoulder',
      seen: 'small-step',
      note: 'A nail just feels it, all the way round',
    },
  },
  { unit: 'Harrow 6', axle: 1, stopAt: { stage: 'adjust', stepId: 'home' } },
  { unit: 'Drift 11', axle: 1, stopAt: { stage: 'wheel-on' } },
  { unit: 'Hollow 64', axle: 3, stopAt: { stage: 'adjust', stepId: 'back-off' }, isEstimated: true },
  { unit: 'Sluice 3', axle: 1, stopAt: { stage: 'ready' } },
];

function openTodaysJobs(random: Random, demo: Demo, people: readonly Actor[], today: string): void {
  inTheBays.forEach(({ unit: name, axle, stopAt, doubt, isEstimated = false }, i) => {
    const unit = demo.units.find((u) => u.name === name);
    if (!unit) throw new Error(`demo: there is no unit ${name}`);
    const { km, hours } = unit.meters.at(-1)!;
    const positions = [`${axle}L`, `${axle}R`];
    const hubs = Object.fromEntries(
      positions.map((p) => [
        p,
        { ...newHub(random, (km ?? 0) - 100_000), setMm: random.between(0.06, 0.11) },
      ]),
    );
    addJob(random, demo, people, unit, {
      positions,
      date: addDays(today, -1),
      km,
      hours,
      hubs,
      forgetsLock: false,
      ...{ stopAt, isEstimated },
      ...(doubt ? { doubt } : {}),
      startMinutes: 20 + i * 45,
    });
  });
}
