import { useState } from 'react';
import type { ListedTool } from '@lanternwright/contract/tools';
import { describeTool, isCalibrated, toolKinds, type ToolKind } from '@lanternwright/core/tool';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { formatDate } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { CertificateForm, Certificates } from './certificates.tsx';
import { RecalledRecords, RecallForm, ToolHolder } from './tool-care.tsx';
import { draftOf, newTool, ToolForm, type ToolDraft } from './tool-form.tsx';
import { useRetireToolMutation, useToolsQuery } from './tools-api.ts';

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
  socket: 'Sockets',
  adapter: 'Torque adapters',
};

function ToolRow({ listed, onChange }: { listed: ListedTool; onChange: (() => void) | null }) {
  const { tool, version } = listed;
  const [retire, { error }] = useRetireToolMutation();
  const [asking, setAsking] = useState<'retire' | 'recall' | 'certify' | null>(null);
  const calibrated = isCalibrated(tool.kind);
  const { words, tone } = calibration(tool.calibratedUntil);
  return (
    <li className="grid min-h-14 items-center gap-x-4 gap-y-1 border-b border-rule py-2 sm:grid-cols-[5rem_1fr_auto]">
      <span className="figure text-16 font-semibold">{tool.code}</span>
      <span className="text-16">
        {tool.title} <span className="figure text-13 text-muted">{describeTool(tool)}</span>
      </span>
      {calibrated && <span className={`text-13 ${tone}`}>{words}</span>}
      <span className="flex flex-wrap items-center justify-between gap-2 sm:col-span-3">
        <ToolHolder listed={listed} />
        {onChange && (
          <span className="flex flex-wrap gap-2">
            {asking === 'retire' ? (
              <>
                <Button weight="grave" onClick={() => void retire({ id: tool.id, seenVersion: version })}>
                  Take {tool.code} off the list
                </Button>
                <Button onClick={() => setAsking(null)}>Cancel</Button>
              </>
            ) : (
              <>
                <Button onClick={onChange} aria-label={`Change ${tool.code}`}>
                  Change
                </Button>
                {calibrated && (
                  <>
                    <Button onClick={() => setAsking('certify')} aria-label={`${tool.code} was calibrated`}>
                      Calibrated
                    </Button>
                    <Button
                      weight="quiet"
                      onClick={() => setAsking('recall')}
                      aria-label={`${tool.code} was found out of calibration`}
                    >
                      Out of calibration
                    </Button>
                  </>
                )}
                <Button weight="quiet" onClick={() => setAsking('retire')} aria-label={`Retire ${tool.code}`}>
                  Retire
                </Button>
              </>
            )}
          </span>
        )}
      </span>
      <div className="sm:col-span-3">
        <Certificates listed={listed} />
      </div>
      {asking === 'certify' && (
        <div className="sm:col-span-3">
          <CertificateForm listed={listed} onDone={() => setAsking(null)} />
        </div>
      )}
      {asking === 'recall' && (
        <div className="sm:col-span-3">
          <RecallForm listed={listed} onDone={() => setAsking(null)} />
        </div>
      )}
      {onChange && (
        <div className="sm:col-span-3">
          <RecalledRecords listed={listed} />
        </div>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </li>
  );
}

/** Tools whose calibration counts: what is offered at a step, and what is not any more. */
export function ToolsPage() {
  const { data, error } = useToolsQuery();
  const able = useMay();
  const [draft, setDraft] = useState<ToolDraft | null>(null);
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
          <Button weight="main" onClick={() => setDraft(newTool())}>
            Add a tool
          </Button>
        )}
      </div>
      {draft && <ToolForm key={draft.typed.id} draft={draft} onDone={() => setDraft(null)} />}
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
