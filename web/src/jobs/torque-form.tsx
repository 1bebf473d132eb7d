import { useState } from 'react';
import { formatQuantity, parseQuantity, unitDefinition, type Quantity } from '@lanternwright/core/quantity';
import { tighteningSequence, torqueSetting } from '@lanternwright/core/torque';
import { torqueFits } from '@lanternwright/core/traveller';
import { sayMark, sayTorque } from '@lanternwright/core/procedure';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { useAppSelector } from '../store.ts';
import { TextField } from '../ui/field.tsx';
import { StudWalk } from '../ui/stud-walk.tsx';
import { Form, noted, type FormProps } from './step-form-parts.tsx';

const TOOL = 'lanternwright.tool.';
const torqueUnits = ['lbf-ft', 'Nm', 'lbf-in'] as const;

const positive = (text: string) => {
  const value = Number(text.trim().replace(',', '.'));
  return Number.isFinite(value) && value > 0 ? value : null;
};

/** What to set where an adapter or a multiplier stands between wrench and nut. */
function Setting({ target }: { target: Quantity }) {
  const [wrench, setWrench] = useState('500');
  const [adapter, setAdapter] = useState('');
  const [ratio, setRatio] = useState('');
  const [efficiency, setEfficiency] = useState('90');
  const [wrenchLengthMm, lengthMm, by] = [positive(wrench), positive(adapter), positive(ratio)];
  const percent = positive(efficiency);
  const set = torqueSetting({
    targetNm: target.si,
    ...(wrenchLengthMm && lengthMm ? { wrenchLengthMm, adapter: { lengthMm, angleDeg: 0 } } : {}),
    ...(by && percent && percent <= 100 ? { multiplier: { ratio: by, efficiency: percent / 100 } } : {}),
  });
  const words = formatQuantity({ value: set.settingNm, unit: 'Nm' }, target.unit);
  return (
    <details className="rounded-lg border border-edge bg-panel px-4 py-3">
      <summary className="min-h-8 text-14">With an adapter or a multiplier</summary>
      <div className="grid gap-3 pt-2 sm:grid-cols-4">
        <TextField
          label="Wrench, mm"
          className="figure"
          value={wrench}
          onChange={(e) => setWrench(e.target.value)}
        />
        <TextField
          label="Adapter in line, mm"
          className="figure"
          value={adapter}
          onChange={(e) => setAdapter(e.target.value)}
        />
        <TextField
          label="Multiplier, 1 to"
          className="figure"
          value={ratio}
          onChange={(e) => setRatio(e.target.value)}
        />
        <TextField
          label="Its efficiency, %"
          className="figure"
          value={efficiency}
          onChange={(e) => setEfficiency(e.target.value)}
        />
      </div>
      <p className="pt-2 text-16">
        Set <span className="figure font-semibold">{words}</span> for {formatQuantity(target)} at the nut
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
  const shown = useAppSelector((s) => s.preferences.unit);
  const figure = wheelEnd.sheet[step.figure];
  const unit = figure?.max.unit ?? (shown === 'in' ? 'lbf-ft' : 'Nm');
  const toolKey = TOOL + step.figure;
  const [torque, setTorque] = useState(
    figure && figure.min.si === figure.max.si ? String(figure.max.value) : '',
  );
  const [makers, setMakers] = useState('');
  const [tool, setTool] = useState(localStorage.getItem(toolKey) ?? '');
  const [note, setNote] = useState('');
  const [tried, setTried] = useState(false);
  const read = parseQuantity(torque, torqueUnits, unit);
  const asked = figure ? null : parseQuantity(makers, torqueUnits, unit);
  const held = figure ?? (asked?.ok ? { min: asked.quantity, max: asked.quantity } : null);
  const off = read.ok && held !== null && !torqueFits(read.quantity.si, held);
  const wrench = useInstruments('TW', ({ id, quantity }) => {
    setTorque(`${quantity.value} ${unitDefinition(quantity.unit).label}`);
    setTool(id);
  });
  const save = () => {
    setTried(true);
    if (!read.ok || !held || tool.trim() === '' || (off && note.trim() === '')) return;
    localStorage.setItem(toolKey, tool.trim());
    record({
      kind: 'torque',
      torque: read.quantity,
      tool: tool.trim(),
      rounds: 1,
      ...(asked?.ok ? { asked: asked.quantity } : {}),
      ...noted(note),
    });
  };
  return (
    <Form button="Record the torque" onRecord={save}>
      {figure ? (
        <div className="rounded-lg border border-edge bg-panel p-4">
          <p className="caption">Torque to</p>
          <p className="figure text-26 font-semibold">{sayTorque(figure)}</p>
          <p className="text-12 text-muted">{sayMark(figure)}</p>
        </div>
      ) : (
        <TextField
          label={`The maker’s sheet asks for, ${unitDefinition(unit).label}`}
          className="figure"
          inputMode="decimal"
          autoFocus
          value={makers}
          hint="The shop’s sheet has no figure for this one"
          error={tried && asked && !asked.ok ? asked.message : undefined}
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
          error={tried && !read.ok ? read.message : undefined}
        />
        <TextField
          label="Torque wrench"
          value={tool}
          placeholder="TW-03"
          onChange={(e) => setTool(e.target.value)}
          error={tried && tool.trim() === '' ? 'Which tool' : undefined}
        />
      </div>
      <InstrumentLine what="Torque wrench" {...wrench} />
      {held && <Setting target={held.max} />}
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
