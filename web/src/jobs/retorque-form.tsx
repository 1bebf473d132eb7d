import { useState } from 'react';
import { parseQuantity, unitFor } from '@lanternwright/core/quantity';
import { torqueFits, type WheelEnd } from '@lanternwright/core/traveller';
import { layerOf } from '@lanternwright/core/stack';
import { wheelTorqueKey } from '@lanternwright/core/route';
import { formatTorque, type TorqueFigure } from '@lanternwright/core/procedure';
import { ToolField, useListedTool } from '../tools/tool-field.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useDraft } from './use-draft.ts';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';

/** What the maker's sheet asked for when the wheel went on, where the shop's has no figure. */
function wheelFigure({ records }: WheelEnd): TorqueFigure | null {
  const data = records.findLast((r) => r.stepId === 'wheel-nuts' && r.data)?.data;
  const asked = data?.kind === 'torque' ? data.asked : undefined;
  return asked ? { min: asked, max: asked, mark: 'shop', source: 'The maker’s sheet' } : null;
}

/** The retorque of a released wheel end: with which wrench, to what, by whom. */
export function RetorqueForm({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const reader = useReader();
  const figure = wheelEnd.sheet[wheelTorqueKey(wheelEnd.plan.stack)] ?? wheelFigure(wheelEnd);
  const [torque, setTorque] = useDraft('torque', '');
  const [tool, setTool] = useDraft('tool', '');
  const [meter, setMeter] = useDraft('meter', '');
  const [doneBy, setDoneBy] = useDraft('doneBy', '');
  const [note, setNote] = useDraft('note', '');
  const [refused, setRefused] = useState<string | null>(null);
  const read = parseQuantity(torque, ['lbf-ft', 'Nm'], figure ? unitFor(figure.max, reader) : reader.torque);
  const byHours = !open.job.meter.distance && open.job.meter.hours !== undefined;
  const at =
    meter.trim() === ''
      ? null
      : byHours
        ? parseQuantity(meter, ['h'], 'h')
        : parseQuantity(meter, ['km', 'mi'], reader.distance);
  const isSprocket = layerOf(wheelEnd.plan.stack, 'wheel')?.kind === 'sprocket';
  const off = figure !== null && read.ok && !torqueFits(read.quantity.si, figure);
  const outside = doneBy.trim() !== '';
  const use = { kind: 'torque-wrench', ...(figure ? { settingNm: figure.max.si } : {}) } as const;
  const { listed, unfit } = useListedTool(tool, use);
  const save = () => {
    if (!read.ok) return setRefused(read.message);
    if (at && !at.ok) return setRefused(at.message);
    if (tool.trim() === '') return setRefused('Which torque wrench');
    if (!outside && unfit) return setRefused(unfit);
    setRefused(
      open.send({
        kind: 'retorque-recorded',
        position: wheelEnd.position,
        torque: read.quantity,
        tool: tool.trim(),
        ...(listed && !outside ? { listed } : {}),
        ...(at?.ok ? { [byHours ? 'hours' : 'distance']: at.quantity } : {}),
        ...(doneBy.trim() ? { doneBy: doneBy.trim() } : {}),
        ...(note.trim() ? { note: note.trim() } : {}),
      }),
    );
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h3 className="text-18">Retorque of the {isSprocket ? 'sprocket bolts' : 'wheel nuts'}</h3>
      <p className="text-14 text-muted">
        {figure ? `To ${formatTorque(figure, reader)}` : 'To the maker’s figure'}
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Reached"
          className="figure"
          value={torque}
          onChange={(e) => setTorque(e.target.value)}
        />
        <TextField
          label={byHours ? 'Hours on the meter' : 'Distance on the meter'}
          value={meter}
          placeholder={byHours ? 'h' : eitherUnit(reader, 'distance')}
          onChange={(e) => setMeter(e.target.value)}
        />
        <TextField
          label="Done by, if by an outside workshop"
          value={doneBy}
          onChange={(e) => setDoneBy(e.target.value)}
        />
      </div>
      {outside ? (
        <TextField
          label="Torque wrench, as their paper says"
          value={tool}
          onChange={(e) => setTool(e.target.value)}
        />
      ) : (
        <ToolField use={use} code={tool} onChange={setTool} />
      )}
      {off && (
        <TextField
          label="The torque is off the sheet’s figure: why"
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
      )}
      {refused && <Note tone="trouble">{refused}</Note>}
      <div>
        <Button type="submit" weight="main">
          Record the retorque of {wheelEnd.position}
        </Button>
      </div>
    </form>
  );
}
