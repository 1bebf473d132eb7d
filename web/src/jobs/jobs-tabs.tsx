import { NavLink } from 'react-router';
import { useFollowUpsQuery } from './jobs-api.ts';

const tab = ({ isActive }: { isActive: boolean }) =>
  `flex min-h-12 items-center rounded-md px-4 text-14 font-semibold ${isActive ? 'bg-action text-band-ink' : 'hover:bg-side'}`;

/** The lists under Jobs. What is overdue is named on its tab until it is done. */
export function JobsTabs() {
  const { data } = useFollowUpsQuery(1);
  return (
    <nav aria-label="Lists of jobs" className="flex flex-wrap gap-1">
      <NavLink to="/jobs" end className={tab}>
        Open
      </NavLink>
      <NavLink to="/jobs/closed" className={tab}>
        Closed
      </NavLink>
      <NavLink to="/jobs/follow-ups" className={tab}>
        Follow up
        {data && data.overdue > 0 && (
          <span className="ml-2 rounded-md bg-rust-wash px-2 text-13 text-rust">{data.overdue} overdue</span>
        )}
      </NavLink>
    </nav>
  );
}
