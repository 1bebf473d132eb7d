import { useState } from 'react';
import { oppositeOf } from '@lanternwright/core/axle-plan';
import { v4 as uuid } from 'uuid';
import { problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useJoinJobMutation } from './join-api.ts';
import { nothingWanted, WantedWorks } from './wanted-works.tsx';
import type { RouteFormProps } from './with-reason.tsx';

/** Takes the other side of this axle into the job. It needs the network: its sheet comes from the axle as it is now. */
export function JoinOtherSide({ open, wheelEnd, done }: RouteFormProps) {
  const position = oppositeOf(wheelEnd.position);
  const [wanted, setWanted] = useState(nothingWanted);
  // Sent again after an answer that did not come, it is stored once.
  const [id] = useState(() => uuid());
  const [join, { isLoading, error }] = useJoinJobMutation();
  const { works, alreadyOff, together } = wanted;
  const send = async () => {
    const wheelEndWanted = {
      position,
      works: [...works],
      alreadyOff: [...alreadyOff],
      together,
    };
    const answer = await join({ jobId: open.job.id, id, wheelEnd: wheelEndWanted });
    if (!answer.error) done();
  };
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">Take {position} into this job</h3>
      <p className="text-14 text-muted">
        An axle is worked on in one job. What both sides share is then known on both.
      </p>
      <WantedWorks
        ends={[{ position, stack: wheelEnd.side.stack }]}
        wanted={{ [position]: wanted }}
        onChange={(_, next) => setWanted(next)}
      />
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div className="flex flex-wrap gap-2">
        <Button weight="main" disabled={works.length === 0 || isLoading} onClick={() => void send()}>
          {works.length === 0 ? 'Choose the work' : `Take ${position} into this job`}
        </Button>
        <Button onClick={done}>Leave it</Button>
      </div>
    </section>
  );
}
