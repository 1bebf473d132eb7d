import { axleAt, oppositeOf } from '@lanternwright/core/axle-plan';
import { useState } from 'react';
import { stackOfSheet, type Sheet, type Stage } from '@lanternwright/core/procedure';
import { isUsedUp, partOfLine, putsBack, type Act } from '@lanternwright/core/route';
import { layerTitles, works, worksOf, type LayerId, type Work } from '@lanternwright/core/stack';
import {
  lackedLines,
  layersLost,
  progressOf,
  type Command,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { useSheetsQuery } from '../sheets/sheets-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { AsItStands } from './as-it-stands.tsx';
import { JoinOtherSide } from './join-other-side.tsx';
import { LeaveOut } from './leave-out.tsx';
import type { OpenJob } from './use-job.ts';
import { WithReason, type RouteFormProps } from './with-reason.tsx';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
}

/** Adds work, as much of it as was found; or takes one away whose layers nobody has touched. */
function Deeper({ open, wheelEnd, done }: RouteFormProps) {
  const [added, setAdded] = useState<readonly Work[]>([]);
  const [away, setAway] = useState<Work | null>(null);
  const { position, plan } = wheelEnd;
  const more = worksOf(plan.stack).filter(
    (w) => !plan.works.includes(w) && w !== 'check' && w !== 'retorque',
  );
  const send = (reason: string) => {
    const why =
      away === null
        ? added.map((work) => open.send({ kind: 'work-added', position, work, reason }))
        : [open.send({ kind: 'work-withdrawn', position, work: away, reason })];
    const refused = why.find((said) => said !== null) ?? null;
    if (refused === null) done();
    return refused;
  };
  const chip = (w: Work, words: string, chosen: boolean, onChoose: () => void) => (
    <button
      key={w}
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`min-h-12 rounded-md border px-3 text-14 ${chosen ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
    >
      {words}
    </button>
  );
  const toggle = (w: Work) => {
    setAway(null);
    setAdded(added.includes(w) ? added.filter((a) => a !== w) : [...added, w]);
  };
  const takeAway = (w: Work) => {
    setAdded([]);
    setAway(away === w ? null : w);
  };
  const words =
    away !== null
      ? `Take away: ${works[away].toLowerCase()}`
      : added.length > 0
        ? `Add: ${added.map((w) => works[w].toLowerCase()).join('; ')}`
        : 'Choose the work';
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">Add work found on {position}</h3>
      <p className="text-14 text-muted">
        The route grows; what is recorded stays. Take a photo of what was found.
      </p>
      <div role="group" aria-label="More work" className="flex flex-wrap gap-2">
        {more.map((w) => chip(w, works[w], added.includes(w), () => toggle(w)))}
      </div>
      {plan.works.length > 1 && (
        <div role="group" aria-label="Not after all" className="flex flex-wrap gap-2">
          {plan.works.map((w) =>
            chip(w, `Not after all: ${works[w].toLowerCase()}`, away === w, () => takeAway(w)),
          )}
        </div>
      )}
      <WithReason
        label="What was found"
        button={words}
        disabled={away === null && added.length === 0}
        onSend={send}
        onCancel={done}
      />
    </section>
  );
}

const nameOf = (chosen: LayerId | 'never' | undefined): LayerId | null =>
  chosen === undefined || chosen === 'never' ? null : chosen;

/** The wheel end has another construction than its sheet says: a supervisor names the sheet that fits. */
function BuiltDifferently({ open, wheelEnd, done }: RouteFormProps) {
  const { data: sheets = [] } = useSheetsQuery();
  const [sheetId, setSheetId] = useState('');
  const chosen: Sheet | undefined = sheets.find((s) => s.sheetId === sheetId)?.revisions[0]?.sheet;
  const axle = {
    role: wheelEnd.axle ?? 'fixed',
    wheels: axleAt(open.detail.unit.axles, wheelEnd.position)?.wheels ?? 'single',
    brake: 'drum',
  } as const;
  const stack = chosen ? stackOfSheet(chosen, axle) : null;
  const lost = stack ? layersLost(wheelEnd, stack) : [];
  const [is, setIs] = useState<Partial<Record<LayerId, LayerId | 'never'>>>({});
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">{wheelEnd.position} is built differently</h3>
      <p className="text-14 text-muted">
        What is off stays off, and what is recorded stays recorded. Settings and readings do not survive
        another nut, thread or lock.
      </p>
      <SelectField label="The sheet that fits" value={sheetId} onChange={(e) => setSheetId(e.target.value)}>
        <option value="">Choose</option>
        {sheets.map((s) => (
          <option key={s.sheetId} value={s.sheetId}>
            {s.revisions[0]!.sheet.title}
          </option>
        ))}
      </SelectField>
      {lost.map((id) => (
        <SelectField
          key={id}
          label={`${layerTitles[id]} is off or not finished, and this sheet has none. Which layer is it?`}
          value={is[id] ?? ''}
          onChange={(e) => setIs({ ...is, [id]: e.target.value as LayerId | 'never' })}
        >
          <option value="">Choose</option>
          {stack!.map(({ layer }) => (
            <option key={layer} value={layer}>
              {layerTitles[layer]}
            </option>
          ))}
          <option value="never">It was never there</option>
        </SelectField>
      ))}
      <WithReason
        label="How it is seen"
        button="Change the sheet of this wheel end"
        disabled={!chosen || !stack || lost.some((id) => !is[id])}
        onSend={(reason) => {
          const command: Command = {
            kind: 'sheet-changed',
            position: wheelEnd.position,
            sheet: chosen!,
            stack: [...stack!],
            ...(lost.length > 0 ? { lost: lost.map((layer) => ({ layer, is: nameOf(is[layer]) })) } : {}),
            reason,
          };
          const why = open.send(command);
          if (why === null) done();
          return why;
        }}
        onCancel={done}
      />
    </section>
  );
}

/** Layers with a put-back record that counts: they can be opened once more. The nut goes back to Adjust instead. */
function backLayers(wheelEnd: WheelEnd): LayerId[] {
  const layers = progressOf(wheelEnd).flatMap(({ step, record }) => {
    const { layer } = step as Act;
    return record && layer && layer !== 'nut' && putsBack(step) ? [layer] : [];
  });
  return [...new Set(layers)];
}

/** A layer that was put back comes off once more, with what covers it. */
function OpenAgain({ open, wheelEnd, done }: RouteFormProps) {
  const [layer, setLayer] = useState<LayerId | ''>('');
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">Open {wheelEnd.position} again</h3>
      <p className="text-14 text-muted">
        What has to come off to reach it comes off first, and is put back after it. Everything else stays.
      </p>
      <SelectField label="What comes off" value={layer} onChange={(e) => setLayer(e.target.value as LayerId)}>
        <option value="">Choose</option>
        {backLayers(wheelEnd).map((id) => (
          <option key={id} value={id}>
            {layerTitles[id]}
          </option>
        ))}
      </SelectField>
      <WithReason
        label="Why"
        button={layer === '' ? 'Choose what comes off' : `Open again: ${layerTitles[layer].toLowerCase()}`}
        disabled={layer === ''}
        onSend={(reason) => {
          if (layer === '') return 'Choose what comes off';
          const why = open.send({ kind: 'layer-opened', position: wheelEnd.position, layer, reason });
          if (why === null) done();
          return why;
        }}
        onCancel={done}
      />
    </section>
  );
}

/** Parts that were not there when the work began, and what became of them. */
function Awaited({ open, wheelEnd }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  const waiting = lackedLines(wheelEnd).filter((l) => partOfLine(l.what));
  if (waiting.length === 0) return null;
  const send = (what: string, as: 'received' | 'reused') =>
    setRefused(open.send({ kind: 'part-received', position: wheelEnd.position, what, as }));
  return (
    <ul className="border-t border-rule pt-2">
      {waiting.map(({ what, title, by, oldIn }) => (
        <li key={what} className="flex flex-wrap items-center justify-between gap-2 py-1 text-14">
          <span>
            {title}: {oldIn ? 'the old one is in, a new one has to come' : 'not here yet'}
            {by && `, due ${by}`}
          </span>
          <span className="flex gap-2">
            <Button onClick={() => send(what, 'received')}>It has come</Button>
            {!oldIn && !isUsedUp(partOfLine(what)!) && (
              <Button onClick={() => send(what, 'reused')}>The old one goes in again</Button>
            )}
          </span>
        </li>
      ))}
      {refused && <Note tone="trouble">{refused}</Note>}
    </ul>
  );
}

/** The stage in which something was recorded last, for whoever made a slip just now. */
const lastStage = ({ records }: WheelEnd): Stage | undefined => records.at(-1)?.stage;

/** What changes the route of a wheel end: more work, less, another construction, parts that came; and a slip. */
export function RouteChanges({ open, wheelEnd, look }: Props & { look: (stage: Stage) => void }) {
  const [form, setForm] = useState<'deeper' | 'built' | 'open' | 'stands' | 'join' | 'out' | null>(null);
  if (wheelEnd.firstBuild || wheelEnd.release) return null;
  const done = () => setForm(null);
  const last = lastStage(wheelEnd);
  return (
    <div className="flex flex-col gap-3 border-t border-rule pt-3">
      {form === null && (
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setForm('deeper')}>Add work found</Button>
          {backLayers(wheelEnd).length > 0 && <Button onClick={() => setForm('open')}>Open it again</Button>}
          {!wheelEnd.withOther && (
            <Button onClick={() => setForm('join')}>
              Take {oppositeOf(wheelEnd.position)} into this job
            </Button>
          )}
          <Button onClick={() => setForm('stands')}>Others worked on it</Button>
          {last && <Button onClick={() => look(last)}>Correct a record</Button>}
          {open.person.role === 'supervisor' && (
            <Button onClick={() => setForm('built')}>Different construction</Button>
          )}
          {open.person.role === 'supervisor' && open.job.wheelEnds.length > 1 && (
            <Button onClick={() => setForm('out')}>Leave {wheelEnd.position} out</Button>
          )}
        </div>
      )}
      {form === 'deeper' && <Deeper {...{ open, wheelEnd, done }} />}
      {form === 'open' && <OpenAgain {...{ open, wheelEnd, done }} />}
      {form === 'join' && <JoinOtherSide {...{ open, wheelEnd, done }} />}
      {form === 'out' && <LeaveOut {...{ open, wheelEnd, done }} />}
      {form === 'stands' && <AsItStands {...{ open, wheelEnd, done }} />}
      {form === 'built' && <BuiltDifferently {...{ open, wheelEnd, done }} />}
      <Awaited {...{ open, wheelEnd }} />
    </div>
  );
}
