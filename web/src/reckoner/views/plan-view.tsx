import { useState } from 'react';
import { PlanBars, type PlanBar } from '../../ui/plan-bars.tsx';
import type { ViewProps } from './types.ts';

interface PlanInput {
  bays: { id: string }[];
  people: { id: string }[];
  jobs: { id: string; dueMin: number }[];
}
interface Plan {
  bookings: { job: string; bay: string; person: string; startMin: number; endMin: number }[];
  unplaced: string[];
  cost: number;
  lowerBound: number;
}

function describeQuality({ unplaced, cost, lowerBound }: Plan): string {
  if (unplaced.length > 0) return `No place for ${unplaced.join(', ')} while people work and units are there`;
  if (cost === 0) return 'Every job is done in time';
  if (cost - lowerBound < 1e-6 * cost) return 'Some jobs are late, and no plan is better';
  return `Some jobs are late; the best plan could be at most ${(100 * (1 - lowerBound / cost)).toFixed(1)} % better`;
}

/** Who does what in which bay, over the hours; late jobs stand out. */
export function ShopPlanView({ input, result }: ViewProps<PlanInput, Plan>) {
  const [by, setBy] = useState<'bay' | 'person'>('bay');
  const due = new Map(input.jobs.map((j) => [j.id, j.dueMin]));
  const bars = result.bookings.map((b): PlanBar => {
    const late = Math.max(0, b.endMin - due.get(b.job)!);
    const other = by === 'bay' ? b.person : b.bay;
    return { row: b[by], label: b.job, detail: other, from: b.startMin, to: b.endMin, late };
  });
  const late = bars.filter((b) => b.late > 0).length;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-18">{describeQuality(result)}</h2>
      <p className="text-14 text-muted">
        {result.bookings.length} jobs, {late} late
      </p>
      <div role="group" aria-label="Rows of the plan" className="flex gap-2">
        {(['bay', 'person'] as const).map((row) => (
          <button
            key={row}
            type="button"
            aria-pressed={by === row}
            onClick={() => setBy(row)}
            className={`min-h-10 rounded-md border px-3 text-14 ${by === row ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
          >
            By {row}
          </button>
        ))}
      </div>
      <PlanBars
        label={`Plan by ${by}`}
        rows={(by === 'bay' ? input.bays : input.people).map((r) => r.id)}
        bars={bars}
      />
    </div>
  );
}
