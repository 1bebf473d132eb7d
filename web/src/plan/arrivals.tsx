import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Booked } from '@lanternwright/contract/plan';
import { describeWorks } from '@lanternwright/core/work-plan';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { formatClock } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useSayWhereMutation } from './plan-api.ts';

/** A unit in a lane of which somebody has to say where it is, with what can be said. */
function Asked({
  booked,
  to,
  words,
  error,
  children,
}: {
  booked: Booked;
  to: string;
  words: ReactNode;
  error: unknown;
  children: ReactNode;
}) {
  const able = useMay();
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
      <Link to={to} className="flex min-h-12 min-w-0 grow flex-col justify-center rounded-md hover:bg-side">
        <span className="text-16 font-semibold wall:text-26">{booked.unit.name}</span>
        <span className="text-13 font-semibold text-rust wall:text-18">{words}</span>
      </Link>
      {able('plan-work') && <div className="flex flex-wrap gap-2 wall:hidden">{children}</div>}
      {error !== undefined && <Note tone="trouble">{problemText(error)}</Note>}
    </div>
  );
}

/** What should stand in a bay by now: it is here when somebody says so. */
export function Expected({ booked, move }: { booked: Booked; move: (booked: Booked) => void }) {
  const [sayWhere, { isLoading, error }] = useSayWhereMutation();
  const say = (what: 'come' | 'miss') => void sayWhere({ id: booked.id, seenVersion: booked.version, what });
  const work = booked.job?.title ?? describeWorks(booked.works);
  return (
    <Asked
      {...{ booked, error }}
      to={booked.jobId ? `/jobs/${booked.jobId}` : `/fleet/${booked.unitId}`}
      words={
        <>
          Expected since {formatClock(booked.from)}
          {work && <span className="font-normal text-muted">. {work}</span>}
        </>
      }
    >
      <Button disabled={isLoading} onClick={() => say('come')}>
        It is here
      </Button>
      <Button weight="quiet" disabled={isLoading} onClick={() => say('miss')}>
        It did not come
      </Button>
      <Button weight="quiet" onClick={() => move(booked)}>
        Move
      </Button>
    </Asked>
  );
}

/** Of this unit nobody said that it left its bay, in which another one stands. */
export function NotLeft({ booked }: { booked: Booked }) {
  const [sayWhere, { isLoading, error }] = useSayWhereMutation();
  const leave = () => void sayWhere({ id: booked.id, seenVersion: booked.version, what: 'end' });
  return (
    <Asked
      {...{ booked, error }}
      to={`/fleet/${booked.unitId}`}
      words={`Not marked as left. Booked until ${formatClock(booked.until)}`}
    >
      <Button disabled={isLoading} onClick={leave}>
        {booked.unit.name} has left
      </Button>
    </Asked>
  );
}

/** Units that did not come, each to be booked again. */
export function Missed({ missed, again }: { missed: readonly Booked[]; again: (booked: Booked) => void }) {
  const able = useMay();
  return missed.map((b) => (
    <li key={b.id} className="flex items-center justify-between gap-3 border-b border-rule">
      <Link to={`/fleet/${b.unitId}`} className="min-h-12 min-w-0 grow py-2 hover:bg-panel">
        <span className="block text-14 font-semibold wall:text-18">Did not come: {b.unit.name}</span>
        <span className="block text-13 text-muted wall:text-16">
          {`Was booked for ${formatClock(b.from)}. ${describeWorks(b.works)}`.trim()}
        </span>
      </Link>
      {able('plan-work') && (
        <Button className="shrink-0 text-14! wall:hidden" onClick={() => again(b)}>
          Book again
        </Button>
      )}
    </li>
  ));
}
