import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { problemText } from '../api.ts';
import { Note } from '../ui/problem-note.tsx';
import { useFollowUpsQuery } from './jobs-api.ts';

const tab = ({ isActive }: { isActive: boolean }) =>
  `flex min-h-12 items-center rounded-md px-4 text-14 font-semibold ${isActive ? 'bg-action text-band-ink' : 'hover:bg-side'}`;

/** The lists under Jobs. What is overdue is named on its tab until it is done. */
function JobsTabs() {
  const { data } = useFollowUpsQuery({ page: 1 });
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

/** A list under Jobs: its title, what it counts, the way to the other lists, and why it could not be fetched. */
export function JobsFrame({
  title,
  count,
  error,
  children,
}: {
  title: string;
  count?: string;
  error: unknown;
  children: ReactNode;
}) {
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-3 border-b border-rule px-5 py-4">
        <div>
          <h1 className="text-23">{title}</h1>
          {count && <p className="text-13 text-muted">{count}</p>}
        </div>
        <JobsTabs />
      </div>
      {error !== undefined && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {children}
    </main>
  );
}
