import { Link } from 'react-router';
import type { AheadUnit, OwnAhead } from '@lanternwright/contract/estimates';
import { formatMoney } from '@lanternwright/core/cost';
import { stoppedWords } from '@lanternwright/core/traveller';
import { describeWorks } from '@lanternwright/core/work-plan';
import { useOwnAheadQuery } from '../estimates/estimates-api.ts';
import { PageProblem } from '../form-problem.tsx';
import { formatDate, formatTime, shopToday } from '../shell/words.ts';

const row = 'flex min-h-16 items-center justify-between gap-4 py-2 hover:bg-side';

function Asks({ asks }: Pick<OwnAhead, 'asks'>) {
  return (
    <section aria-labelledby="asks">
      <h2 id="asks" className="pb-1 text-18">
        Waiting for your answer
      </h2>
      {asks.length === 0 ? (
        <p className="text-16 text-muted">No estimate is waiting for your answer.</p>
      ) : (
        <ul className="border-y border-lamp-edge bg-lamp">
          {asks.map(({ jobId, number, title, unit, total, writtenAt, until }) => (
            <li key={jobId} className="border-b border-lamp-edge last:border-b-0">
              <Link
                to={`/jobs/${jobId}`}
                className="flex min-h-16 items-center justify-between gap-4 px-3 py-2"
              >
                <span>
                  <span className="block text-16 font-semibold">{unit.name}</span>
                  <span className="block text-14">{title}</span>
                  <span className="block text-13 text-muted">
                    Job {number}, estimate of {formatTime(writtenAt)}
                    {until && `, valid until ${formatDate(until)}`}
                  </span>
                </span>
                <span className="figure text-right text-16 font-semibold whitespace-nowrap">
                  {formatMoney(total.minor, total.currency)}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** How far a job is, in a line. */
function standOf({ stopped, released, wheelEnds, expected }: OwnAhead['inShop'][number]): string {
  if (stopped) return stoppedWords[stopped];
  const done = `${released} of ${wheelEnds} wheel ends released`;
  return expected ? `${done}, planned until ${formatTime(expected)}` : done;
}

function InShop({ jobs }: { jobs: OwnAhead['inShop'] }) {
  if (jobs.length === 0) return null;
  return (
    <section aria-labelledby="in-shop">
      <h2 id="in-shop" className="pb-1 text-18">
        Open jobs
      </h2>
      <ul className="border-t border-rule">
        {jobs.map((job) => (
          <li key={job.jobId} className="border-b border-rule">
            <Link to={`/jobs/${job.jobId}`} className={row}>
              <span>
                <span className="block text-16 font-semibold">{job.unit.name}</span>
                <span className="block text-14">{job.title}</span>
              </span>
              <span
                className={`text-right text-13 ${job.stopped ? 'font-semibold text-rust' : 'text-muted'}`}
              >
                {standOf(job)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function DueRow({
  of: { unit, dueOn, due, bookedFrom, openJobId, hours, total, unpriced },
}: {
  of: AheadUnit;
}) {
  const late = dueOn < shopToday();
  return (
    <li className="border-b border-rule">
      <Link to={openJobId ? `/jobs/${openJobId}` : `/fleet/${unit.id}`} className={row}>
        <span>
          <span className="block text-16 font-semibold">{unit.name}</span>
          <span className="block text-14">{describeWorks(due)}</span>
          <span className={`block text-13 ${late ? 'font-semibold text-rust' : 'text-muted'}`}>
            {late ? `Overdue since ${formatDate(dueOn)}` : `Due ${formatDate(dueOn)}`}
            {openJobId
              ? ', in the shop now'
              : bookedFrom
                ? `, booked for ${formatTime(bookedFrom)}`
                : ', not booked'}
          </span>
        </span>
        <span className="figure text-right text-14 whitespace-nowrap">
          {total && <span className="block text-16">{formatMoney(total.minor, total.currency)}</span>}
          <span className="block text-muted">{hours} h</span>
          {total && unpriced > 0 && (
            <span className="block font-sans text-12 text-muted">without {unpriced} parts</span>
          )}
        </span>
      </Link>
    </li>
  );
}

function DueAhead({ due, dueUnits, until }: Pick<OwnAhead, 'due' | 'dueUnits' | 'until'>) {
  const hours = due.reduce((sum, u) => sum + u.hours, 0);
  const totals = due.flatMap((u) => u.total ?? []);
  const money =
    totals.length > 0
      ? formatMoney(
          totals.reduce((sum, t) => sum + t.minor, 0),
          totals[0]!.currency,
        )
      : null;
  return (
    <section aria-labelledby="due-ahead">
      <h2 id="due-ahead" className="text-18">
        Due until {formatDate(until)}
      </h2>
      {due.length === 0 ? (
        <p className="text-16 text-muted">No work with a known date is due on your units by then.</p>
      ) : (
        <>
          <p className="pb-2 text-14 text-muted">
            {dueUnits > due.length
              ? `The first ${due.length} of ${dueUnits} units. Together about `
              : 'Together about '}
            <span className="figure">{hours} h</span>
            {money && (
              <>
                {' '}
                and <span className="figure">{money}</span>
              </>
            )}
            . This is a forecast from planned hours and list prices. An estimate is made when the unit comes.
          </p>
          <ul className="border-t border-rule">
            {due.map((u) => (
              <DueRow key={u.unit.id} of={u} />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** Where an owner begins: what they are asked, how far their units are, and what comes in the next months. */
export function OverviewPage() {
  const { data, error } = useOwnAheadQuery();
  return (
    <main className="mx-auto flex w-full max-w-[760px] flex-col gap-7 p-5">
      <h1 className="text-23">Your units</h1>
      {error && !data && <PageProblem error={error} />}
      {data && (
        <>
          <Asks asks={data.asks} />
          <InShop jobs={data.inShop} />
          <DueAhead {...data} />
        </>
      )}
    </main>
  );
}
