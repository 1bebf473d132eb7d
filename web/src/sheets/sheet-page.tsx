import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { RevisedSheet, SheetRevision } from '@lanternwright/contract/sheets';
import {
  confirmFigure,
  recalledFigures,
  sheetDifferences,
  sheetLines,
  type Sheet,
} from '@lanternwright/core/procedure';
import { problemText } from '../api.ts';
import { SheetEditor } from '../fleet/sheet-editor.tsx';
import { useMay } from '../people/people-api.ts';
import { formatDate } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { GreaseChange } from '../jobs/grease-change.tsx';
import { Note } from '../ui/problem-note.tsx';
import { BehindSection } from './behind-section.tsx';
import { SheetStack } from './sheet-stack.tsx';
import { useCopySheetMutation, useReviseSheetMutation, useSheetsQuery } from './sheets-api.ts';
import { useReader } from '../shell/use-reader.ts';

/** What one revision says otherwise than the one before. */
function Differences({ before, after }: { before: Sheet; after: Sheet }) {
  const reader = useReader();
  const lines = sheetDifferences(before, after, reader);
  if (lines.length === 0) return <p className="text-13 text-muted">No figure changed.</p>;
  return (
    <table className="w-full text-13">
      <thead className="sr-only">
        <tr>
          <th scope="col">Line</th>
          <th scope="col">Before</th>
          <th scope="col">After</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.label} className="border-t border-rule align-top">
            <th scope="row" className="w-36 py-1 pr-3 text-left font-normal text-muted">
              {l.label}
            </th>
            <td className="py-1 pr-3 text-rust line-through">{l.before || 'nothing'}</td>
            <td className="py-1 font-semibold text-pine">{l.after || 'nothing'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function History({ revisions }: { revisions: readonly SheetRevision[] }) {
  return (
    <section>
      <h2 className="pb-2 text-18">Revisions</h2>
      <ol className="flex flex-col gap-4">
        {revisions.map((r, i) => {
          const before = revisions[i + 1];
          return (
            <li key={r.sheet.revision} className="border-l-2 border-edge pl-4">
              <p className="text-14">
                <b>Revision {r.sheet.revision}</b>
                {r.by && r.at && `, ${r.by}, ${formatDate(r.at)}`}. {r.note}
              </p>
              {before && <Differences before={before.sheet} after={r.sheet} />}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function Revise({ newest }: { newest: Sheet }) {
  const reader = useReader();
  const [sheet, setSheet] = useState(newest);
  const [note, setNote] = useState('');
  const [revise, { isLoading, error }] = useReviseSheetMutation();
  const changed =
    sheetDifferences(newest, sheet, reader).length > 0 || JSON.stringify(newest) !== JSON.stringify(sheet);
  const recalled = recalledFigures(sheet);
  const labels = new Map(
    Object.entries({
      band: 'the band',
      backOff: 'the back-off',
      drag: 'the drag',
      hub: 'the hub’s sizes',
      retorque: 'the retorque',
      heat: 'the hub heat',
      thread: 'the thread',
      lock: 'where it locks',
      studs: 'the wheel studs',
      lubricant: 'the lubricant',
      rollingNew: 'the rolling torque of new bearings',
      rollingRunIn: 'the rolling torque of run-in bearings',
      swivelPull: 'the swivel’s pull',
      shaftMovement: 'the shaft’s movement',
    }),
  );
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void revise({ sheetId: newest.sheetId, basedOn: newest.revision, sheet, note });
      }}
    >
      <TextField
        label="Title"
        value={sheet.title}
        onChange={(e) => setSheet({ ...sheet, title: e.target.value })}
      />
      <div className="grid items-start gap-6 lg:grid-cols-[1fr_280px]">
        <SheetEditor sheet={sheet} onChange={setSheet} choosing="fixed" />
        <SheetStack
          sheet={sheet}
          onHold={(stack) => setSheet({ ...sheet, stack: stack === null ? null : [...stack] })}
        />
      </div>
      {newest.lubricant.kind === 'grease' && sheet.lubricant.kind === 'grease' && (
        <GreaseChange before={newest.lubricant} after={sheet.lubricant} />
      )}
      {recalled.length > 0 && (
        <div className="flex flex-wrap items-center gap-3">
          <span className="text-14">From memory or not marked: confirm against the maker’s data:</span>
          {recalled.map((key) => (
            <Button key={key} onClick={() => setSheet(confirmFigure(sheet, key))}>
              Confirm {labels.get(key) ?? key.replace('Torque', ' torque')}
            </Button>
          ))}
        </div>
      )}
      {changed && (
        <section className="rounded-lg border border-lamp-edge bg-lamp p-4">
          <h2 className="caption pb-1">Revision {newest.revision + 1} will say</h2>
          <Differences before={newest} after={sheet} />
        </section>
      )}
      <TextField
        label="What changed and why"
        value={note}
        hint="Kept with the revision, with your name"
        onChange={(e) => setNote(e.target.value)}
      />
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div>
        <Button type="submit" weight="main" disabled={!changed || note.trim() === '' || isLoading}>
          Keep as revision {newest.revision + 1}
        </Button>
      </div>
    </form>
  );
}

function Copy({ newest }: { newest: Sheet }) {
  const navigate = useNavigate();
  const [title, setTitle] = useState('');
  const [copy, { isLoading, error }] = useCopySheetMutation();
  const sheetId = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60);
  const save = async () => {
    const { data } = await copy({ from: newest.sheetId, sheetId, title: title.trim() });
    if (data) await navigate(`/fleet/sheets/${data.sheet.sheetId}`);
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-t border-rule pt-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div className="min-w-72 flex-1">
        <TextField
          label="Copy it as a sheet of its own, titled"
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
      </div>
      <Button type="submit" disabled={sheetId === '' || isLoading}>
        Copy the sheet
      </Button>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </form>
  );
}

function SheetView({ entry }: { entry: RevisedSheet }) {
  const reader = useReader();
  const isSupervisor = useMay()('change-sheets');
  const newest = entry.revisions[0]!.sheet;
  return (
    <>
      <h1 className="text-23">
        {newest.title} <span className="text-16 font-normal text-muted">revision {newest.revision}</span>
      </h1>
      {isSupervisor ? (
        <>
          <Revise key={newest.revision} newest={newest} />
          {newest.revision > 1 && <BehindSection newest={newest} />}
          <Copy newest={newest} />
        </>
      ) : (
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
          {sheetLines(newest, reader).map((l) => (
            <div key={l.label} className="contents">
              <dt className="text-13 text-muted">{l.label}</dt>
              <dd className="figure text-14">
                {l.value}{' '}
                <span className="text-12 text-muted">
                  {l.source}
                  {l.confirm && ': confirm against the maker’s sheet'}
                </span>
              </dd>
            </div>
          ))}
        </dl>
      )}
      {!isSupervisor && (
        <div className="max-w-md">
          <SheetStack sheet={newest} />
        </div>
      )}
      <History revisions={entry.revisions} />
    </>
  );
}

/** One sheet: its figures, the next revision, and what each revision changed. */
export function SheetPage() {
  const { sheetId = '' } = useParams();
  const { data, error } = useSheetsQuery();
  const entry = data?.find((e) => e.sheetId === sheetId);
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-5 p-5">
      <Link
        to="/fleet/sheets"
        className="flex min-h-10 items-center self-start text-14 underline underline-offset-4"
      >
        All sheets
      </Link>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {entry && <SheetView key={sheetId} entry={entry} />}
      {data && !entry && <p>There is no sheet of this name.</p>}
    </main>
  );
}
