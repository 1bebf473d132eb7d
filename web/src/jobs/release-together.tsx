import { useState } from 'react';
import { againstRelease, otherSideDue, stepAtHand } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';

/** Releases the whole unit: every wheel end still in work, where nothing stands against any of them. */
export function ReleaseTogether({ open }: { open: OpenJob }) {
  const [refused, setRefused] = useState<string | null>(null);
  const { job, detail } = open;
  const inWork = job.wheelEnds.filter((w) => !w.release);
  const fit = inWork.every(
    (w) => stepAtHand(w) === null && againstRelease(w).length === 0 && otherSideDue(job, w) === null,
  );
  if (inWork.length < 2 || !fit) return null;
  const names = inWork.map((w) => w.position);
  const release = () => {
    for (const position of names) {
      const why = open.send({ kind: 'wheel-end-released', position });
      if (why) return setRefused(why);
    }
  };
  return (
    <div className="flex flex-col gap-2 border-t border-rule pt-3">
      <p className="text-14">
        Nothing blocks the release of {names.slice(0, -1).join(', ')} and {names.at(-1)}: {detail.unit.name}{' '}
        may go.
      </p>
      <div>
        <Button onClick={release}>
          Release {names.slice(0, -1).join(', ')} and {names.at(-1)} together
        </Button>
      </div>
      {refused && <Note tone="trouble">{refused}</Note>}
    </div>
  );
}
