import { useDeferredValue, useState } from 'react';
import { compared, hubFill, formatHubFill, type Compared } from '@lanternwright/core/procedure';
import { formatFor, parseQuantity, unitDefinition } from '@lanternwright/core/quantity';
import { comparableOf, partTitle } from '@lanternwright/core/route';
import { openParts } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { GreaseChange, useGrease } from './grease-change.tsx';
import { LubricantField, useLubricant } from './lubricant-field.tsx';
import { TextField } from '../ui/field.tsx';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';
import { chipLook } from '../ui/chip-look.ts';
import { useReader } from '../shell/use-reader.ts';

/** What looked wrong as it came apart, picked from the list. */
export function FoundForm({ step, record }: FormProps<'found'>) {
  const [signs, setSigns] = useDraft<readonly string[]>('signs', []);
  const [note, setNote] = useDraft('note', '');
  const toggle = (id: string) =>
    setSigns(signs.includes(id) ? signs.filter((s) => s !== id) : [...signs, id]);
  const nothing = signs.length === 0 && note.trim() === '';
  return (
    <Form
      button={nothing ? 'Nothing looked wrong' : 'Record what looked wrong'}
      onRecord={() => record({ kind: 'found', signs: [...signs], ...noted(note) })}
    >
      <div role="group" aria-label="What looked wrong" className="grid gap-3 sm:grid-cols-2">
        {step.signs.map(({ id, label }) => (
          <Button
            key={id}
            aria-pressed={signs.includes(id)}
            className={`min-h-14 !justify-start ${signs.includes(id) ? 'border-lamp-edge !bg-lamp' : ''}`}
            onClick={() => toggle(id)}
          >
            {label}
          </Button>
        ))}
      </div>
      <TextField label="Something else" value={note} onChange={(e) => setNote(e.target.value)} />
    </Form>
  );
}

/** In what a part can differ: only what it has. */
const differencesOf = (part: string): [Compared, string][] =>
  (Object.entries(compared) as [Compared, string][]).filter(([key]) => comparableOf(part).includes(key));

/** Each new part beside the old one, and in what it differs. */
export function CompareForm({ wheelEnd, record }: FormProps<'compare'>) {
  const parts = openParts(wheelEnd, 'compare');
  const [differs, setDiffers] = useDraft<Partial<Record<string, readonly Compared[]>>>('differs', {});
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const other = parts.filter((p) => (differs[p] ?? []).length > 0);
  const toggle = (part: string, key: Compared) => {
    const now = differs[part] ?? [];
    setDiffers({ ...differs, [part]: now.includes(key) ? now.filter((k) => k !== key) : [...now, key] });
  };
  const save = () => {
    setTried(true);
    if (other.length > 0 && note.trim() === '') return;
    record({
      kind: 'compare',
      parts: parts.map((part) => ({ part, differs: [...(differs[part] ?? [])] })),
      ...noted(note),
    });
  };
  return (
    <Form button={other.length > 0 ? 'Record what differs' : 'Every new part is as the old'} onRecord={save}>
      <p className="text-14 text-muted">Touch what differs. What is not touched is the same.</p>
      <ul>
        {parts.map((part) => (
          <li
            key={part}
            className="grid items-center gap-2 border-b border-rule py-2 lg:grid-cols-[14rem_1fr]"
          >
            <span className="text-16">{partTitle(part)}</span>
            <span role="group" aria-label={partTitle(part)} className="flex flex-wrap gap-1">
              {differencesOf(part).map(([key, label]) => {
                const on = differs[part]?.includes(key) ?? false;
                return (
                  <button
                    key={key}
                    type="button"
                    aria-pressed={on}
                    onClick={() => toggle(part, key)}
                    className={chipLook(on)}
                  >
                    {label}
                  </button>
                );
              })}
            </span>
          </li>
        ))}
      </ul>
      {other.length > 0 && (
        <TextField
          label={`${other.map(partTitle).join(', ')}: not as the old. Why it goes in all the same`}
          value={note}
          error={tried && note.trim() === '' ? 'Enter a reason, or fetch the right one' : undefined}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
    </Form>
  );
}

const packings = [
  ['hand', 'By hand'],
  ['packer', 'With a packer'],
] as const;
const amountUnits = ['g', 'kg', 'mL', 'L', 'lb', 'qt'] as const;

/** How the bearings were packed, with what, and how much the hub takes by reckoning. */
export function PackForm({ step, wheelEnd, record }: FormProps<'pack'>) {
  const reader = useReader();
  const { lubricant, schools } = wheelEnd.sheet;
  const fill = hubFill(wheelEnd.sheet);
  const oil = lubricant.kind === 'oil';
  const { name, isOther: other, field } = useLubricant(lubricant);
  const [by, setBy] = useDraft<'hand' | 'packer' | ''>('by', '');
  const [amount, setAmount] = useDraft('amount', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const read =
    amount.trim() === '' ? null : parseQuantity(amount, amountUnits, fill?.unit === 'mL' ? 'mL' : 'g');
  // Looked up as slowly as the typing lets it.
  const typed = useGrease(useDeferredValue(name), !other || oil);
  const asked = useGrease(lubricant.name, !other || oil);
  const against = other
    ? `The sheet asks for ${lubricant.name}: why another, and is the old all out`
    : !oil && by !== '' && schools.packing !== 'either' && by !== schools.packing
      ? 'Not as the sheet packs it: why'
      : null;
  const save = () => {
    setTried(true);
    if ((read && !read.ok) || name === '' || (against && note.trim() === '')) return;
    const packed = oil ? 'oiled' : by;
    if (packed === '') return;
    record({
      kind: 'pack',
      lubricant: name,
      by: packed,
      ...(read?.ok ? { amount: read.quantity } : {}),
      ...noted(note),
    });
  };
  return (
    <Form
      button={oil ? 'Bearings oiled' : step.id === 'pack-seal' ? 'Seal packed' : 'Bearings packed'}
      disabled={name === '' || (!oil && by === '')}
      onRecord={save}
    >
      {fill && (
        <div className="rounded-lg border border-edge bg-panel p-4">
          <p className="caption">{oil ? 'The hub takes in the end, to the mark' : 'The hub takes'}</p>
          <p className="figure text-26 font-semibold">{formatHubFill(wheelEnd.sheet, reader)}</p>
          <p className="text-12 text-muted">
            {oil
              ? 'Reckoned from bearings and cavity; the mark on the cap decides.'
              : `Bearings wholly, cavity coated to ${wheelEnd.sheet.hub!.cavityFillPercent} %. More of it swells out when hot and reaches the brake.`}
          </p>
        </div>
      )}
      <LubricantField {...field} />
      {other && !oil && <GreaseChange before={asked} after={typed} />}
      {!oil && (
        <Choices
          legend={
            schools.packing === 'either'
              ? 'Packed'
              : `Packed; the sheet says ${schools.packing === 'hand' ? 'by hand' : 'with a packer'}`
          }
          name="packed"
          choices={packings}
          chosen={by}
          onChoose={setBy}
        />
      )}
      {!oil && (
        <div className="sm:max-w-1/2">
          <TextField
            label={`Used, ${unitDefinition('g').label} (optional)`}
            className="figure"
            inputMode="decimal"
            value={amount}
            placeholder={fill ? formatFor(fill, reader) : ''}
            error={tried && read && !read.ok ? read.message : undefined}
            onChange={(e) => setAmount(e.target.value)}
          />
        </div>
      )}
      {against && (
        <TextField
          label={against}
          value={note}
          error={tried && note.trim() === '' ? 'Enter a reason' : undefined}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
    </Form>
  );
}
