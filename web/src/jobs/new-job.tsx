import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { axleAt, axleNumber } from '@lanternwright/core/axle-plan';
import { driveActs, driveVerdict, type Symptom } from '@lanternwright/core/inspection';
import { parseQuantity } from '@lanternwright/core/quantity';
import { stackOfSheet } from '@lanternwright/core/procedure';
import { missesOilLevel, worksOf, type Stack } from '@lanternwright/core/stack';
import { describeRouteRefusal, whyNotWorkable } from '@lanternwright/core/traveller';
import { MOST_KM_A_DAY } from '@lanternwright/core/record';
import { problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import type { worksAsked } from './job-link.ts';
import { useOpenJobMutation } from './jobs-api.ts';
import { Choices } from './step-form-parts.tsx';
import { SymptomPicker } from './symptom-picker.tsx';
import { nothingWanted, WantedWorks, type Wanted } from './wanted-works.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit, formatDistance } from '../shell/words.ts';

/** Why a wheel end cannot be put into a new job, or null. */
function whyNot(unit: UnitDetail, position: string): string | null {
  if (unit.wheelEnds.find((w) => w.position === position)?.state === 'working') return 'in an open job';
  const why = whyNotWorkable(axleAt(unit.axles, position)!.sheet, stackAt(unit, position));
  return why && describeRouteRefusal(why);
}

/** How a wheel end is built: as its sheet says, or as its construction usually is. */
function stackAt(unit: UnitDetail, position: string): Stack | null {
  const axle = axleAt(unit.axles, position)!;
  return stackOfSheet(axle.sheet, axle);
}

type StandingAct = 'recovered' | 'looked-at';
const standingActs: readonly (readonly [StandingAct, string])[] = [
  ['recovered', driveActs.recovered],
  ['looked-at', driveActs['looked-at']],
];

/** Chosen wheel ends by axle, front to rear. */
function byAxle(positions: readonly string[]): string[][] {
  const axles = new Map<number, string[]>();
  for (const p of [...positions].sort()) axles.set(axleNumber(p), [...(axles.get(axleNumber(p)) ?? []), p]);
  return [...axles.values()];
}

/** Wheel ends that cannot be chosen, by their reason. */
function reasonsOf(unit: UnitDetail): [string, string[]][] {
  const groups = new Map<string, string[]>();
  for (const { position } of unit.wheelEnds) {
    const why = whyNot(unit, position);
    if (why) groups.set(why, [...(groups.get(why) ?? []), position]);
  }
  return [...groups];
}

/** Oil hubs of a unit whose level this visit would leave unlooked at, though it could. */
function levelsMissed(unit: UnitDetail, wanted: Readonly<Record<string, Wanted>>): string[] {
  return unit.wheelEnds
    .map((w) => w.position)
    .filter((p) => {
      const stack = whyNot(unit, p) === null ? stackAt(unit, p) : null;
      return stack !== null && missesOilLevel(stack, wanted[p]?.works ?? []);
    });
}

function jumped(km: number, since: string): boolean {
  const days = (Date.now() - Date.parse(since)) / 86_400_000;
  return km > MOST_KM_A_DAY * Math.max(1, days);
}

/** What a booking or a due line asks for, as far as these wheel ends have it and no other job works on them. */
function wantedOf(unit: UnitDetail, asked: Asked | null): Record<string, Wanted> {
  const wanted: Record<string, Wanted> = {};
  for (const { position } of unit.wheelEnds) {
    const able = whyNot(unit, position) === null ? worksOf(stackAt(unit, position) ?? []) : [];
    const own = able.filter((w) => asked?.works.some((a) => a.position === position && a.work === w));
    if (own.length > 0) wanted[position] = { ...nothingWanted, works: own };
  }
  return wanted;
}

type Asked = NonNullable<ReturnType<typeof worksAsked>>;

/**
 * Intake: the wheel ends, what was noticed, and the meter. Left and right stay separate records.
 * @param asked what somebody booked or what is due, where the job is opened for that
 */
export function NewJob({
  unit,
  asked,
  onClose,
}: {
  unit: UnitDetail;
  asked: Asked | null;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const [openJob, { isLoading, error }] = useOpenJobMutation();
  const [positions, setPositions] = useState<readonly string[]>(() => Object.keys(wantedOf(unit, asked)));
  const [wanted, setWanted] = useState<Readonly<Record<string, Wanted>>>(() => wantedOf(unit, asked));
  const [title, setTitle] = useState('');
  const [complaint, setComplaint] = useState('');
  const [noticed, setNoticed] = useState<readonly Symptom[]>([]);
  const [reportedBy, setReportedBy] = useState('');
  const [driveAct, setDriveAct] = useState<StandingAct | ''>('');
  const { verdict } = driveVerdict(noticed);
  const [meter, setMeter] = useState('');
  const reader = useReader();
  const inHours = unit.meterKm === null && unit.hours !== null;
  const read =
    meter.trim() === ''
      ? null
      : parseQuantity(meter, inHours ? ['h'] : ['km', 'mi', 'h'], inHours ? 'h' : reader.distance);
  const meterError = whyUnread(read, setMeter);
  const known = inHours ? unit.hours : unit.meterKm;
  const goesBack =
    read?.ok && known !== null && read.quantity.unit !== 'h' && !inHours && read.quantity.si / 1000 < known;
  const jumps =
    read?.ok && unit.meterKm !== null && unit.meterDate !== null && read.quantity.unit !== 'h'
      ? jumped(read.quantity.si / 1000 - unit.meterKm, unit.meterDate)
      : false;
  const reasons = reasonsOf(unit);
  const undecided = positions.find((p) => (wanted[p] ?? nothingWanted).works.length === 0);
  const missed =
    positions.length > 0 && undecided === undefined
      ? levelsMissed(unit, Object.fromEntries(positions.map((p) => [p, wanted[p] ?? nothingWanted])))
      : [];
  const lookAtLevels = () => {
    setPositions([...new Set([...positions, ...missed])]);
    setWanted((all) => {
      const also = missed.map((p) => {
        const own = (positions.includes(p) && all[p]) || nothingWanted;
        return [p, { ...own, works: [...own.works, 'oil-level' as const] }];
      });
      return { ...all, ...(Object.fromEntries(also) as Record<string, Wanted>) };
    });
  };
  const toggle = (p: string) =>
    setPositions(positions.includes(p) ? positions.filter((x) => x !== p) : [...positions, p]);
  const save = async () => {
    if (read && !read.ok) return;
    const meterValue = !read
      ? {}
      : read.quantity.unit === 'h'
        ? { hours: read.quantity }
        : { distance: read.quantity };
    const { data } = await openJob({
      unitId: unit.id,
      title: title.trim() || complaint.trim() || `Hubs ${positions.join(', ')}`,
      complaint,
      reportedBy,
      symptoms: [...noticed],
      meter: meterValue,
      ...(asked?.bookingId ? { bookingId: asked.bookingId } : {}),
      ...(verdict === 'do-not-move'
        ? driveAct === ''
          ? {}
          : { drive: { verdict, done: driveAct } }
        : noticed.length > 0
          ? { drive: { verdict, done: 'driven-in' as const } }
          : {}),
      wheelEnds: positions.map((position) => {
        const { works, alreadyOff, together } = wanted[position] ?? nothingWanted;
        return { position, works: [...works], alreadyOff: [...alreadyOff], together };
      }),
    });
    if (!data) return;
    // Closed first, so that the dialog gives the focus back before the job takes it.
    onClose();
    await navigate(`/jobs/${data.id}`);
  };
  return (
    <Dialog open onClose={onClose} className="relative z-20">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-0 overflow-y-auto p-4">
        <DialogPanel className="mx-auto mt-[4vh] w-full max-w-[640px] rounded-lg border border-edge bg-paper p-5">
          <DialogTitle className="pb-1 text-23">Open a job on {unit.name}</DialogTitle>
          <p className="pb-4 text-13 text-muted">
            Take both sides of an axle together: what failed on one is looked at on the other.
          </p>
          <form
            className="flex flex-col gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              void save();
            }}
          >
            <fieldset>
              <legend className="caption pb-1">Wheel ends to work on</legend>
              <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
                {unit.wheelEnds.map(({ position }) => {
                  const why = whyNot(unit, position);
                  const on = positions.includes(position);
                  return (
                    <label
                      key={position}
                      title={why ?? undefined}
                      className={`flex min-h-12 items-center gap-2 rounded-md border px-3 text-16 ${on ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel'} ${why ? 'opacity-60' : 'cursor-pointer'}`}
                    >
                      <input
                        type="checkbox"
                        className="size-5 accent-pine"
                        checked={on}
                        disabled={why !== null}
                        onChange={() => toggle(position)}
                      />
                      <span className="font-semibold">{position}</span>
                    </label>
                  );
                })}
              </div>
              {reasons.map(([why, at]) => (
                <p key={why} className="pt-1 text-13 text-muted">
                  {at.join(', ')}: {why}
                </p>
              ))}
            </fieldset>
            {byAxle(positions).map((ends) => (
              <WantedWorks
                key={axleNumber(ends[0]!)}
                ends={ends.map((position) => ({ position, stack: stackAt(unit, position) ?? [] }))}
                wanted={wanted}
                onChange={(position, next) => setWanted((all) => ({ ...all, [position]: next }))}
              />
            ))}
            {missed.length > 0 && (
              <div className="flex flex-wrap items-center justify-between gap-2">
                <p className="text-14">
                  Oil hubs: the level at every visit. Not yet looked at: {missed.join(', ')}
                </p>
                <Button onClick={lookAtLevels}>Look at the level there as well</Button>
              </div>
            )}
            <SymptomPicker noticed={noticed} onChange={setNoticed} />
            {verdict === 'do-not-move' && (
              <Choices
                legend="It is not to be moved. What was done"
                name="drive"
                choices={standingActs}
                chosen={driveAct}
                onChoose={setDriveAct}
              />
            )}
            <TextField
              label="What was noticed"
              value={complaint}
              onChange={(e) => setComplaint(e.target.value)}
              placeholder="Seal weep on the inside of the tyre"
            />
            <div className="grid gap-4 sm:grid-cols-2">
              <TextField
                label="Who reported it"
                value={reportedBy}
                onChange={(e) => setReportedBy(e.target.value)}
                placeholder="driver"
              />
              <TextField
                label={inHours ? 'Hours on the meter' : 'Meter'}
                value={meter}
                inputMode="decimal"
                onChange={(e) => setMeter(e.target.value)}
                placeholder={
                  inHours
                    ? `${Math.round(unit.hours ?? 0)} h`
                    : known === null
                      ? `${eitherUnit(reader, 'distance')}, or h`
                      : formatDistance(known, reader)
                }
                error={meterError}
                hint={
                  goesBack
                    ? 'Less than the last reading: look at it once more'
                    : jumps
                      ? 'More than a unit drives in that time: look at it once more'
                      : inHours
                        ? 'Kept with the job'
                        : 'Needed for a retorque by distance'
                }
              />
            </div>
            <TextField
              label="Title of the job"
              value={title}
              onChange={(e) => setTitle(e.target.value)}
              placeholder={complaint || 'Drive axle seals'}
            />
            {error && <Note tone="trouble">{problemText(error)}</Note>}
            <div className="flex flex-wrap gap-3">
              <Button
                type="submit"
                weight="main"
                disabled={
                  positions.length === 0 || undecided !== undefined || isLoading || meterError !== undefined
                }
              >
                {positions.length === 0
                  ? 'Choose a wheel end'
                  : undecided
                    ? `Choose the work on ${undecided}`
                    : `Open the job on ${[...positions].sort().join(', ')}`}
              </Button>
              <Button onClick={onClose}>Not now</Button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
