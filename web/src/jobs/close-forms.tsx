import { useState } from 'react';
import { hubFill, describeSchool, type StepData } from '@lanternwright/core/procedure';
import { formatFor, parseQuantity } from '@lanternwright/core/quantity';
import { TextField } from '../ui/field.tsx';
import { LubricantField, useLubricant } from './lubricant-field.tsx';
import { useDraft } from './use-draft.ts';
import { Choices, Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

/** How the nut is kept from coming loose; the second person looks in a step of their own. */
export function LockForm({ step, record }: FormProps<'lock'>) {
  const [method, setMethod] = useDraft('method', '');
  return (
    <Form button="Record the lock" disabled={method === ''} onRecord={() => record({ kind: 'lock', method })}>
      <Choices
        legend="How it is locked"
        name="method"
        choices={step.methods.map((m) => [m.id, m.label] as const)}
        chosen={method}
        onChoose={setMethod}
      />
    </Form>
  );
}

type Joint = NonNullable<Extract<StepData, { kind: 'fill' }>['joint']>;
const joints: readonly [Joint, string][] = [
  ['gasket', 'Gasket'],
  ['sealant', 'Sealant'],
  ['none', 'Neither: cap tapped on'],
];

/** What went in and what closes it. */
export function FillForm({ step, wheelEnd, record }: FormProps<'fill'>) {
  const reader = useReader();
  const { sheet } = wheelEnd;
  const fill = sheet.lubricant.kind === 'oil' ? hubFill(sheet) : null;
  const { name: lubricant, isOther, field } = useLubricant(sheet.lubricant);
  const [amount, setAmount] = useDraft('amount', '');
  const [joint, setJoint] = useDraft<Joint | ''>('joint', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const read = amount.trim() === '' ? null : parseQuantity(amount, ['mL', 'L', 'qt'], 'mL');
  const against = isOther
    ? `The sheet asks for ${sheet.lubricant.name}: why another, and is the old all out`
    : joint !== '' && sheet.schools.joint !== 'either' && joint !== sheet.schools.joint
      ? `The sheet says ${describeSchool('joint', sheet.schools).toLowerCase()}: why not`
      : null;
  const save = () => {
    setTried(true);
    if ((read && !read.ok) || (against && note.trim() === '')) return;
    record({
      kind: 'fill',
      lubricant,
      ...(read?.ok ? { amount: read.quantity } : {}),
      ...(step.joint && joint !== '' ? { joint } : {}),
      ...noted(note),
    });
  };
  return (
    <Form
      button={step.joint ? 'Filled and closed' : 'Filled'}
      disabled={lubricant === '' || (step.joint === true && joint === '')}
      onRecord={save}
    >
      <LubricantField {...field} />
      {sheet.lubricant.kind === 'oil' && (
        <div className="sm:max-w-1/2">
          <TextField
            label="Poured in, mL (optional)"
            className="figure"
            inputMode="decimal"
            value={amount}
            hint={fill ? `About ${formatFor(fill, reader)} by reckoning; the mark decides` : 'To the mark'}
            error={tried && read && !read.ok ? read.message : undefined}
            onChange={(e) => setAmount(e.target.value)}
          />
        </div>
      )}
      {step.joint && (
        <Choices
          legend={
            sheet.schools.joint === 'either'
              ? 'What closes the cap'
              : `What closes the cap; the sheet says ${describeSchool('joint', sheet.schools).toLowerCase()}`
          }
          name="joint"
          choices={joints}
          chosen={joint}
          onChoose={setJoint}
        />
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
