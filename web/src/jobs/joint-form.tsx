import { useState } from 'react';
import { oppositeOf } from '@lanternwright/core/axle-plan';
import { BEARING_LIMIT_MM, whichJoint } from '@lanternwright/core/inspection';
import type { StepData } from '@lanternwright/core/procedure';
import { formatQuantity, parseQuantity, quantity } from '@lanternwright/core/quantity';
import { hasKingpin } from '@lanternwright/core/traveller';
import { useAppSelector } from '../store.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { JointView } from '../ui/joint-view.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

type Felt = Extract<StepData, { kind: 'joint' }>['felt'];
const felts: readonly [Felt, string][] = [
  ['nothing', 'Nothing moves'],
  ['twelve-six', 'Moves at 12 and 6'],
  ['three-nine', 'Moves at 3 and 9'],
  ['both', 'Moves both ways'],
];

const suspectWords = {
  kingpin: 'The kingpin moves, the bearing is sound.',
  bearing: 'The bearing is loose, the kingpin is sound.',
  both: 'Kingpin and bearing move.',
  neither: 'Both are within their limits.',
};

const lengthUnits = ['mm', 'in', 'thou', 'um'] as const;

/** Rocking by hand, and the two placements of the indicator that tell kingpin from bearing. */
export function JointForm({ wheelEnd, record }: FormProps<'joint'>) {
  const unit = useAppSelector((s) => s.preferences.unit);
  const [felt, setFelt] = useDraft<Felt | null>('felt', null);
  const [text, setText] = useDraft('text', { axle: '', hub: '', limit: '' });
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const read = (typed: string) => (typed.trim() === '' ? null : parseQuantity(typed, lengthUnits, unit));
  const kingpin = hasKingpin(wheelEnd);
  const [axle, hub, limit] = [kingpin ? read(text.axle) : null, read(text.hub), read(text.limit)];
  const bearingLimit = wheelEnd.sheet.band?.max ?? quantity(BEARING_LIMIT_MM, 'mm');
  const judged =
    kingpin && axle?.ok && hub?.ok && limit?.ok && Math.min(axle.quantity.si, hub.quantity.si) >= 0
      ? whichJoint({
          axleToKnuckleMm: axle.quantity.si * 1000,
          knuckleToHubMm: hub.quantity.si * 1000,
          kingpinLimitMm: limit.quantity.si * 1000,
          bearingLimitMm: bearingLimit.si * 1000,
        })
      : null;
  const errorOf = (r: ReturnType<typeof read>) => (r && !r.ok ? r.message : undefined);
  const save = () => {
    setTried(true);
    const readable = [axle, hub, limit].every((r) => r === null || r.ok);
    if (felt === null || !readable || (!hub && note.trim() === '')) return;
    record({
      kind: 'joint',
      felt,
      ...(axle?.ok ? { axleToKnuckle: axle.quantity } : {}),
      ...(hub?.ok ? { knuckleToHub: hub.quantity, bearingLimit } : {}),
      ...(axle?.ok && limit?.ok ? { kingpinLimit: limit.quantity } : {}),
      ...noted(note),
    });
  };
  const field = (key: keyof typeof text, label: string, hint?: string) => (
    <TextField
      label={`${label}, ${unit}`}
      className="figure"
      inputMode="decimal"
      value={text[key]}
      hint={hint}
      error={errorOf({ axle, hub, limit }[key])}
      onChange={(e) => setText({ ...text, [key]: e.target.value })}
    />
  );
  return (
    <div className="flex flex-col gap-4">
      <div role="group" aria-label="What is felt" className="grid grid-cols-2 gap-3">
        {felts.map(([id, label], i) => (
          <Button
            key={id}
            className={`min-h-16 text-18 ${felt === id ? 'border-lamp-edge !bg-lamp' : ''}`}
            aria-pressed={felt === id}
            autoFocus={i === 0}
            onClick={() => (id === 'nothing' ? record({ kind: 'joint', felt: id }) : setFelt(id))}
          >
            {label}
          </Button>
        ))}
      </div>
      <p className="text-14">
        Then rock {oppositeOf(wheelEnd.position)} in the same lift: what fails on one side is near on the
        other.
      </p>
      {felt !== null && (
        <Form button="Record the movement" onRecord={save}>
          {!kingpin && (
            <p className="text-14">
              No kingpin on this axle: the bearing alone. Its limit is {formatQuantity(bearingLimit)}.
            </p>
          )}
          <div className="grid gap-4 sm:grid-cols-3">
            <div hidden={!kingpin}>
              <JointView
                placement="axle-knuckle"
                title="Kingpin alone"
                words="Base on the axle, tip on the knuckle"
                tone="plain"
              />
              {field('axle', 'Axle to knuckle')}
            </div>
            <div>
              <JointView
                placement="knuckle-hub"
                title="Bearing alone"
                words={
                  kingpin ? 'Base on the knuckle, tip on the hub' : 'Base on the axle end, tip on the hub'
                }
                tone="plain"
              />
              {field('hub', kingpin ? 'Knuckle to hub' : 'Axle end to hub')}
            </div>
            <div>
              <JointView
                placement="same"
                title="Shows nothing"
                words="Base and tip on one solid part"
                tone="grave"
              />
              {kingpin &&
                field(
                  'limit',
                  'Allowed at the kingpin',
                  `From the maker’s sheet; ${unit === 'in' ? '0.010 in' : '0.25 mm'} is recalled`,
                )}
            </div>
          </div>
          {!kingpin && hub?.ok && (
            <p role="status" className="text-18 font-semibold">
              {hub.quantity.si > bearingLimit.si ? 'The bearing is loose.' : 'Within the limit.'}
            </p>
          )}
          {judged && (
            <p role="status" className="text-18 font-semibold">
              {suspectWords[judged.suspect]}
              {judged.bearingShare !== null &&
                ` ${Math.round(judged.bearingShare * 100)} % of the movement is the bearing’s.`}
            </p>
          )}
          <TextField
            label={hub ? 'Note' : 'Why the indicator was not set'}
            value={note}
            error={tried && !hub && note.trim() === '' ? 'Set the indicator, or say why not' : undefined}
            onChange={(e) => setNote(e.target.value)}
          />
        </Form>
      )}
    </div>
  );
}
