import { useState } from 'react';
import {
  formatFor,
  formatQuantity,
  formatTyped,
  parseTogether,
  type Quantity,
  unitDefinition,
  unitFor,
} from '@lanternwright/core/quantity';
import { tighteningSequence, torqueSetting, type TorqueVia } from '@lanternwright/core/torque';
import { torqueFits } from '@lanternwright/core/traveller';
import { describeMark, formatTorque } from '@lanternwright/core/procedure';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { ToolField, useListedTool } from '../tools/tool-field.tsx';
import { TextField } from '../ui/field.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { StudWalk } from '../ui/stud-walk.tsx';
import { useDraft } from './use-draft.ts';
import { Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

const torqueUnits = ['lbf-ft', 'Nm', 'lbf-in'] as const;

const positive = (text: string) => {
  const value = Number(text.trim().replace(',', '.'));
  return Number.isFinite(value) && value > 0 ? value : null;
};

interface ViaText {
  wrench: string;
  adapter: string;
  ratio: string;
  efficiency: string;
}
const straight: ViaText = { wrench: '', adapter: '', ratio: '', efficiency: '90' };

/** What stands between wrench and nut, as far as it was typed; nothing where the wrench is on the nut. */
function readVia({ wrench, adapter, ratio, efficiency }: ViaText): TorqueVia | undefined {
  const [wrenchLengthMm, lengthMm, by, percent] = [wrench, adapter, ratio, efficiency].map(positive);
  const via: TorqueVia = {
    ...(wrenchLengthMm && lengthMm ? { wrenchLengthMm, adapter: { lengthMm, angleDeg: 0 } } : {}),
    ...(by && by >= 1 && percent && percent <= 100
      ? { multiplier: { ratio: by, efficiency: percent / 100 } }
      : {}),
  };
  return via.adapter || via.multiplier ? via : undefined;
}

/** What to set where an adapter or a multiplier stands between wrench and nut. */
function Setting({
  target,
  text,
  onChange,
}: {
  target: Quantity;
  text: ViaText;
  onChange: (text: ViaText) => void;
}) {
  const reader = useReader();
  const set = torqueSetting({ targetNm: target.si, ...readVia(text) });
  const words = formatQuantity({ value: set.settingNm, unit: 'Nm' }, target.unit);
  const field = (key: keyof ViaText, label: string) => (
    <TextField
      label={label}
      className="figure"
      inputMode="decimal"
      value={text[key]}
      onChange={(e) => onChange({ ...text, [key]: e.target.value })}
    />
  );
  return (
    <details className="rounded-lg border border-edge bg-panel px-4 py-3">
      <summary className="min-h-8 text-14">With an adapter or a multiplier</summary>
      <div className="grid gap-3 pt-2 sm:grid-cols-4">
        {field('wrench', 'Wrench, mm')}
        {field('adapter', 'Adapter in line, mm')}
        {field('ratio', 'Multiplier, 1 to')}
        {field('efficiency', 'Its efficiency, %')}
      </div>
      <p className="pt-2 text-16">
        Set <span className="figure font-semibold">{words}</span> for {formatFor(target, reader)} at the nut
      </p>
    </details>
  );
}

/** Studs lit one after another to half and then the whole torque. */
function Studs({ studs, target }: { studs: number; target: Quantity }) {
  const { passes } = tighteningSequence({ studs, stages: [0.5, 1], targetNm: target.si });
  return (
    <div className="rounded-lg border border-edge bg-panel p-4">
      <StudWalk
        studs={studs}
        passes={passes}
        size={230}
        say={(nm) => formatQuantity({ value: nm, unit: 'Nm' }, target.unit)}
      />
    </div>
  );
}

/** Torque with its figure, from the sheet or read off the maker's, and the tool that reached it. */
export function TorqueForm({ step, wheelEnd, record }: FormProps<'torque'>) {
  const reader = useReader();
  const figure = wheelEnd.sheet[step.figure];
  const unit = figure ? unitFor(figure.max, reader) : reader.torque;
  const [torque, setTorque] = useDraft('torque', '');
  const [makers, setMakers] = useDraft('makers', '');
  const [tool, setTool] = useDraft('tool', '');
  const [note, setNote] = useDraft('note', '');
  const [tried, setTried] = useState(false);
  const reads = parseTogether({ torque, makers: figure ? '' : makers }, torqueUnits, unit, 'labelled');
  const [read, asked] = [reads.torque, figure ? null : reads.makers];
  const held = figure ?? (asked?.ok ? { min: asked.quantity, max: asked.quantity } : null);
  const off = read.ok && held !== null && !torqueFits(read.quantity.si, held);
  const [viaText, setViaText] = useDraft('viaText', straight);
  const via = readVia(viaText);
  const target = read.ok && !off ? read.quantity : held?.max;
  const use = {
    kind: 'torque-wrench',
    ...(target ? { settingNm: torqueSetting({ targetNm: target.si, ...via }).settingNm } : {}),
  } as const;
  const { listed, unfit } = useListedTool(tool, use);
  const wrench = useInstruments('TW', `${wheelEnd.position}, ${step.title}`, ({ id, quantity }) => {
    // The wrench says what it was turned to; adapter and multiplier make more of it at the nut.
    const share = torqueSetting({ targetNm: 1, ...via }).settingNm;
    const value = via ? Number((quantity.value / share).toPrecision(4)) : quantity.value;
    setTorque(formatTyped({ value, unit: quantity.unit }));
    setTool(id);
  });
  const save = () => {
    setTried(true);
    if (!read.ok || !held || tool.trim() === '' || unfit || (off && note.trim() === '')) return;
    record({
      kind: 'torque',
      torque: read.quantity,
      tool: tool.trim(),
      rounds: 1,
      ...(listed ? { listed } : {}),
      ...(via ? { via } : {}),
      ...(asked?.ok ? { asked: asked.quantity } : {}),
      ...noted(note),
    });
  };
  return (
    <Form button="Record the torque" onRecord={save}>
      {figure ? (
        <div className="rounded-lg border border-edge bg-panel p-4">
          <p className="caption">Torque to</p>
          <p className="figure text-26 font-semibold">{formatTorque(figure, reader)}</p>
          <p className="text-12 text-muted">{describeMark(figure)}</p>
        </div>
      ) : (
        <TextField
          label={`The maker’s sheet asks for, ${unitDefinition(unit).label}`}
          className="figure"
          inputMode="decimal"
          autoFocus
          value={makers}
          hint="The shop’s sheet has no figure for this one"
          error={tried && whyUnread(asked, setMakers)}
          onChange={(e) => setMakers(e.target.value)}
        />
      )}
      {step.figure === 'wheelTorque' && wheelEnd.sheet.studs && figure && (
        <Studs studs={wheelEnd.sheet.studs} target={figure.max} />
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label={`Reached, ${unitDefinition(unit).label}`}
          inputMode="decimal"
          className="figure"
          autoFocus={figure !== null}
          value={torque}
          onChange={(e) => setTorque(e.target.value)}
          error={tried && whyUnread(read, setTorque)}
        />
      </div>
      <ToolField
        use={use}
        code={tool}
        onChange={setTool}
        error={tried && tool.trim() === '' ? 'Which tool' : undefined}
      />
      <InstrumentLine what="Torque wrench" {...wrench} />
      {held && <Setting target={held.max} text={viaText} onChange={setViaText} />}
      {off && (
        <TextField
          label="The torque is off the sheet’s figure: why"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          error={tried && note.trim() === '' ? 'Say why' : 'It will stand against the release'}
        />
      )}
    </Form>
  );
}
