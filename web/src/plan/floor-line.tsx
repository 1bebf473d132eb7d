import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { buttonLook } from '../ui/button.tsx';

/** One line that leads to its act. */
export function FloorLine({
  to,
  act,
  head,
  children,
}: {
  to: string;
  act?: string;
  head: string;
  children?: ReactNode;
}) {
  return (
    <li className="border-b border-rule">
      <Link to={to} className="flex min-h-12 items-center justify-between gap-3 py-2 hover:bg-panel">
        <span className="min-w-0">
          <span className="block text-14 font-semibold wall:text-18">{head}</span>
          <span className="block text-13 text-muted wall:text-16">{children}</span>
        </span>
        {act && <span className={`${buttonLook('plain')} shrink-0 text-14!`}>{act}</span>}
      </Link>
    </li>
  );
}
