import { useState } from 'react';
import { formatTurn } from '@lanternwright/core/nut';
import type { Step, StepData } from '@lanternwright/core/procedure';
import { currentRound, type WheelEnd } from '@lanternwright/core/traveller';
import { describeMark, offered } from '@lanternwright/core/procedure';
import { typedNumber } from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { NutView } from '../ui/nut-view.tsx';
import { useDraft } from './use-draft.ts';
import { CompareForm, FoundForm, PackForm } from './bench-forms.tsx';
import { FillForm, LockForm } from './close-forms.tsx';
import { HeatForm } from './heat-form.tsx';
import { JointForm } from './joint-form.tsx';
import { JudgeForm } from './judge-form.tsx';
import { LiningsForm } from './linings-form.tsx';
import { ReadyForm } from './ready-form.tsx';
import { SealForm } from './seal-form.tsx';
import { Form, noted, OptionalNote, type FormProps, type Of } from './step-form-parts.tsx';
import { TorqueForm } from './torque-form.tsx';
import { StrokeForm, WearForm } from './brake-forms.tsx';
import { RollingForm, ShimsForm } from './preload-forms.tsx';
import { SensorForm } from './sensor-form.tsx';
import { CureForm, DimensionForm } from './dimension-form.tsx';

function PlainForm({ step, record }: FormProps<'instruct' | 'rotate'>) {
  const [note, setNote] = useDraft('note', '');
  const done =
    step.kind === 'rotate'
      ? step.turns === 1
        ? 'Turned one full turn or more'
        : `Turned ${step.turns} times or more`
      : 'Done';
  return (
    <div className="flex flex-col gap-3">
      <Form button={done} onRecord={() => record({ kind: step.kind, ...noted(note) })} />
      <OptionalNote note={note} set={setNote} />
    </div>
  );
}

function TurnForm({ step, wheelEnd, record }: FormProps<'turn'>) {
  const planned = currentRound(wheelEnd).turns ?? 0;
  const turns =
    step.turns === 'planned'
      ? planned
      : step.turns === 'back-off'
        ? wheelEnd.sheet.backOff!.turns
        : step.turns;
  const degrees = Math.abs(turns * 360).toFixed(0);
  const words = `${turns < 0 ? 'Back off' : 'Tighten'} ${formatTurn(turns)}`;
  const [made, setMade] = useDraft('made', '');
  const [tried, setTried] = useState(false);
  const typed = typedNumber(made);
  const wrong = made.trim() !== '' && !(Number.isFinite(typed) && typed > 0 && typed <= 1800);
  const save = () => {
    setTried(true);
    if (wrong) return;
    const asMade = made.trim() === '' ? turns : (Math.sign(turns) * typed) / 360;
    record({ kind: 'turn', turns: asMade, planned: turns });
  };
  return (
    <Form
      button={
        made.trim() === ''
          ? `${turns < 0 ? 'Backed off' : 'Tightened'} ${formatTurn(turns)}`
          : `${turns < 0 ? 'Backed off' : 'Tightened'} ${made.trim()}°`
      }
      onRecord={save}
    >
      <div className="flex flex-wrap items-center gap-5 rounded-lg border border-edge bg-panel p-4">
        <NutView
          lock={wheelEnd.sheet.lock!}
          turns={turns}
          size={150}
          label={`${words}, ${degrees} degrees`}
        />
        <div>
          <p className="text-23 font-semibold">{words}</p>
          <p className="figure text-18">{degrees}°</p>
          {step.turns === 'back-off' && (
            <p className="max-w-[40ch] pt-1 text-13 text-muted">{describeMark(wheelEnd.sheet.backOff!)}</p>
          )}
        </div>
      </div>
      <div className="max-w-60">
        <TextField
          label="Turned otherwise, degrees (optional)"
          className="figure"
          inputMode="decimal"
          value={made}
          error={tried && wrong ? 'Degrees, as 60' : undefined}
          onChange={(e) => setMade(e.target.value)}
        />
      </div>
    </Form>
  );
}

function InspectForm({ step, record }: FormProps<'inspect'>) {
  const [found, setFound] = useDraft('found', false);
  const [note, setNote] = useDraft('note', '');
  return (
    <div className="flex flex-col gap-4">
      <p className="text-18 font-semibold">{step.question}</p>
      <div className="flex flex-wrap gap-3">
        <Button
          weight="main"
          className="min-h-14 min-w-28 text-18"
          onClick={() => record({ kind: 'inspect', ok: true })}
        >
          Yes
        </Button>
        <Button
          weight="grave"
          className="min-h-14 min-w-28 text-18"
          aria-expanded={found}
          onClick={() => setFound(true)}
        >
          No
        </Button>
      </div>
      {found && (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (note.trim()) record({ kind: 'inspect', ok: false, note: note.trim() });
          }}
        >
          <TextField
            label="What was found"
            value={note}
            autoFocus
            onChange={(e) => setNote(e.target.value)}
            hint="This blocks the release until it is put right"
          />
          <div>
            <Button type="submit" weight="grave" disabled={note.trim() === ''}>
              Record what was found
            </Button>
          </div>
        </form>
      )}
    </div>
  );
}

function ChooseForm({ step, record }: FormProps<'choose'>) {
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      {offered(step.options).map((o) => (
        <Button
          key={o.id}
          className="min-h-16 text-18"
          onClick={() => record({ kind: 'choose', option: o.id })}
        >
          {o.label}
        </Button>
      ))}
    </div>
  );
}

/** The form for a kind of step. Measuring has a panel of its own. */
export function StepForm({
  step,
  wheelEnd,
  other,
  record,
}: {
  step: Exclude<Step, Of<'measure'>>;
  wheelEnd: WheelEnd;
  other?: WheelEnd;
  record: (data: StepData) => void;
}) {
  switch (step.kind) {
    case 'instruct':
    case 'rotate':
      return <PlainForm {...{ step, wheelEnd, record }} />;
    case 'torque':
      return <TorqueForm {...{ step, wheelEnd, other, record }} />;
    case 'turn':
      return <TurnForm {...{ step, wheelEnd, record }} />;
    case 'joint':
      return <JointForm {...{ step, wheelEnd, other, record }} />;
    case 'ready':
      return <ReadyForm {...{ step, wheelEnd, record }} />;
    case 'judge':
      return <JudgeForm {...{ step, wheelEnd, record }} />;
    case 'heat':
      return <HeatForm {...{ step, wheelEnd, record }} />;
    case 'linings':
      return <LiningsForm {...{ step, wheelEnd, record }} />;
    case 'wear':
      return <WearForm {...{ step, wheelEnd, record }} />;
    case 'stroke':
      return <StrokeForm {...{ step, wheelEnd, record }} />;
    case 'rolling':
      return <RollingForm {...{ step, wheelEnd, record }} />;
    case 'sensor':
      return <SensorForm {...{ step, wheelEnd, record }} />;
    case 'shims':
      return <ShimsForm {...{ step, wheelEnd, record }} />;
    case 'inspect':
      return <InspectForm {...{ step, wheelEnd, record }} />;
    case 'choose':
      return <ChooseForm {...{ step, wheelEnd, record }} />;
    case 'lock':
      return <LockForm {...{ step, wheelEnd, record }} />;
    case 'fill':
      return <FillForm {...{ step, wheelEnd, record }} />;
    case 'found':
      return <FoundForm {...{ step, wheelEnd, record }} />;
    case 'compare':
      return <CompareForm {...{ step, wheelEnd, record }} />;
    case 'seal':
      return <SealForm {...{ step, wheelEnd, record }} />;
    case 'pack':
      return <PackForm {...{ step, wheelEnd, record }} />;
    case 'dimension':
      return <DimensionForm {...{ step, wheelEnd, record }} />;
    case 'cure':
      return <CureForm {...{ step, wheelEnd, record }} />;
  }
}
