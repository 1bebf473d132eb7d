import { lazy, Suspense, useState } from 'react';
import { nextStep } from '@lanternwright/contract/shop';
import { useFirstHourQuery } from '../people/people-api.ts';

/** A shop that stands never fetches them. */
const Steps = lazy(() => import('./first-hour-steps.tsx').then((m) => ({ default: m.FirstHourSteps })));

const HIDDEN = 'lanternwright.first-hour';

/** Leads a supervisor of a new shop from step to step until the first job is open; gone for good then. */
export function FirstHour() {
  const [hidden, setHidden] = useState(() => localStorage.getItem(HIDDEN) === 'hidden');
  const [complete, setComplete] = useState(false);
  // A shop that stands is not asked about again at every record.
  const { data } = useFirstHourQuery(undefined, { skip: hidden || complete });
  const next = data && nextStep(data);
  if (next === null && !complete) setComplete(true);
  if (!data || !next || hidden || complete) return null;
  const hide = () => {
    localStorage.setItem(HIDDEN, 'hidden');
    setHidden(true);
  };
  return (
    <Suspense>
      <Steps there={data} next={next} onHide={hide} />
    </Suspense>
  );
}
