import type { Stage } from '@lanternwright/core/procedure';
import { useState } from 'react';
import { addDays } from '@lanternwright/core/interval';
import {
  againstRelease,
  lastVerdict,
  describeObjection,
  otherSideDue,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import {
  formatDate,
  formatDistance,
  formatHours,
  formatPlay,
  formatTime,
  shopToday,
} from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { AreaField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StateMark } from '../ui/state-mark.tsx';
import { DraftScope, forgetDrafts, useDraft } from './use-draft.ts';
import { AlsoDueFields, AlsoDueList, type AlsoDue } from './also-due.tsx';
import { Link } from 'react-router';
import { RetorqueForm } from './retorque-form.tsx';
import { ReleaseTogether } from './release-together.tsx';
import { RouteChanges } from './route-changes.tsx';
import { TakeBack } from './strike-out.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  /** Turns to what is recorded in a stage; none where the page shows everything beside it. */
  look?: (stage: Stage) => void;
}

function Released({ open, wheelEnd }: Props) {
  const reader = useReader();
  const release = wheelEnd.release!;
  const { followUp } = release;
  const { retorque } = wheelEnd;
  return (
    <>
      <Note tone={release.overrideReason ? 'trouble' : 'good'}>
        <p className="font-semibold">
          Released by {release.by.name}, {formatTime(release.at)}.
        </p>
        {release.overrideReason && (
          <>
            <p>
              In spite of: {release.overridden.map((o) => describeObjection(wheelEnd, o, reader)).join('. ')}.
            </p>
            <p>Reason: {release.overrideReason}</p>
          </>
        )}
      </Note>
      <AlsoDueList {...{ open, wheelEnd }} />
      {retorque ? (
        <>
          <Note tone="good">
            Retorqued, {formatTime(retorque.at)}, by {retorque.doneBy ?? retorque.by.name}.
          </Note>
          <TakeBack
            {...{ open }}
            eventId={retorque.eventId}
            by={retorque.by.id}
            words="The retorque was not this one"
          />
        </>
      ) : (
        <>
          {wheelEnd.followUpsDone.length === 0 && open.person.role === 'supervisor' && (
            <TakeBack
              {...{ open }}
              eventId={release.eventId}
              by={release.by.id}
              words={`Open ${wheelEnd.position} again`}
              effect={`Strike the release out and open ${wheelEnd.position} again`}
            />
          )}
          {followUp ? (
            <>
              <p className="text-16">
                Retorque due{' '}
                {followUp.byKm !== null && followUp.fromKm !== null
                  ? `between ${formatDistance(followUp.fromKm, reader)} and ${formatDistance(followUp.byKm, reader)}, or `
                  : ''}
                {followUp.byHours !== undefined ? `at ${formatHours(followUp.byHours)} or ` : ''}
                by {formatDate(followUp.byDate)}, whichever comes first.
              </p>
              <RetorqueForm {...{ open, wheelEnd }} />
            </>
          ) : (
            <p className="text-16">The wheel was not off: nothing is torqued again.</p>
          )}
        </>
      )}
    </>
  );
}

const PAIR_DAYS = 30;

/** The pair rule opens a check of the other side by itself; the supervisor may take it away. */
function pairDue({ job }: OpenJob, wheelEnd: WheelEnd): AlsoDue {
  const due = otherSideDue(job, wheelEnd);
  if (!due) return [];
  const byDate = addDays(shopToday(), PAIR_DAYS);
  const what = `${due.parts.join(', ')} failed on ${wheelEnd.position}: look at ${due.position}`;
  return [{ kind: 'other-side', byDate, what }];
}

function ReleaseForm({ open, wheelEnd, look }: Props) {
  const reader = useReader();
  const [reason, setReason] = useDraft('reason', '');
  const [alsoDue, setAlsoDue] = useDraft<AlsoDue>('alsoDue', () => pairDue(open, wheelEnd));
  const [refused, setRefused] = useState<string | null>(null);
  const { position } = wheelEnd;
  const against = againstRelease(wheelEnd);
  const never = against.filter((o) => o.guard === 'never');
  const isSupervisor = open.person.role === 'supervisor';
  const release = () => {
    const override = reason.trim() === '' ? {} : { overrideReason: reason.trim() };
    const later = alsoDue.length === 0 ? {} : { alsoDue };
    const why = open.send({ kind: 'wheel-end-released', position, ...override, ...later });
    setRefused(why);
    if (why === null) forgetDrafts(`${open.job.id}/${position}/release`);
  };
  return (
    <>
      {!look && never.length > 0 ? null : against.length === 0 ? (
        <p className="text-16">Nothing blocks the release of {position}.</p>
      ) : (
        <Note tone="trouble">
          <p className="pb-1 font-semibold">
            {never.length > 0 ? `${position} cannot be released until this is done:` : 'Not fit for release:'}
          </p>
          <ul className="list-disc pl-5">
            {(never.length > 0 ? never : against).map((a) => (
              <li key={describeObjection(wheelEnd, a, reader)}>{describeObjection(wheelEnd, a, reader)}</li>
            ))}
          </ul>
        </Note>
      )}
      {look && (
        <p>
          <Link to={`/jobs/${open.job.id}/release`} className="text-14 underline">
            Everything that was found, set and measured, one wheel end beside the other
          </Link>
        </p>
      )}
      {look && <RouteChanges {...{ open, wheelEnd, look }} />}
      {never.length > 0 ? (
        <Note tone="plain">
          Do what is open, go deeper, or end the job out of service: the unit stays, or leaves without rolling
          on this axle.
        </Note>
      ) : isSupervisor ? (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            release();
          }}
        >
          {against.length > 0 && (
            <AreaField
              label="Your reason to release it in spite of this"
              hint="It stays visible in the record, with your name"
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
          )}
          <AlsoDueFields due={alsoDue} onChange={setAlsoDue} />
          {refused && <Note tone="trouble">{refused}</Note>}
          <div>
            <Button
              type="submit"
              weight={against.length > 0 ? 'grave' : 'main'}
              disabled={against.length > 0 && reason.trim() === ''}
              className="min-h-14 px-6 text-18"
            >
              {against.length > 0 ? `Release ${position} in spite of this` : `Release ${position}`}
            </Button>
          </div>
        </form>
      ) : (
        <Note tone="plain">A supervisor releases {position}. It waits under Jobs with this state.</Note>
      )}
      {isSupervisor && <ReleaseTogether open={open} />}
    </>
  );
}

/** The end of a wheel end's work: what stands against it, the supervisor's release, the retorque. */
export function ReleasePanel({ open, wheelEnd, look }: Props) {
  const unit = useReader().length;
  const verdict = lastVerdict(wheelEnd)?.result;
  return (
    <>
      <div className="flex flex-col gap-1">
        <p className="caption">{wheelEnd.position}, Release</p>
        <h2 className="text-26">
          {wheelEnd.release ? `${wheelEnd.position} is released` : `Release ${wheelEnd.position}`}
        </h2>
        {verdict && (
          <p className="flex items-center gap-2 text-16">
            <StateMark state={verdict.verdict === 'unsure' ? 'repeat' : verdict.verdict} size={18} />
            End play <span className="figure">{formatPlay(verdict.endPlayMm, unit)}</span>
          </p>
        )}
      </div>
      <DraftScope value={`${open.job.id}/${wheelEnd.position}/${wheelEnd.release ? 'released' : 'release'}`}>
        {wheelEnd.release ? (
          <Released {...{ open, wheelEnd }} />
        ) : (
          <ReleaseForm {...{ open, wheelEnd, look }} />
        )}
      </DraftScope>
    </>
  );
}
