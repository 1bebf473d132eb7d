import type { ReactNode } from 'react';
import { NavLink } from 'react-router';

const parts = [
  ['/plan', 'Due'],
  ['/plan/week', 'Schedule'],
  ['/plan/load', 'Load'],
] as const;

/** The head of every part of the plan: where one is, and what can be done there. */
export function PlanHead({ note, children }: { note?: ReactNode; children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3 border-b border-rule px-5 pt-4">
      <div>
        <h1 className="text-23">Plan</h1>
        <p className="min-h-5 text-13 text-muted">{note}</p>
        <nav aria-label="Parts of the plan" className="-mb-px flex gap-1 pt-2">
          {parts.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              end
              className={({ isActive }) =>
                `flex min-h-12 items-center border-b-2 px-3 text-14 ${isActive ? 'border-lamp-edge font-semibold' : 'border-transparent hover:bg-side'}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
      </div>
      <div className="flex flex-wrap gap-2 pb-3">{children}</div>
    </div>
  );
}
