import { Check } from 'lucide-react';
import { Link } from 'react-router';
import type { FirstHour } from '@lanternwright/contract/shop';
import { firstHourSteps, type FirstHourStep } from '@lanternwright/contract/shop';
import { Button } from '../ui/button.tsx';

/** What each step is called, where it is done, and what to do there. */
const steps: Record<FirstHourStep, { title: string; to: string; words: string }> = {
  settings: {
    title: 'The shop',
    to: '/settings',
    words: 'Its name as it stands on papers, its clock, its units and when it works. Save them.',
  },
  people: {
    title: 'People',
    to: '/people',
    words: 'Add whoever records work with you. Each gets a code, shown once, and chooses a password with it.',
  },
  bays: { title: 'Bays', to: '/settings', words: 'Name the places where units stand to be worked on.' },
  tools: {
    title: 'Tools',
    to: '/fleet/tools',
    words: 'Torque wrenches, dials and scales, each with its range and how long it is in calibration.',
  },
  units: {
    title: 'Units',
    to: '/fleet/list',
    words:
      'Import the list of your office, or add three units one by one. Check that every axle has its sheet.',
  },
  jobs: { title: 'First job', to: '/fleet', words: 'Open a unit, choose a wheel end, and open a job on it.' },
};
const all = Object.keys(steps) as FirstHourStep[];

interface Props {
  there: FirstHour;
  next: FirstHourStep;
  onHide: () => void;
}

/** What is set up already, what is next and how. */
export function FirstHourSteps({ there, next, onHide }: Props) {
  const { title, to, words } = steps[next];
  const count = firstHourSteps[next];
  return (
    <section
      aria-label="Setting up the shop"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-lamp-edge bg-lamp px-5 py-3"
    >
      <ol className="flex flex-wrap gap-x-4 gap-y-1 text-13">
        {all.map((step, i) => {
          const done = there[step] >= firstHourSteps[step];
          return (
            <li
              key={step}
              aria-current={step === next ? 'step' : undefined}
              className={`flex items-center gap-1 ${step === next ? 'font-semibold' : 'text-muted'}`}
            >
              {done ? <Check size={14} aria-label="done" className="text-pine" /> : `${i + 1}.`}{' '}
              {steps[step].title}
            </li>
          );
        })}
      </ol>
      <p className="min-w-60 grow basis-80 text-14">
        {words}
        {count > 1 && ` ${there[next]} of ${count} so far.`}
      </p>
      <div className="flex gap-2">
        <Link
          to={to}
          className="flex min-h-11 items-center rounded-md bg-action px-4 text-14 font-semibold text-band-ink hover:opacity-90"
        >
          {title}
        </Link>
        <Button weight="quiet" onClick={onHide}>
          Hide
        </Button>
      </div>
    </section>
  );
}
