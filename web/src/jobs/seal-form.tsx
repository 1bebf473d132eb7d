import { useState } from 'react';
import { sealDepths, whyNoSeat, type MeasuredSeat, type StepData } from '@lanternwright/core/procedure';
import { parseQuantity, valueIn, type Quantity } from '@lanternwright/core/quantity';
import { useAppSelector } from '../store.ts';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { SealSection } from '../ui/seal-section.tsx';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';

type Outside = Extract<StepData, { kind: 'seal' }>['outside'];
const outsides: readonly [Outside, string][] = [
  ['dry', 'Outside dry'],
  ['oiled', 'Outside lightly oiled'],
];
const ways = [
  ['stop', 'Driven to its stop'],
  ['measured', 'Set to a measured depth'],
] as const;

type Place = keyof MeasuredSeat;
const places: readonly [Place, string, 'must' | 'may'][] = [
  ['journalStart', 'Sound journal from', 'must'],
  ['journalEnd', 'to', 'must'],
  ['grooveStart', 'Old groove from', 'may'],
  ['grooveEnd', 'to', 'may'],
  ['lip', 'Main lip, in from the seal’s face', 'must'],
  ['dustLip', 'Dust lip, in from the face', 'may'],
  ['deepest', 'Deepest the bore lets it', 'must'],
];
const units = ['mm', 'in'] as const;
const empty = Object.fromEntries(places.map(([key]) => [key, ''])) as Record<Place, string>;

/** The measured places, as far as all that must be there can be read. */
function readSeat(text: Record<Place, string>, unit: 'mm' | 'in') {
  const reads = places.map(([key, , need]) => {
    const typed = text[key].trim();
    const read = typed === '' ? null : parseQuantity(typed, units, unit);
    return { key, read, missing: typed === '' && need === 'must' };
  });
  const whole = reads.every(({ read, missing }) => !missing && read?.ok !== false);
  const found = reads.flatMap(({ key, read }) => (read?.ok ? [[key, read.quantity] as const] : []));
  const seat = whole ? (Object.fromEntries(found) as unknown as MeasuredSeat) : null;
  return { reads: new Map(reads.map((r) => [r.key, r])), seat };
}

const mm = (q: Quantity) => q.si * 1000;

function Depths({ seat, depth, unit }: { seat: MeasuredSeat; depth: Quantity | null; unit: 'mm' | 'in' }) {
  const wrong = whyNoSeat(seat);
  if (wrong) return <Note tone="trouble">{wrong}</Note>;
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
  const unit = useAppSelector((s) => s.preferences.unit);
  const asked = wheelEnd.sheet.schools.sealOutside;
  const [outside, setOutside] = useDraft<Outside | ''>('outside', asked === 'either' ? '' : asked);
  const [way, setWay] = useDraft<'stop' | 'measured'>('way', 'stop');
  const [text, setText] = useDraft('text', empty);
  const [depthText, setDepthText] = useDraft('depthText', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const { reads, seat } = readSeat(text, unit);
  const depth = parseQuantity(depthText, units, unit);
  const measured = way === 'measured';
  const save = () => {
    setTried(true);
    if (outside === '' || (measured && (!seat || (!depth.ok && note.trim() === '')))) return;
    record({
      kind: 'seal',
      outside,
      ...(measured && depth.ok ? { depth: depth.quantity } : {}),
      ...(measured && seat ? { seat } : {}),
      ...noted(note),
    });
  };
  const errorOf = (key: Place) => {
    const { read, missing } = reads.get(key)!;
    if (read && !read.ok) return read.message;
    return tried && missing ? 'Measure it' : undefined;
  };
  return (
    <Form button="Seal is in" disabled={outside === ''} onRecord={save}>
      <Choices
        legend={asked === 'either' ? 'As this seal asks' : `The sheet says ${asked}`}
        name="outside"
        choices={outsides}
        chosen={outside}
        onChoose={setOutside}
        focus="first"
      />
      <Choices legend="How deep" name="way" choices={ways} chosen={way} onChoose={setWay} />
      {measured && (
        <>
          <p className="text-14 text-muted">
            Places in {unit} from the hub face, inward. The groove stays empty where there is none.
          </p>
          <div className="grid gap-3 sm:grid-cols-4">
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
              label="Seal set at"
              className="figure"
              inputMode="decimal"
              value={depthText}
              error={tried && !depth.ok && note.trim() === '' ? depth.message : undefined}
              onChange={(e) => setDepthText(e.target.value)}
            />
          </div>
          {seat && <Depths seat={seat} depth={depth.ok ? depth.quantity : null} unit={unit} />}
        </>
      )}
      <TextField
        label={measured ? 'Note, or why it sits elsewhere' : 'Note'}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
    </Form>
  );
}
