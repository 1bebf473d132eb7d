import { useState } from 'react';
import {
  formatQuantity,
  formatTyped,
  parseTogether,
  type Quantity,
  unitDefinition,
  unitFor,
} from '@lanternwright/core/quantity';
import { tighteningSequence, torqueSetting } from '@lanternwright/core/torque';
import type { Tool } from '@lanternwright/core/tool';
import { makersFigures, torqueFits, type WheelEnd } from '@lanternwright/core/traveller';
import { describeMark, formatTorque } from '@lanternwright/core/procedure';
import { wheelTorqueKey } from '@lanternwright/core/route';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { ToolField, useListedTool } from '../tools/tool-field.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { whyUnread } from '../ui/why-unread.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StudWalk } from '../ui/stud-walk.tsx';
import { useDraft } from './use-draft.ts';
import { readVia, straight, TorqueViaFields } from './torque-via.tsx';
import { Form, noted, type FormProps } from './step-form-parts.tsx';
import { useReader } from '../shell/use-reader.ts';

const torqueUnits = ['lbf-ft', 'Nm', 'lbf-in'] as const;

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

/** The wrench that the last torque of this wheel end was reached with; empty where it was none of the list. */
const lastWrench = ({ records }: WheelEnd): string => {
  const data = records.findLast((r) => r.data?.kind === 'torque')?.data;
  return (data?.kind === 'torque' && data.listed?.code) || '';
};

/** Torque with its figure, from the sheet or read off the maker's, and the tool that reached it. */
export function TorqueForm({ step, wheelEnd, other, record }: FormProps<'torque'>) {
  const reader = useReader();
  const ofSheet = wheelEnd.sheet[step.figure];
  // Read off the maker's sheet once in this job, it is not typed again.
  const told = ofSheet ? undefined : makersFigures(wheelEnd)[step.figure];
  const figure = ofSheet ?? told ?? null;
  const opposite = other && !figure ? makersFigures(other)[step.figure] : undefined;
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
  const target = read.ok && !off ? read.quantity : held?.max;
  // What was typed in an older build of the page has less to it.
  const between = { ...straight, ...viaText };
  const { listed } = useListedTool(tool, { kind: 'torque-wrench' });
  const { via, why: notVia } = readVia(between, listed);
  const use = {
    kind: 'torque-wrench',
    ...(target ? { settingNm: torqueSetting({ targetNm: target.si, ...via }).settingNm } : {}),
  } as const;
  const { unfit } = useListedTool(tool, use);
  const again = useListedTool(lastWrench(wheelEnd), use);
  const wrench = useInstruments('TW', `${wheelEnd.position}, ${step.title}`, ({ id, quantity }) => {
    // The wrench says what it was turned to; adapter and multiplier make more of it at the nut.
    const share = torqueSetting({ targetNm: 1, ...via }).settingNm;
    const value = via ? Number((quantity.value / share).toPrecision(4)) : quantity.value;
    setTorque(formatTyped({ value, unit: quantity.unit }));
    setTool(id);
  });
  const save = (used: { tool: string; listed: Tool | undefined; unfit: string | null }) => {
    setTried(true);
    if (!read.ok || !held || used.tool === '' || used.unfit || notVia || (off && note.trim() === '')) return;
    record({
      kind: 'torque',
      torque: read.quantity,
      tool: used.tool,
      rounds: 1,
      ...(used.listed ? { listed: used.listed } : {}),
      ...(via ? { via } : {}),
      ...(told ? { asked: told.max } : asked?.ok ? { asked: asked.quantity } : {}),
      ...noted(note),
    });
  };
  return (
    <Form
      button="Record the torque"
      onRecord={() => save({ tool: tool.trim(), listed, unfit })}
      beside={
        // Said by the button itself: nothing is chosen before somebody presses it.
        again.listed &&
        !again.unfit &&
        !via && (
          <Button
            className="min-h-14 px-5 text-16"
            onClick={() => {
              setTool(again.listed!.code);
              save({ tool: again.listed!.code, listed: again.listed, unfit: null });
            }}
          >
            Record it, with {again.listed.code} again
          </Button>
        )
      }
    >
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
      {opposite && other && (
        <Button className="self-start" onClick={() => setMakers(formatTyped(opposite.max))}>
          The same sheet as {other.position}: {formatTorque(opposite, reader)}
        </Button>
      )}
      {step.figure === wheelTorqueKey(wheelEnd.plan.stack) && wheelEnd.sheet.studs && figure && (
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
      {held && <TorqueViaFields target={held.max} text={between} wrench={listed} onChange={setViaText} />}
      {tried && notVia && <Note tone="trouble">{notVia}</Note>}
      {off && (
        <TextField
          label="The torque is off the sheet’s figure: why"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          error={tried && note.trim() === '' ? 'Enter a reason' : 'This blocks the release'}
        />
      )}
    </Form>
  );
}
