import { useState } from 'react';
import {
  sealDepths,
  seatFromTouched,
  seatFaults,
  whyNoSeat,
  whyNotTouched,
  type MeasuredSeat,
  type StepData,
  type TouchedPlaces,
} from '@lanternwright/core/procedure';
import { parseQuantity, valueIn, type Quantity } from '@lanternwright/core/quantity';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { SealPlaces } from '../ui/seal-places.tsx';
import { SealSection } from '../ui/seal-section.tsx';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

type Outside = Extract<StepData, { kind: 'seal' }>['outside'];
const outsides: readonly [Outside, string][] = [
  ['dry', 'Outside dry'],
  ['oiled', 'Outside lightly oiled'],
];
const ways = [
  ['stop', 'Driven to its stop'],
  ['measured', 'Set to a measured depth'],
] as const;

/** What is measured, by the letters of the drawing. */
const places = [
  ['faceToBearing', 'A. Hub face to the inner bearing', 'must'],
  ['journalFrom', 'B. Shoulder to where sound journal begins', 'must'],
  ['journalTo', 'C. Shoulder to where it ends', 'must'],
  ['grooveFrom', 'D. Shoulder to the old groove, optional', 'may'],
  ['grooveTo', 'E. Shoulder to its far edge, optional', 'may'],
  ['lip', 'Seal’s face to its main lip', 'must'],
  ['dustLip', 'Seal’s face to its dust lip, optional', 'may'],
  ['deepest', 'Deepest the bore lets the seal go', 'must'],
] as const;
type Place = (typeof places)[number][0];
const units = ['mm', 'in'] as const;
const empty = Object.fromEntries(places.map(([key]) => [key, ''])) as Record<Place, string>;

/** The measured places, as far as all that must be there can be read. */
function readPlaces(text: Record<Place, string>, unit: 'mm' | 'in') {
  const reads = places.map(([key, , need]) => {
    const typed = text[key].trim();
    const read = typed === '' ? null : parseQuantity(typed, units, unit);
    return { key, read, missing: typed === '' && need === 'must' };
  });
  const whole = reads.every(({ read, missing }) => !missing && read?.ok !== false);
  const found = Object.fromEntries(
    reads.flatMap(({ key, read }) => (read?.ok ? [[key, read.quantity]] : [])),
  );
  const { lip, dustLip, deepest, ...touched } = found as unknown as TouchedPlaces & MeasuredSeat;
  const seal = { lip, deepest, ...(dustLip ? { dustLip } : {}) };
  return {
    reads: new Map(reads.map((r) => [r.key, r])),
    measured: whole ? { touched, seat: seatFromTouched(touched, seal) } : null,
  };
}

const mm = (q: Quantity) => q.si * 1000;

function Depths({
  measured: { touched, seat },
  depth,
  unit,
}: {
  measured: { touched: TouchedPlaces; seat: MeasuredSeat };
  depth: Quantity | null;
  unit: 'mm' | 'in';
}) {
  const wrong = whyNotTouched(touched) ?? whyNoSeat(seat);
  if (wrong) return <Note tone="trouble">{seatFaults[wrong]}</Note>;
  const { ranges, recommendedMm } = sealDepths(seat);
  const say = (value: number) =>
    `${valueIn({ value, unit: 'mm' }, unit).toFixed(unit === 'mm' ? 1 : 3)} ${unit}`;
  return (
    <div className="flex flex-col gap-2" role="status">
      <p className="text-18 font-semibold">
        {recommendedMm === null
          ? 'No depth keeps every lip on sound journal: a sleeve, or a new spindle'
          : `Set it ${say(recommendedMm)} below the hub face`}
      </p>
      {ranges.length > 0 && (
        <p className="text-14 text-muted">
          Clear from {ranges.map((r) => `${say(r.fromMm)} to ${say(r.toMm)}`).join(', ')}
        </p>
      )}
      <SealSection
        journal={{ startMm: mm(seat.journalStart), endMm: mm(seat.journalEnd) }}
        groove={
          seat.grooveStart && seat.grooveEnd
            ? { startMm: mm(seat.grooveStart), endMm: mm(seat.grooveEnd) }
            : null
        }
        lips={[seat.lip, ...(seat.dustLip ? [seat.dustLip] : [])].map((l) => ({
          offsetMm: mm(l),
          marginMm: 1,
        }))}
        ranges={ranges}
        depthMm={depth ? mm(depth) : recommendedMm}
        depth={{ minMm: 0, maxMm: mm(seat.deepest) }}
        say={say}
      />
    </div>
  );
}

/** The seal driven in: to its stop, or to a depth reckoned from the journal as it was measured. */
export function SealForm({ wheelEnd, record }: FormProps<'seal'>) {
  const unit = useReader().length;
  const asked = wheelEnd.sheet.schools.sealOutside;
  const [outside, setOutside] = useDraft<Outside | ''>('outside', '');
  const [way, setWay] = useDraft<'stop' | 'measured' | ''>('way', '');
  const [text, setText] = useDraft('text', empty);
  const [depthText, setDepthText] = useDraft('depthText', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const { reads, measured } = readPlaces(text, unit);
  const depth = parseQuantity(depthText, units, unit);
  const toDepth = way === 'measured';
  const save = () => {
    setTried(true);
    if (outside === '' || (toDepth && (!measured || (!depth.ok && note.trim() === '')))) return;
    record({
      kind: 'seal',
      outside,
      ...(toDepth && depth.ok ? { depth: depth.quantity } : {}),
      ...(toDepth && measured),
      ...noted(note),
    });
  };
  const errorOf = (key: Place) => {
    const { read, missing } = reads.get(key)!;
    if (read && !read.ok) return read.message;
    return tried && missing ? 'Measure it' : undefined;
  };
  return (
    <Form button="Seal is in" disabled={outside === '' || way === ''} onRecord={save}>
      <Choices
        legend={asked === 'either' ? 'As this seal asks' : `The sheet says ${asked}`}
        name="outside"
        choices={outsides}
        chosen={outside}
        onChoose={setOutside}
      />
      <Choices legend="How deep" name="way" choices={ways} chosen={way} onChoose={setWay} />
      {toDepth && (
        <>
          <p className="text-14 text-muted">
            In {unit}, with the hub off: A in the hub, the others on the spindle, from the shoulder of the
            inner bearing inboard. Where the seal then runs is reckoned.
          </p>
          <SealPlaces />
          <div className="grid items-end gap-3 sm:grid-cols-2">
            {places.map(([key, label]) => (
              <TextField
                key={key}
                label={label}
                className="figure"
                inputMode="decimal"
                value={text[key]}
                error={errorOf(key)}
                onChange={(e) => setText({ ...text, [key]: e.target.value })}
              />
            ))}
            <TextField
              label="Seal set at, below the hub face"
              className="figure"
              inputMode="decimal"
              value={depthText}
              error={tried && !depth.ok && note.trim() === '' ? depth.message : undefined}
              onChange={(e) => setDepthText(e.target.value)}
            />
          </div>
          {measured && <Depths {...{ measured, unit }} depth={depth.ok ? depth.quantity : null} />}
        </>
      )}
      <TextField
        label={toDepth ? 'Note, or why it sits elsewhere' : 'Note'}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
    </Form>
  );
}
