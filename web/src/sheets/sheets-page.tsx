import { Link } from 'react-router';
import type { RevisedSheet } from '@lanternwright/contract/sheets';
import {
  hasFigures,
  constructions,
  recalledFigures,
  stackOfSheet,
  type Family,
} from '@lanternwright/core/procedure';
import { whyNotWorkable } from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { Note } from '../ui/problem-note.tsx';
import { useSheetsQuery } from './sheets-api.ts';

function SheetRow({ entry }: { entry: RevisedSheet }) {
  const { sheet } = entry.revisions[0]!;
  const recalled = recalledFigures(sheet).length;
  const anyAxle = { role: 'fixed', wheels: 'single', brake: 'drum' } as const;
  const why = whyNotWorkable(sheet, stackOfSheet(sheet, anyAxle));
  return (
    <li className="border-b border-rule">
      <Link
        to={`/fleet/sheets/${sheet.sheetId}`}
        className="grid min-h-14 items-center gap-x-4 px-2 py-2 hover:bg-side sm:grid-cols-[1fr_auto_auto]"
      >
        <span className="text-16">{sheet.title}</span>
        <span className={`text-13 ${why || recalled > 0 ? 'text-rust' : 'text-muted'}`}>
          {why
            ? 'lacks a figure'
            : recalled > 0
              ? `${recalled} recalled ${recalled === 1 ? 'figure' : 'figures'} to confirm`
              : hasFigures(sheet)
                ? 'every figure known'
                : 'no figures yet'}
        </span>
        <span className="figure text-13 text-muted">revision {sheet.revision}</span>
      </Link>
    </li>
  );
}

/** Family sheets: what holds for each kind of wheel end, with their revisions. */
export function SheetsPage() {
  const { data, error } = useSheetsQuery();
  const families = (Object.keys(constructions) as Family[]).map((family) => ({
    family,
    entries: data?.filter((e) => e.revisions[0]!.sheet.family === family) ?? [],
  }));
  return (
    <main className="mx-auto flex w-full max-w-[960px] flex-col gap-5 p-5">
      <div>
        <h1 className="text-23">Sheets</h1>
        <p className="text-14 text-muted">
          What holds for each kind of wheel end. A supervisor revises them; a running job keeps the revision
          it opened with.
        </p>
      </div>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {families
        .filter((f) => f.entries.length > 0)
        .map(({ family, entries }) => (
          <section key={family}>
            <h2 className="caption pb-1">
              {family}. {constructions[family]}
            </h2>
            <ul>
              {entries.map((entry) => (
                <SheetRow key={entry.sheetId} entry={entry} />
              ))}
            </ul>
          </section>
        ))}
    </main>
  );
}
