import { useState } from 'react';
import { oppositeOf } from '@lanternwright/core/axle-plan';
import {
  BEARING_LIMIT_MM,
  compareRocking,
  tiltMmPerM,
  tipPlaces,
  whichJoint,
  type TipPlace,
} from '@lanternwright/core/inspection';
import type { StepData } from '@lanternwright/core/procedure';
import { formatFor, parseQuantity, parseTogether, quantity } from '@lanternwright/core/quantity';
import { hasKingpin, progressOf, type WheelEnd } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { JointView } from '../ui/joint-view.tsx';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

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

const places = Object.entries(tipPlaces) as [TipPlace, string][];

/** The tilt that was recorded on the other side in this job, mm per metre; null where it was not rocked so. */
function tiltOf(other: WheelEnd | undefined): number | null {
  const data = other && progressOf(other).find((p) => p.record?.data?.kind === 'joint')?.record?.data;
  if (data?.kind !== 'joint' || !data.knuckleToHub || !data.radius) return null;
  return tiltMmPerM({ movementMm: data.knuckleToHub.si * 1000, radiusMm: data.radius.si * 1000 });
}

const comparedWords = {
  more: 'clearly more than',
  alike: 'about as much as',
  less: 'clearly less than',
} as const;

/** A rocking in words: how far it tilts, beside the other side. */
function Tilt({ tilt, position, there }: { tilt: number; position: string; there: number | null }) {
  return (
    <div role="status" className="text-14">
      <p className="text-18 font-semibold">
        It tilts <span className="figure">{tilt.toFixed(1)}</span> mm per metre
        {there !== null &&
          `, ${comparedWords[compareRocking(tilt, there)]} ${position} with ${there.toFixed(1)}`}
        .
      </p>
      <p className="text-muted">
        This is rocking, not end play: it is held against {position}, never against the end-play band.
      </p>
    </div>
  );
}

/** Rocking by hand, and the two placements of the indicator that tell kingpin from bearing. */
export function JointForm({ wheelEnd, record, other }: FormProps<'joint'>) {
  const reader = useReader();
  const unit = reader.length;
  const [felt, setFelt] = useDraft<Felt | null>('felt', null);
  const [text, setText] = useDraft('text', { axle: '', hub: '', limit: '', radius: '' });
  const [tipAt, setTipAt] = useDraft<TipPlace | ''>('tipAt', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const kingpin = hasKingpin(wheelEnd);
  const { radius: radiusText, ...movements } = text;
  const reads = parseTogether(movements, lengthUnits, unit, 'labelled');
  const typed = (key: keyof typeof movements) => (text[key].trim() === '' ? null : reads[key]);
  const [axle, hub, limit] = [kingpin ? typed('axle') : null, typed('hub'), typed('limit')];
  const radius = radiusText.trim() === '' ? null : parseQuantity(radiusText, lengthUnits, unit);
  const tilts = tipAt !== '' && tipAt !== 'hub';
  const tilt =
    tilts && hub?.ok && radius?.ok && radius.quantity.si > 0
      ? tiltMmPerM({ movementMm: hub.quantity.si * 1000, radiusMm: radius.quantity.si * 1000 })
      : null;
  const bearingLimit = wheelEnd.sheet.band?.max ?? quantity(BEARING_LIMIT_MM, 'mm');
  const judged =
    tipAt === 'hub' &&
    kingpin &&
    axle?.ok &&
    hub?.ok &&
    limit?.ok &&
    Math.min(axle.quantity.si, hub.quantity.si) >= 0
      ? whichJoint({
          axleToKnuckleMm: axle.quantity.si * 1000,
          knuckleToHubMm: hub.quantity.si * 1000,
          kingpinLimitMm: limit.quantity.si * 1000,
          bearingLimitMm: bearingLimit.si * 1000,
        })
      : null;
  const save = () => {
    setTried(true);
    const readable = [axle, hub, limit, radius].every((r) => r === null || r.ok);
    if (felt === null || !readable || (!hub && note.trim() === '')) return;
    if (hub && (tipAt === '' || (tilts && tilt === null))) return;
    record({
      kind: 'joint',
      felt,
      ...(axle?.ok ? { axleToKnuckle: axle.quantity } : {}),
      ...(hub?.ok && tipAt !== '' ? { knuckleToHub: hub.quantity, tipAt } : {}),
      ...(hub?.ok && tipAt === 'hub' ? { bearingLimit } : {}),
      ...(hub?.ok && tilts && radius?.ok ? { radius: radius.quantity } : {}),
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
      error={whyUnread({ axle, hub, limit, radius }[key], (t) => setText({ ...text, [key]: t }))}
      onChange={(e) => setText({ ...text, [key]: e.target.value })}
    />
  );
  return (
    <div className="flex flex-col gap-4">
      <div role="group" aria-label="What is felt" className="grid grid-cols-2 gap-3">
        {felts.map(([id, label]) => (
          <Button
            key={id}
            className={`min-h-16 text-18 ${felt === id ? 'border-lamp-edge !bg-lamp' : ''}`}
            aria-pressed={felt === id}
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
              No kingpin on this axle: the bearing alone. Its limit is {formatFor(bearingLimit, reader)}.
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
              {kingpin && field('limit', 'Allowed at the kingpin', 'From the maker’s sheet')}
            </div>
          </div>
          {hub && (
            <div className="flex flex-col gap-3">
              <Choices
                legend="Where the tip stood on the wheel end"
                name="tip"
                choices={places}
                chosen={tipAt}
                onChoose={setTipAt}
              />
              {tried && tipAt === '' && <Note tone="trouble">Choose where the tip stood</Note>}
              {tilts && (
                <div className="max-w-[280px]">
                  {field('radius', 'From the middle of the axle to the tip')}
                  {tried && !radius && (
                    <Note tone="trouble">Measure it: without it nothing can be compared</Note>
                  )}
                </div>
              )}
              {tilt !== null && (
                <Tilt tilt={tilt} position={oppositeOf(wheelEnd.position)} there={tiltOf(other)} />
              )}
            </div>
          )}
          {!kingpin && tipAt === 'hub' && hub?.ok && (
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
