import { Link } from 'react-router';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { formatDate } from '../shell/words.ts';

type UnitJob = UnitDetail['jobs'][number];

/** Jobs by the year they were opened in, as they come. */
function byYear(jobs: readonly UnitJob[]): [year: string, jobs: UnitJob[]][] {
  const years = new Map<string, UnitJob[]>();
  for (const job of jobs) {
    const year = job.openedAt.slice(0, 4);
    years.set(year, [...(years.get(year) ?? []), job]);
  }
  return [...years];
}

const paperLink = 'flex min-h-12 shrink-0 items-center px-2 text-13 underline underline-offset-2';

/** Every job of a unit by year, each with the paper that matters: the traveller while it is open, its record after. */
export function UnitJobs({ jobs }: { jobs: readonly UnitJob[] }) {
  return (
    <section>
      <h2 className="pb-1 text-16">Jobs</h2>
      {jobs.length === 0 && <p className="text-13 text-muted">None yet.</p>}
      {byYear(jobs).map(([year, ofYear], i) => (
        <details key={year} open={i === 0} className="border-b border-rule">
          <summary className="min-h-11 py-2.5 text-14 font-semibold">
            {year}{' '}
            <span className="font-normal text-muted">
              {ofYear.length === 1 ? '1 job' : `${ofYear.length} jobs`}
            </span>
          </summary>
          <ul>
            {ofYear.map((j) => (
              <li key={j.id} className="flex items-center justify-between gap-2 border-t border-rule">
                <Link to={`/jobs/${j.id}`} className="block min-w-0 grow py-2 hover:bg-panel">
                  <span className="block text-14">{j.title}</span>
                  <span className="text-12 text-muted">
                    Job {j.number}, {formatDate(j.openedAt)}
                    {j.closedAt ? '' : ', open'}
                  </span>
                </Link>

                <a
                  className={paperLink}
                  href={`/api/exchange/jobs/${j.id}/${j.closedAt ? 'record' : 'traveller'}.pdf`}
                  download
                  aria-label={`${j.closedAt ? 'Service record' : 'Traveller'} of job ${j.number}`}
                >
                  {j.closedAt ? 'Record' : 'Traveller'}
                </a>
              </li>
            ))}
          </ul>
        </details>
      ))}
    </section>
  );
}
