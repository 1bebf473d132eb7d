import { useState } from 'react';
import { brakeKinds, liningMinimums, type BrakeKind } from '@lanternwright/core/brake';
import type { StepData } from '@lanternwright/core/procedure';
import { formatFor, parseTogether } from '@lanternwright/core/quantity';
import { brakeKindsOf, thinLining } from '@lanternwright/core/traveller';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { useReader } from '../shell/use-reader.ts';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';

const units = ['mm', 'in'] as const;

/** Linings inner and outer against their minimum, and the brake set again. */
export function LiningsForm({ wheelEnd, record }: FormProps<'linings'>) {
  const kinds = brakeKindsOf(wheelEnd) ?? brakeKinds;
  const only = kinds.length === 1 ? kinds[0]! : '';
  const [brake, setBrake] = useDraft<BrakeKind | ''>('brake', only);
  const [inner, setInner] = useDraft('inner', '');
  const [outer, setOuter] = useDraft('outer', '');
  const [isSet, setIsSet] = useDraft<boolean | null>('isSet', null);
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const reader = useReader();
  const reads = parseTogether({ inner, outer }, units, reader.thickness, 'labelled');
  const braked = brake !== '' && brake !== 'none';
  const data: Extract<StepData, { kind: 'linings' }> | null =
    brake === ''
      ? null
      : {
          kind: 'linings',
          brake,
          set: brake === 'none' || isSet === true,
          ...(braked && reads.inner.ok ? { inner: reads.inner.quantity } : {}),
          ...(braked && reads.outer.ok ? { outer: reads.outer.quantity } : {}),
          ...noted(note),
        };
  const thick = (mm: number) => formatFor({ value: Number(mm.toFixed(1)), unit: 'mm' }, reader);
  const thin = data && thinLining(data);
  const wantsNote = thin !== null || isSet === false;
  const save = () => {
    setTried(true);
    if (data === null || (braked && (!reads.inner.ok || !reads.outer.ok || isSet === null))) return;
    if (wantsNote && note.trim() === '') return;
    record(data);
  };
  return (
    <Form button="Record the brake" onRecord={save}>
      {only ? (
        <p className="text-16 font-semibold">{liningMinimums[only].title}</p>
      ) : (
        <Choices
          legend={`Which brake${tried && brake === '' ? ': say which' : ''}`}
          name="brake"
          choices={kinds.map((k) => [k, liningMinimums[k].title] as const)}
          chosen={brake}
          onChoose={setBrake}
        />
      )}
      {braked && (
        <>
          <p className="text-14 text-muted">
            Replace at {thick(liningMinimums[brake].mm)}. {liningMinimums[brake].source}
          </p>
          <div className="grid gap-3 sm:grid-cols-2">
            <TextField
              label={`Inner lining, ${reader.thickness}`}
              className="figure"
              inputMode="decimal"
              autoFocus={only !== ''}
              value={inner}
              error={tried && whyUnread(reads.inner, setInner)}
              onChange={(e) => setInner(e.target.value)}
            />
            <TextField
              label={`Outer lining, ${reader.thickness}`}
              className="figure"
              inputMode="decimal"
              value={outer}
              error={tried && whyUnread(reads.outer, setOuter)}
              onChange={(e) => setOuter(e.target.value)}
            />
          </div>
          <Choices
            legend={`Slides or shoes free, nothing binds${tried && isSet === null ? ': say which' : ''}`}
            name="set"
            choices={[
              ['yes', 'Free'],
              ['no', 'Not free'],
            ]}
            chosen={isSet === null ? '' : isSet ? 'yes' : 'no'}
            onChoose={(id) => setIsSet(id === 'yes')}
          />
        </>
      )}
      {thin && (
        <Note tone="trouble">
          The lining is {thick(thin.mm)}, at or under {thick(thin.leastMm)}. Replace across the axle.
        </Note>
      )}
      <TextField
        label={wantsNote ? 'What is done about it' : 'Note'}
        value={note}
        error={
          tried && wantsNote && note.trim() === '' ? 'Enter what is done. This blocks the release' : undefined
        }
        onChange={(e) => setNote(e.target.value)}
      />
    </Form>
  );
}
