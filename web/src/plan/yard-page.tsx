import { Link } from 'react-router';
import type { JobSummary } from '@lanternwright/contract/jobs';
import type { Booked, Floor } from '@lanternwright/contract/plan';
import { describeWorks } from '@lanternwright/core/work-plan';
import { PageProblem } from '../form-problem.tsx';
import { useShop } from '../people/people-api.ts';
import { formatClock } from '../shell/words.ts';
import { standing, standsSince, waitsFor, withoutBay } from './floor-state.ts';
import { useFloorQuery } from './plan-api.ts';

/** One unit that is here, or that has an open job and stands in no bay. */
interface InYard {
  id: string;
  to: string;
  name: string;
  owner: string;
  where: string;
  since: string | null;
  work: string;
  until: string | null;
  waits: string;
}

/** What the head “Waits for” goes on with. */
function waitsOf(job: JobSummary | undefined): string {
  const words = job ? (waitsFor(job) ?? '').replace(/^waits for /, '') : 'its job to be opened';
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function unitsIn(floor: Floor, now: string, bays: readonly { id: string; name: string }[]): InYard[] {
  const nth = ({ bayId }: Booked) => bays.findIndex((b) => b.id === bayId);
  const bayName = (id: string) => bays.find((b) => b.id === id)?.name ?? 'a bay that is gone';
  const rowOf = (b: Booked, where: string): InYard => {
    const job = floor.jobs.find((j) => j.id === b.jobId);
    return {
      ...{ id: b.id, to: b.jobId ? `/jobs/${b.jobId}` : `/fleet/${b.unitId}`, name: b.unit.name },
      ...{ owner: b.unit.owner.name, where, since: b.cameAt && standsSince(b), until: b.until },
      ...{ work: b.job?.title ?? describeWorks(b.works), waits: waitsOf(job) },
    };
  };
  const here = [...standing(floor, now)].sort((a, b) => nth(a) - nth(b));
  const early = floor.bookings.filter((b) => b.cameAt !== null && b.leftAt === null && b.from > now);
  return [
    ...here.map((b) => rowOf(b, bayName(b.bayId))),
    ...early.map((b) => ({ ...rowOf(b, `Before ${bayName(b.bayId)}`), since: b.cameAt })),
    ...withoutBay(floor, now)
      .filter((j) => early.every((b) => b.unitId !== j.unit.id))
      .map((j) => ({
        ...{ id: j.id, to: `/jobs/${j.id}`, name: j.unit.name, owner: j.unit.owner.name },
        ...{ where: 'No bay', since: null, work: j.title, until: null, waits: waitsOf(j) },
      })),
  ];
}

/** Every unit in the yard: where, since when, for what, until when, and what it waits for. */
export function YardPage() {
  const { data: floor, error } = useFloorQuery(undefined, { pollingInterval: 60_000 });
  const bays = useShop()?.bays ?? [];
  if (error && !floor) return <PageProblem error={error} />;
  if (!floor) return <p className="p-5 text-muted">Opening.</p>;
  const now = new Date().toISOString();
  const rows = unitsIn(floor, now, bays);
  const late = (until: string | null) => until !== null && until < now;
  return (
    <main className="flex flex-col gap-4 p-5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-23">Who is in the yard</h1>
        <p className="text-13 text-muted">
          {rows.length === 1 ? '1 unit' : `${rows.length} units`} that came, or have an open job
        </p>
        <Link to="/floor" className="ml-auto text-13 underline underline-offset-2">
          Floor
        </Link>
      </div>
      {rows.length === 0 && <p className="text-16 text-muted">No unit is here.</p>}
      {rows.length > 0 && (
        <div className="overflow-x-auto">
          <table className="w-full min-w-[760px] text-14">
            <thead>
              <tr className="caption border-b border-rule text-left">
                {['Unit', 'Where', 'Since', 'Work', 'Expected to leave', 'Waits for'].map((head) => (
                  <th key={head} scope="col" className="py-2 pr-4 font-normal">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.id} className="border-b border-rule">
                  <th scope="row" className="text-left font-normal">
                    <Link to={r.to} className="block min-h-12 py-2 pr-4 hover:underline">
                      <span className="block font-semibold">{r.name}</span>
                      <span className="block text-13 text-muted">{r.owner}</span>
                    </Link>
                  </th>
                  <td className="pr-4">{r.where}</td>
                  <td className="figure pr-4">{r.since ? formatClock(r.since) : 'Not said'}</td>
                  <td className="pr-4">{r.work}</td>
                  <td className={`figure pr-4 ${late(r.until) ? 'font-semibold text-rust' : ''}`}>
                    {r.until ? formatClock(r.until) : 'Not said'}
                  </td>
                  <td className="pr-4">{r.waits}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </main>
  );
}
