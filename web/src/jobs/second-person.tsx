import { may } from '@lanternwright/core/access';
import { useState } from 'react';
import { z } from 'zod';
import type { SecondPersonInput } from '@lanternwright/contract/jobs';
import type { Step, StepData } from '@lanternwright/core/procedure';
import { currentRound, progressOf, type WheelEnd } from '@lanternwright/core/traveller';
import { v4 as uuid } from 'uuid';
import { problemText } from '../api.ts';
import { useAppSelector } from '../store.ts';
import { usePeopleWithPinQuery, useSessionQuery } from '../people/people-api.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { PinPad, SHORTEST_PIN } from '../ui/pin-pad.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useSecondPersonMutation } from './jobs-api.ts';
import { useRequestForm } from '../use-request-form.ts';
import type { OpenJob } from './use-job.ts';

/** Who recorded the step that this one looks at, where that is the person at the screen. */
export function ownWork(wheelEnd: WheelEnd, step: Step, personId: string): boolean {
  if (step.kind !== 'inspect' || !step.otherThan) return false;
  return progressOf(wheelEnd).find((p) => p.step.id === step.otherThan)?.record?.by.id === personId;
}

const signSchema = z.object({ login: z.string().trim(), password: z.string() });

/**
 * A second person looks and signs with their own PIN or password at the step. It needs the network: neither is ever
 * kept on a device.
 */
export function SecondPerson({
  open,
  wheelEnd,
  step,
}: {
  open: OpenJob;
  wheelEnd: WheelEnd;
  step: Extract<Step, { kind: 'inspect' }>;
}) {
  const { data: session } = useSessionQuery();
  const [send, { isLoading, error }] = useSecondPersonMutation();
  const { field, handleSubmit, watch } = useRequestForm(signSchema, { login: '', password: '' }, null);
  const { login, password } = watch();
  // What the lock's own record is on its way with must be there first.
  const onItsWay = useAppSelector((s) => s.outbox.waiting.some((w) => w.jobId === open.job.id));
  const wait = isLoading || onItsWay;
  const others = (session?.demoPeople ?? []).filter(
    (p) => p.id !== open.person.id && may(p.role, 'work-on-jobs'),
  );
  const { data: withPin = [] } = usePeopleWithPinQuery();
  const [who, setWho] = useState<string | null>(null);
  const [pin, setPin] = useState('');
  const pinned = withPin.filter((p) => p.id !== open.person.id);
  const chosen = pinned.find((p) => p.id === who);
  const sign = (person: SecondPersonInput['person']) => {
    const data: StepData = { kind: 'inspect', ok: true };
    const { stage, id: stepId } = step;
    const at = { position: wheelEnd.position, stage, stepId, round: currentRound(wheelEnd).number };
    void send({
      jobId: open.job.id,
      id: uuid(),
      seenVersion: open.job.version,
      command: { kind: 'step-recorded', ...at, data },
      person,
    });
  };
  return (
    <div className="flex flex-col gap-4">
      <p className="text-18 font-semibold">{step.question}</p>
      <p className="text-14 text-muted">
        You recorded it yourself. Another person looks and signs here, or does this step signed in.
      </p>
      {pinned.length > 0 && (
        <div role="group" aria-label="Who signs with a PIN" className="flex flex-wrap gap-2">
          {pinned.map((p) => (
            <Button
              key={p.id}
              aria-pressed={p.id === who}
              disabled={wait}
              onClick={() => {
                setWho(p.id === who ? null : p.id);
                setPin('');
              }}
            >
              {p.name}, with a PIN
            </Button>
          ))}
        </div>
      )}
      {chosen && (
        <form
          className="flex max-w-[340px] flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            sign({ personId: chosen.id, pin });
            setPin('');
          }}
        >
          <PinPad pin={pin} onPin={setPin} />
          <Button type="submit" weight="main" disabled={wait || pin.length < SHORTEST_PIN}>
            {chosen.name} looked at it: it is locked
          </Button>
        </form>
      )}
      {chosen ? null : others.length > 0 ? (
        <div role="group" aria-label="Who looks at it" className="flex flex-wrap gap-2">
          {others.map((p) => (
            <Button key={p.id} disabled={wait} className="min-h-14" onClick={() => sign({ demoId: p.id })}>
              {p.name} has looked: locked
            </Button>
          ))}
        </div>
      ) : (
        <form
          className="grid gap-3 sm:grid-cols-[1fr_1fr_auto] sm:items-end"
          onSubmit={(e) => void handleSubmit(sign)(e)}
        >
          <TextField label="Name of the second person" {...field('login')} />
          <TextField label="Their password" type="password" {...field('password')} />
          <Button type="submit" weight="main" disabled={wait || login.trim() === '' || password === ''}>
            Looked at: it is locked
          </Button>
        </form>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </div>
  );
}
