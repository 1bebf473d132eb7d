import { Link } from 'react-router';
import { FOLLOW_UPS_A_PAGE, type ShopFollowUp } from '@lanternwright/contract/jobs';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { formatDistance, formatHours } from '../shell/words.ts';
import { Pager } from '../ui/pager.tsx';
import { StateMark } from '../ui/state-mark.tsx';
import { DueBy, followUpWords } from './due-by.tsx';
import { useFollowUpsQuery } from './jobs-api.ts';
import { usePageNumber } from '../shell/use-page-number.ts';
import { JobsFrame } from './jobs-frame.tsx';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { useReader } from '../shell/use-reader.ts';

const stands = { overdue: 'Overdue', due: 'Now', early: 'Later' } as const;

/** How far the unit may still go, or how long run, where the follow-up is by a meter that has been read. */
function stillLeft(due: ShopFollowUp, reader: ReaderUnits): string {
  if (due.state === 'overdue') return '';
  if (due.byKm !== null && due.meterKm !== null)
    return `${formatDistance(due.byKm - due.meterKm, reader)} left`;
  return due.byHours !== null && due.meterHours !== null
    ? `${formatHours(due.byHours - due.meterHours)} left`
    : '';
}

function Row({ due }: { due: ShopFollowUp }) {
  const reader = useReader();
  const { unit, position } = due;
  return (
    <li className="border-b border-rule">
      <Link
        to={due.jobId ? `/jobs/${due.jobId}?at=${position}` : `/fleet/${unit.id}?at=${position}`}
        className="grid min-h-14 items-center gap-x-4 gap-y-1 px-5 py-2 hover:bg-side sm:grid-cols-[290px_1fr_290px]"
      >
        <span>
          <span className="block text-16 font-semibold">
            {unit.name}, {position}
          </span>
          <span className="block text-13 text-muted">
            {unitKinds[unit.kind]}, {unit.owner.name}
          </span>
        </span>
        <span className="text-14">
          <span className="flex items-center gap-2 font-semibold">
            {due.kind === 'out-of-service' && <StateMark state="out-of-service" size={16} />}
            {followUpWords[due.kind]}
          </span>
          {due.what}
        </span>
        <span className="flex flex-col sm:items-end">
          <DueBy due={due} />
          <span className="figure text-13 text-muted">{stillLeft(due, reader)}</span>
        </span>
      </Link>
    </li>
  );
}

/** Everything the shop has to look after once a wheel end was released, or was not: overdue first. */
export function FollowUpsPage() {
  const [page, turnTo] = usePageNumber();
  const { data, error } = useFollowUpsQuery({ page });
  return (
    <JobsFrame
      title="Follow up"
      count={data && `${data.total} open, ${data.overdue === 0 ? 'none' : data.overdue} overdue`}
      error={error}
    >
      {data?.total === 0 && (
        <p className="px-5 py-8 text-16 text-muted">
          Nothing to follow up. A release opens the retorque by itself; other things are named there.
        </p>
      )}
      {(['overdue', 'due', 'early'] as const).map((state) => {
        const rows = data?.rows.filter((r) => r.state === state) ?? [];
        if (rows.length === 0) return null;
        return (
          <section key={state} aria-labelledby={state}>
            <h2 id={state} className="px-5 pt-4 pb-1 text-16">
              {stands[state]}
            </h2>
            <ul>
              {rows.map((due) => (
                <Row key={`${due.jobId}${due.position}${due.kind}${due.nth}${due.unit.id}`} due={due} />
              ))}
            </ul>
          </section>
        );
      })}
      {data && <Pager page={page} more={page * FOLLOW_UPS_A_PAGE < data.total} onPage={turnTo} />}
    </JobsFrame>
  );
}
