import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { ListedTool } from '@lanternwright/contract/tools';
import { formatTyped, parseQuantity, parseTogether } from '@lanternwright/core/quantity';
import { describeTool, toolKinds, type Tool, type ToolKind } from '@lanternwright/core/tool';
import { problemFields, problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { formatDate } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useSaveToolMutation, useRetireToolMutation, useToolsQuery } from './tools-api.ts';

const DAY_MS = 86_400_000;
const SOON_DAYS = 30;

/** How a calibration stands today, in words, and whether it needs somebody. */
function calibration(until: string | null): { words: string; tone: string } {
  if (until === null) return { words: 'no calibration on record', tone: 'text-rust font-semibold' };
  const days = Math.floor((Date.parse(until) + DAY_MS - Date.now()) / DAY_MS);
  if (days < 0)
    return { words: `out of calibration since ${formatDate(until)}`, tone: 'text-rust font-semibold' };
  if (days <= SOON_DAYS)
    return {
      words: `until ${formatDate(until)}: ${days} ${days === 1 ? 'day' : 'days'} left`,
      tone: 'text-ink font-semibold',
    };
  return { words: `in calibration until ${formatDate(until)}`, tone: 'text-muted' };
}

const headings: Record<ToolKind, string> = {
  'torque-wrench': 'Torque wrenches',
  'dial-indicator': 'Dial indicators',
  'pull-scale': 'Pull scales',
  thermometer: 'Hub thermometers',
};

interface Draft {
  id: string;
  /** The version it was when it was opened; 0 of a new one. */
  seenVersion: number;
  kind: ToolKind;
  code: string;
  title: string;
  until: string;
  min: string;
  max: string;
  graduation: string;
}

const blank = (): Draft => ({
  id: uuid(),
  seenVersion: 0,
  kind: 'torque-wrench',
  code: '',
  title: '',
  until: '',
  min: '',
  max: '',
  graduation: '0.001 in',
});
const draftOf = ({ tool, version }: ListedTool): Draft => ({
  ...blank(),
  ...tool,
  seenVersion: version,
  until: tool.calibratedUntil ?? '',
  min: tool.kind === 'torque-wrench' ? formatTyped(tool.min) : '',
  max: tool.kind === 'torque-wrench' ? formatTyped(tool.max) : '',
  graduation: tool.kind === 'dial-indicator' ? formatTyped(tool.graduation) : '',
});

/** The tool a draft describes, or what cannot be read in it, by field. */
function readDraft(d: Draft): { tool: Tool } | { wrong: Partial<Record<keyof Draft, string>> } {
  const common = { id: d.id, code: d.code.trim(), title: d.title.trim(), calibratedUntil: d.until || null };
  if (d.kind === 'torque-wrench') {
    const { min, max } = parseTogether(
      { min: d.min, max: d.max },
      ['Nm', 'lbf-ft', 'lbf-in'],
      'Nm',
      'unlabelled',
    );
    if (!max.ok) return { wrong: { max: max.message } };
    if (!min.ok) return { wrong: { min: min.message } };
    return { tool: { ...common, kind: d.kind, min: min.quantity, max: max.quantity } };
  }
  if (d.kind === 'dial-indicator') {
    const graduation = parseQuantity(d.graduation, ['in', 'mm', 'thou', 'um'], 'mm');
    if (!graduation.ok) return { wrong: { graduation: graduation.message } };
    return { tool: { ...common, kind: d.kind, graduation: graduation.quantity } };
  }
  return { tool: { ...common, kind: d.kind } };
}

function ToolForm({ draft: first, onDone }: { draft: Draft; onDone: () => void }) {
  const [draft, setDraft] = useState(first);
  const [wrong, setWrong] = useState<Partial<Record<keyof Draft, string>>>({});
  const [keep, { isLoading, error }] = useSaveToolMutation();
  const fields = problemFields(error);
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const known = first.code !== '';
  const save = async () => {
    const read = readDraft(draft);
    if ('wrong' in read) return setWrong(read.wrong);
    setWrong({});
    const { data } = await keep({ seenVersion: first.seenVersion, tool: read.tool });
    if (data) onDone();
  };
  return (
    <form
      className="flex flex-col gap-3 rounded-lg border border-lamp-edge bg-lamp p-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <h2 className="text-18">{known ? `Change ${first.code}` : 'Add a tool'}</h2>
      <div className="grid gap-3 sm:grid-cols-3">
        <SelectField
          label="Kind"
          value={draft.kind}
          disabled={known}
          onChange={(e) => set({ kind: e.target.value as ToolKind })}
        >
          {(Object.entries(toolKinds) as [ToolKind, string][]).map(([kind, label]) => (
            <option key={kind} value={kind}>
              {label}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Code on it"
          value={draft.code}
          error={fields['tool.code']}
          required
          onChange={(e) => set({ code: e.target.value })}
        />
        <TextField
          label="What it is"
          value={draft.title}
          error={fields['tool.title']}
          required
          onChange={(e) => set({ title: e.target.value })}
        />
        <TextField
          label="In calibration until"
          type="date"
          value={draft.until}
          error={fields['tool.calibratedUntil']}
          hint="Without a date it is not offered for work"
          onChange={(e) => set({ until: e.target.value })}
        />
        {draft.kind === 'torque-wrench' && (
          <>
            <TextField
              label="From, N·m or lbf·ft"
              className="figure"
              value={draft.min}
              error={wrong.min ?? fields['tool.min.value']}
              onChange={(e) => set({ min: e.target.value })}
            />
            <TextField
              label="To"
              className="figure"
              value={draft.max}
              error={wrong.max ?? fields['tool.max.value']}
              hint="Offered for the upper 80 % of it (ISO 6789)"
              onChange={(e) => set({ max: e.target.value })}
            />
          </>
        )}
        {draft.kind === 'dial-indicator' && (
          <TextField
            label="Graduation"
            className="figure"
            value={draft.graduation}
            error={wrong.graduation ?? fields['tool.graduation.value']}
            onChange={(e) => set({ graduation: e.target.value })}
          />
        )}
      </div>
      {error && Object.keys(fields).length === 0 && <Note tone="trouble">{problemText(error)}</Note>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" weight="main" disabled={isLoading}>
          {known ? `Keep ${draft.code}` : `Add ${draft.code || 'it'}`}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}

function ToolRow({ listed, onChange }: { listed: ListedTool; onChange: (() => void) | null }) {
  const { tool, version } = listed;
  const [retire, { error }] = useRetireToolMutation();
  const [asking, setAsking] = useState(false);
  const { words, tone } = calibration(tool.calibratedUntil);
  return (
    <li className="grid min-h-14 items-center gap-x-4 gap-y-1 border-b border-rule py-2 sm:grid-cols-[5rem_1fr_auto_auto]">
      <span className="figure text-16 font-semibold">{tool.code}</span>
      <span className="text-16">
        {tool.title} <span className="figure text-13 text-muted">{describeTool(tool)}</span>
      </span>
      <span className={`text-13 ${tone}`}>{words}</span>
      {onChange && (
        <span className="flex gap-2">
          {asking ? (
            <>
              <Button weight="grave" onClick={() => void retire({ id: tool.id, seenVersion: version })}>
                Take {tool.code} off the list
              </Button>
              <Button onClick={() => setAsking(false)}>Keep it</Button>
            </>
          ) : (
            <>
              <Button onClick={onChange} aria-label={`Change ${tool.code}`}>
                Change
              </Button>
              <Button weight="quiet" onClick={() => setAsking(true)} aria-label={`Retire ${tool.code}`}>
                Retire
              </Button>
            </>
          )}
        </span>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </li>
  );
}

/** Tools whose calibration counts: what is offered at a step, and what is not any more. */
export function ToolsPage() {
  const { data, error } = useToolsQuery();
  const able = useMay();
  const [draft, setDraft] = useState<Draft | null>(null);
  const mayChange = able('change-tools');
  const tools = data ?? [];
  return (
    <main className="mx-auto flex w-full max-w-[960px] flex-col gap-5 p-5">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1 className="text-23">Tools</h1>
          <p className="max-w-[60ch] text-14 text-muted">
            A torque or a reading is recorded with the tool it was made with. A step offers those that are in
            calibration and able to do it; a record keeps the tool as it stood that day.
          </p>
        </div>
        {mayChange && draft === null && (
          <Button weight="main" onClick={() => setDraft(blank())}>
            Add a tool
          </Button>
        )}
      </div>
      {draft && <ToolForm key={draft.id} draft={draft} onDone={() => setDraft(null)} />}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {(Object.keys(toolKinds) as ToolKind[])
        .map((kind) => ({ kind, own: tools.filter((t) => t.tool.kind === kind) }))
        .filter(({ own }) => own.length > 0)
        .map(({ kind, own }) => (
          <section key={kind}>
            <h2 className="caption pb-1">{headings[kind]}</h2>
            <ul>
              {own.map((listed) => (
                <ToolRow
                  key={listed.tool.id}
                  listed={listed}
                  onChange={mayChange ? () => setDraft(draftOf(listed)) : null}
                />
              ))}
            </ul>
          </section>
        ))}
      {data?.length === 0 && (
        <p className="text-16 text-muted">
          No tools yet. Until there are some, a step takes whatever is typed, and the record says that its
          calibration is not known.
        </p>
      )}
    </main>
  );
}
