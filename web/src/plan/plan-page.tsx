import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { DUE_A_PAGE, type DueUnit } from '@lanternwright/contract/plan';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { mondayOf, describeWorks } from '@lanternwright/core/work-plan';
import { problemText } from '../api.ts';
import { jobLink, promiseLink } from '../jobs/job-link.ts';
import { describeDue } from '../fleet/due-panel.tsx';
import { useOwnersQuery } from '../fleet/fleet-api.ts';
import { useMay } from '../people/people-api.ts';
import { formatClock, formatDate, shopToday } from '../shell/words.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { usePageNumber } from '../shell/use-page-number.ts';
import { Pager } from '../ui/pager.tsx';
import { Note } from '../ui/problem-note.tsx';
import { BookingForm, type Wanted } from './booking-soon.tsx';
import { useAskProposalMutation, useDueQuery, useFloorQuery } from './plan-api.ts';
import { PlanHead } from './plan-head.tsx';
import { UnknownServices } from './unknown-services.tsx';

/** The week that a day is in, as it is named from today. */
function weekOf(day: string | null, today: string): string {
  if (day === null) return 'Last service unknown';
  if (day < today) return 'Overdue';
  const monday = mondayOf(day);
  if (monday === mondayOf(today)) return 'This week';
  return monday === mondayOf(today, 1) ? 'Next week' : `Week of ${formatDate(monday)}`;
}

/** How many visits are saved by doing everything at once that is due within the window. */
function saved({ due }: DueUnit): number {
  return new Set(due.map((d) => d.dueOn)).size - 1;
}

function Row({ row, book }: { row: DueUnit; book: () => void }) {
  const able = useMay();
  const first = row.due[0];
  const visits = row.dueOn === null ? 0 : saved(row);
  return (
    <li className="grid items-center gap-x-4 gap-y-1 border-b border-rule px-5 py-2 md:grid-cols-[220px_1fr_230px_auto]">
      <Link to={`/fleet/${row.unit.id}`} className="min-w-0 rounded-md hover:bg-side">
        <span className="block truncate text-16 font-semibold">{row.unit.name}</span>
        <span className="block truncate text-13 text-muted">
          {unitKinds[row.unit.kind]}, {row.unit.owner.name}
        </span>
      </Link>
      <span className="text-14">
        {describeWorks(row.due)}
        {visits > 0 && <span className="block text-12 text-muted">one visit instead of {visits + 1}</span>}
      </span>
      <span className="text-13 md:text-right">
        {first && (
          <>
            <span className="block font-semibold">{row.dueOn ? formatDate(row.dueOn) : 'unknown'}</span>
            <span className="block text-12 text-muted">{describeDue(first).why}</span>
          </>
        )}
      </span>
      <span className="flex min-w-[164px] items-center justify-end gap-4">
        {row.openJobId ? (
          <Link to={`/jobs/${row.openJobId}`} className="text-14 underline underline-offset-2">
            in a job now
          </Link>
        ) : row.bookedFrom ? (
          <span className="text-14">booked {formatClock(row.bookedFrom)}</span>
        ) : row.dueOn === null ? (
          <Link to={`/fleet/${row.unit.id}`} className="text-14 underline underline-offset-2">
            Enter the date
          </Link>
        ) : (
          <>
            {able('open-jobs') && (
              <Link
                to={jobLink(row.unit.id, row.due)}
                className="inline-flex min-h-12 items-center text-14 underline underline-offset-2"
              >
                Open the job
              </Link>
            )}
            {able('plan-work') && (
              <Link
                to={promiseLink(row.unit.id, row.due)}
                className="inline-flex min-h-12 items-center text-14 underline underline-offset-2"
              >
                Find a time
              </Link>
            )}
            {able('plan-work') && <Button onClick={book}>Book</Button>}
          </>
        )}
      </span>
    </li>
  );
}

const manyUnits = (n: number) => (n === 1 ? 'one unit' : `${n} units`);

/** Why there is nothing on a list: nothing is due only where it is known what was done last, and how often it is wanted. */
function NothingHere({
  state,
  owner,
  withoutIntervals,
  onUnknown,
}: {
  state: 'known' | 'unknown';
  owner: string | undefined;
  withoutIntervals: number;
  onUnknown: () => void;
}) {
  const { data: unknown } = useDueQuery(
    { page: 1, state: 'unknown', owner, within: 60 },
    { skip: state === 'unknown' },
  );
  if (state === 'known' && !unknown) return null;
  const unknownUnits = unknown?.total ?? 0;
  const all =
    state === 'unknown'
      ? 'The last service date of all work is known.'
      : unknownUnits + withoutIntervals === 0
        ? 'Nothing is due.'
        : 'Nothing is known to be due.';
  return (
    <div className="flex flex-col items-start gap-3 px-5 py-8 text-16">
      <p className="text-muted">{all}</p>
      {unknownUnits > 0 && (
        <>
          <p>For {manyUnits(unknownUnits)} the last service is unknown.</p>
          <Button onClick={onUnknown}>Show what is unknown</Button>
        </>
      )}
      {withoutIntervals > 0 && (
        <>
          <p>For {manyUnits(withoutIntervals)} no sheet says how often work is wanted.</p>
          <Link to="/sheets" className={buttonLook('plain')}>
            Set intervals on the sheets
          </Link>
        </>
      )}
    </div>
  );
}

/** Weeks ahead: what is due on which unit, once for all of it, and whether it is booked. */
export function PlanPage() {
  const [params, setParams] = useSearchParams();
  const state = params.get('state') === 'unknown' ? 'unknown' : 'known';
  const owner = params.get('owner') ?? undefined;
  const [page, turnTo] = usePageNumber();
  const { data, error } = useDueQuery({ page, state, owner, within: 60 });
  const { data: owners = [] } = useOwnersQuery();
  const { data: floor } = useFloorQuery();
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const able = useMay();
  const go = useNavigate();
  const [ask, asking] = useAskProposalMutation();
  const propose = async () => {
    const answer = await ask({ kind: 'propose', days: 28, ...(owner ? { owner } : {}) });
    if (!answer.error) await go(`/plan/proposals/${answer.data.id}`);
  };
  const today = shopToday();
  const weeks = new Map<string, DueUnit[]>();
  for (const row of data?.rows ?? []) {
    const week = weekOf(state === 'unknown' ? null : row.dueOn, today);
    weeks.set(week, [...(weeks.get(week) ?? []), row]);
  }
  const set = (next: Record<string, string>) => {
    setParams(
      Object.fromEntries(Object.entries({ state, owner: owner ?? '', ...next }).filter(([, v]) => v)),
    );
  };
  const select = 'min-h-12 rounded-md border border-edge bg-panel px-2 text-14';
  return (
    <main>
      <PlanHead
        note={
          data &&
          [
            `${data.total} units with something ${state === 'known' ? 'due' : 'unknown'}`,
            `${data.overdue} overdue`,
            ...(data.withoutIntervals > 0 ? [`${data.withoutIntervals} without intervals`] : []),
          ].join(', ')
        }
      >
        <div className="flex flex-wrap gap-2" role="group" aria-label="Filter what is due">
          <select
            aria-label="What is known"
            className={select}
            value={state}
            onChange={(e) => set({ state: e.target.value })}
          >
            <option value="known">By the day it is due</option>
            <option value="unknown">Last service unknown</option>
          </select>
          {owners.length > 1 && (
            <select
              aria-label="Owner"
              className={select}
              value={owner ?? ''}
              onChange={(e) => set({ owner: e.target.value })}
            >
              <option value="">All owners</option>
              {owners.map((o) => (
                <option key={o.id} value={o.id}>
                  {o.name}
                </option>
              ))}
            </select>
          )}
        </div>
        {able('plan-work') && (
          <Button weight="main" disabled={asking.isLoading} onClick={() => void propose()}>
            Propose four weeks
          </Button>
        )}
      </PlanHead>
      {(error ?? asking.error) && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error ?? asking.error)}</Note>
        </div>
      )}
      {data && state === 'unknown' && able('add-units') && data.rows.length > 0 && (
        <UnknownServices key={page} rows={data.rows} />
      )}
      {(state === 'known' || !able('add-units') ? [...weeks] : []).map(([week, rows]) => (
        <section key={week} aria-label={week}>
          <h2
            className={`border-b border-rule bg-side px-5 py-2 text-14 ${week === 'Overdue' ? 'text-rust' : ''}`}
          >
            {week}{' '}
            <span className="font-normal text-muted">
              {rows.length === 1 ? '1 unit' : `${rows.length} units`}
            </span>
          </h2>
          <ul>
            {rows.map((row) => (
              <Row
                key={row.unit.id}
                row={row}
                book={() =>
                  setWanted({
                    unit: row.unit,
                    jobId: row.openJobId,
                    works: row.due.map(({ position, work }) => ({ position, work })),
                  })
                }
              />
            ))}
          </ul>
        </section>
      ))}
      {data?.total === 0 && (
        <NothingHere
          {...{ state, owner }}
          withoutIntervals={data.withoutIntervals}
          onUnknown={() => set({ state: 'unknown' })}
        />
      )}
      {data && data.total > 0 && (
        <p className="px-5 py-3 text-14">
          <a
            href={`/api/plan/due.csv?${new URLSearchParams({ state, ...(owner ? { owner } : {}) }).toString()}`}
            className="inline-flex min-h-12 items-center underline underline-offset-2"
          >
            All of it as it is filtered (CSV)
          </a>
        </p>
      )}
      {data && <Pager page={page} more={page * DUE_A_PAGE < data.total} onPage={turnTo} />}
      {wanted && floor && (
        <BookingForm wanted={wanted} people={floor.people} onClose={() => setWanted(null)} />
      )}
    </main>
  );
}
