import { lazy, Suspense } from 'react';
import { usePerson } from '../people/people-api.ts';

const JobPage = lazy(() => import('./job-page.tsx').then((m) => ({ default: m.JobPage })));
const OwnerJobPage = lazy(() =>
  import('../owner/owner-job-page.tsx').then((m) => ({ default: m.OwnerJobPage })),
);

/** A job as the shop works on it, or as its unit's owner looks at it. */
export function AnyJobPage() {
  const role = usePerson()?.role;
  return <Suspense>{role === 'owner-contact' ? <OwnerJobPage /> : <JobPage />}</Suspense>;
}
