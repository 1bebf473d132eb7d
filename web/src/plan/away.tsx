import { useState } from 'react';
import type { Floor, ToldAbsence } from '@lanternwright/contract/plan';
import { useMay } from '../people/people-api.ts';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { AwayForm } from './away-form.tsx';
import { useCancelAbsenceMutation } from './plan-api.ts';

interface Props {
  away: readonly ToldAbsence[];
  people: Floor['people'];
}

/** Who and what is away; what is planned meanwhile is mended. */
export function Away({ away, people }: Props) {
  const able = useMay();
  const [asked, setAsked] = useState(false);
  const [cancel] = useCancelAbsenceMutation();
  return (
    <section aria-label="Away" className="flex flex-col gap-3 px-5 py-4">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="text-16">Away</h2>
        {away.length === 0 && <p className="text-14 text-muted">No absences.</p>}
        {able('plan-work') && !asked && (
          <Button className="ml-auto" onClick={() => setAsked(true)}>
            Add an absence
          </Button>
        )}
      </div>
      <ul>
        {away.map((a) => (
          <li
            key={a.id}
            className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 border-b border-rule text-14"
          >
            <span>
              <span className="font-semibold">{a.name}</span>: {a.why}
            </span>
            <span className="flex items-center gap-3 text-13 text-muted">
              {formatTime(a.from)} to {formatTime(a.until)}
              {able('plan-work') && (
                <Button weight="quiet" onClick={() => void cancel({ id: a.id, seenVersion: a.version })}>
                  Take it back
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {asked && <AwayForm people={people} onDone={() => setAsked(false)} />}
    </section>
  );
}
