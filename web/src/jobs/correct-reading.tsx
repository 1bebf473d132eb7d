import { useState } from 'react';
import { formatTyped, parseTogether } from '@lanternwright/core/quantity';
import type { Reading } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import type { OpenJob } from './use-job.ts';

const units = ['in', 'mm', 'thou', 'um'] as const;

interface Props {
  open: OpenJob;
  position: string;
  reading: Reading;
  onDone: () => void;
}

/** Corrects one cycle with a reason; a supervisor strikes it out as well. What was recorded first stays in the record. */
export function CorrectReading({ open, position, reading, onDone }: Props) {
  const [push, setPush] = useState(formatTyped(reading.push));
  const [pull, setPull] = useState(formatTyped(reading.pull));
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const send = (strike: 'strike' | 'replace') => {
    if (reason.trim() === '') return setError('Enter a reason');
    const { first, second } = parseTogether(
      { first: push, second: pull },
      units,
      reading.push.unit,
      'unlabelled',
    );
    if (!first.ok) return setError(first.message);
    if (!second.ok) return setError(second.message);
    const { round, source, gauge } = reading;
    const named = gauge === undefined ? {} : { gauge };
    const replacement =
      strike === 'strike'
        ? null
        : ({
            kind: 'reading-taken',
            position,
            round,
            push: first.quantity,
            pull: second.quantity,
            source,
            ...named,
          } as const);
    const refused = open.send({
      kind: 'correction',
      corrects: reading.eventId,
      reason: reason.trim(),
      replacement,
    });
    if (refused) setError(refused);
    else onDone();
  };
  return (
    <form
      className="flex flex-col gap-2 pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        send('replace');
      }}
    >
      <TextField
        label="Should be pushed in"
        className="figure"
        value={push}
        onChange={(e) => setPush(e.target.value)}
      />
      <TextField
        label="Should be pulled out"
        className="figure"
        value={pull}
        onChange={(e) => setPull(e.target.value)}
      />
      <TextField
        label="Why it is wrong"
        value={reason}
        error={error}
        autoFocus
        onChange={(e) => setReason(e.target.value)}
      />
      <Button type="submit">Correct this cycle</Button>
      {open.person.role === 'supervisor' && (
        <Button weight="grave" onClick={() => send('strike')}>
          Strike out this cycle
        </Button>
      )}
      <Button weight="quiet" onClick={onDone}>
        Leave it
      </Button>
    </form>
  );
}
