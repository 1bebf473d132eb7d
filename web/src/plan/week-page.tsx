import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { Booked } from '@lanternwright/contract/plan';
import { addDays } from '@lanternwright/core/interval';
import { endOfMoved, mondayOf, workSpans } from '@lanternwright/core/work-plan';
import { problemText } from '../api.ts';
import { useMay, useShop } from '../people/people-api.ts';
import { formatClock, formatDate, formatRange, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { Away } from './away.tsx';
import { Calendars } from './calendars.tsx';
import { BookingForm } from './booking-soon.tsx';
import {
  useAbsencesQuery,
  useAskProposalMutation,
  useBookingsQuery,
  useFloorQuery,
  useLockBookingMutation,
  useMoveBookingMutation,
} from './plan-api.ts';
import { PlanHead } from './plan-head.tsx';
import { weekGrid, weekSpan } from './week-grid.ts';
import { WeekLanes } from './week-lanes.tsx';

const SIX_WEEKS_MS = 42 * 86_400_000;

/** The bays of a week by the hour: a booking is dragged, or moved by keyboard, and what is in the way is said. */
export function WeekPage() {
  const [params, setParams] = useSearchParams();
  const today = shopToday();
  const asked = params.get('from') ?? today;
  const monday = mondayOf(
    /^\d{4}-\d\d-\d\d$/.test(asked) && !Number.isNaN(Date.parse(asked)) ? asked : today,
  );
  const span = weekSpan(monday);
  const shop = useShop();
  const able = useMay();
  const go = useNavigate();
  const { data: bookings = [], error } = useBookingsQuery(span);
  const { data: away = [] } = useAbsencesQuery(span);
  const { data: floor } = useFloorQuery();
  const [move, moving] = useMoveBookingMutation();
  const [lock, locking] = useLockBookingMutation();
  const [ask, asking] = useAskProposalMutation();
  const [chosen, setChosen] = useState<Booked | null>(null);
  const [told, setTold] = useState('');
  /** The booking that was moved last, as it stood before. */
  const [was, setWas] = useState<Booked | null>(null);
  if (!shop) return null;
  const grid = weekGrid(monday, shop);
  const now = new Date().toISOString();
  const put = async (booked: Booked, to: { bayId: string; from: string }) => {
    const begin = Date.parse(to.from);
    const first = Math.min(begin, Date.parse(booked.from));
    const hours = workSpans(shop, first, first + SIX_WEEKS_MS);
    const until = endOfMoved(
      hours,
      { from: Date.parse(booked.from), until: Date.parse(booked.until) },
      begin,
    );
    const { people, tools } = booked;
    const answer = await move({
      ...{ id: booked.id, seenVersion: booked.version, people, tools, bayId: to.bayId, from: to.from },
      until: new Date(until).toISOString(),
    });
    setTold(answer.error ? '' : describePlace(booked, to));
    setWas(answer.error ? null : booked);
  };
  const describePlace = ({ unit }: Booked, { bayId, from }: Pick<Booked, 'bayId' | 'from'>) =>
    `${unit.name} is in ${shop.bays.find((b) => b.id === bayId)?.name ?? ''} from ${formatClock(from)}.`;
  /** Puts it back where it stood; what somebody else changed of it since is not undone with it. */
  const putBack = async (booked: Booked) => {
    const { id, version, bayId, people, tools, from, until } = booked;
    const answer = await move({ id, seenVersion: version + 1, bayId, people, tools, from, until });
    setTold(answer.error ? '' : describePlace(booked, booked));
    setWas(null);
  };
  const mend = async () => {
    const answer = await ask({ kind: 'mend' });
    if (!answer.error) await go(`/plan/proposals/${answer.data.id}`);
  };
  const problem = moving.error ?? locking.error ?? asking.error ?? error;
  const week = (count: number) => setParams({ from: addDays(monday, 7 * count) });
  return (
    <main>
      <PlanHead note={`Week of ${formatDate(monday)}, ${bookings.length} booked`}>
        <Button onClick={() => week(-1)}>Previous week</Button>
        <Button disabled={monday === mondayOf(today)} onClick={() => setParams({})}>
          This week
        </Button>
        <Button onClick={() => week(1)}>Next week</Button>
        {able('plan-work') && (
          <Button weight="main" disabled={asking.isLoading} onClick={() => void mend()}>
            Replan
          </Button>
        )}
      </PlanHead>
      <div aria-live="polite" className="flex flex-col gap-2 px-5 empty:hidden">
        {problem && (
          <div className="pt-3">
            <Note tone="trouble">{problemText(problem)}</Note>
          </div>
        )}
        {told && !problem && (
          <div className="pt-3">
            <Note tone="good">
              {told}
              {was && (
                <Button
                  weight="quiet"
                  className="ml-4"
                  disabled={moving.isLoading}
                  onClick={() => void putBack(was)}
                >
                  Undo
                </Button>
              )}
            </Note>
          </div>
        )}
      </div>
      <div className="px-5 pt-3">
        {shop.bays.length === 0 ? (
          <p className="py-6 text-16 text-muted">
            No bays are named yet: the settings of the shop name them.
          </p>
        ) : (
          <WeekLanes
            {...{ grid, bookings, away, now }}
            bays={shop.bays}
            able={able('plan-work')}
            onMove={(booked, to) => void put(booked, to)}
            onOpen={setChosen}
          />
        )}
        <p className="py-2 text-12 text-muted">
          Drag a booking, or press the space bar on it and use the arrows. What has begun stays where it is.
        </p>
      </div>
      {chosen && (
        <div className="px-5">
          <Note tone="plain">
            <p className="pb-2">
              <span className="font-semibold">{chosen.unit.name}</span>, {chosen.unit.owner.name}.{' '}
              {chosen.job?.title ?? 'No open job'}. {formatRange(chosen.from, chosen.until)}
              {chosen.names.length > 0 && `, ${chosen.names.join(', ')}`}.
            </p>
            <div className="flex flex-wrap gap-2">
              <Button
                onClick={() => void go(chosen.jobId ? `/jobs/${chosen.jobId}` : `/fleet/${chosen.unitId}`)}
              >
                {chosen.jobId ? 'Open the job' : 'Open the unit'}
              </Button>
              {able('plan-work') && (
                <Button
                  onClick={() =>
                    void lock({ id: chosen.id, seenVersion: chosen.version, locked: !chosen.locked }).then(
                      () => setChosen(null),
                    )
                  }
                >
                  {chosen.locked ? 'Unlock this booking' : 'Lock this booking'}
                </Button>
              )}
              {able('plan-work') && !chosen.locked && (
                <MoveByForm booked={chosen} onDone={() => setChosen(null)} people={floor?.people ?? []} />
              )}
              <Button weight="quiet" onClick={() => setChosen(null)}>
                Close
              </Button>
            </div>
          </Note>
        </div>
      )}
      <Away away={away} people={floor?.people ?? []} />
      <Calendars people={floor?.people ?? []} />
      <p className="flex flex-wrap gap-x-6 px-5 pb-6 text-14">
        <a
          href={`/api/plan/week/${monday}.pdf`}
          className="flex min-h-12 items-center underline underline-offset-2"
        >
          This week on paper (PDF)
        </a>
        <a
          href={`/api/plan/bookings.csv?from=${span.from}&until=${span.until}`}
          className="flex min-h-12 items-center underline underline-offset-2"
        >
          Its bookings (CSV)
        </a>
      </p>
    </main>
  );
}

function MoveByForm({
  booked,
  people,
  onDone,
}: {
  booked: Booked;
  people: readonly { id: string; name: string }[];
  onDone: () => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Move, or take back</Button>
      {open && (
        <BookingForm
          wanted={{ unit: booked.unit, jobId: booked.jobId, booked }}
          people={people}
          onClose={onDone}
        />
      )}
    </>
  );
}
