import { useState } from 'react';
import { Link } from 'react-router';
import type { FleetPreview } from '@lanternwright/contract/exchange';
import { problemText } from '../api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useImportFleetMutation, usePreviewFleetMutation } from './fleet-api.ts';

function More({ shown, of }: { shown: number; of: number }) {
  return of > shown ? <li className="py-2 text-13 text-muted">and {of - shown} more</li> : null;
}

function Preview({ preview }: { preview: FleetPreview }) {
  return (
    <div className="grid gap-6 md:grid-cols-2">
      <section>
        <h2 className="pb-2 text-18 text-pine">
          {preview.goodCount} good {preview.goodCount === 1 ? 'unit' : 'units'}
        </h2>
        <ul className="max-h-[50vh] overflow-y-auto">
          {preview.good.map((u) => (
            <li key={`${u.owner}/${u.name}`} className="flex justify-between gap-3 border-b border-rule py-2">
              <span className="font-semibold">{u.name}</span>
              <span className="text-13 text-muted">
                {u.kind}, {u.axles} {u.axles === 1 ? 'axle' : 'axles'}, {u.owner}
              </span>
            </li>
          ))}
          <More shown={preview.good.length} of={preview.goodCount} />
        </ul>
      </section>
      <section>
        <h2 className="pb-2 text-18 text-rust">
          {preview.badCount} bad {preview.badCount === 1 ? 'row' : 'rows'}
        </h2>
        <ul className="max-h-[50vh] overflow-y-auto">
          {preview.bad.map((row, i) => (
            <li key={i} className="border-b border-rule py-2">
              <span className="figure pr-3 text-13 text-muted">line {row.line}</span>
              <span className="font-semibold">{row.name}</span>
              <span className="block text-13">{row.reason}</span>
            </li>
          ))}
          <More shown={preview.bad.length} of={preview.badCount} />
        </ul>
      </section>
    </div>
  );
}

/** Bringing a fleet in from a CSV: first what would happen, then all good units or none. */
export function ImportPage() {
  const [csv, setCsv] = useState<string | null>(null);
  const [preview, { data, error, isLoading }] = usePreviewFleetMutation();
  const [bringIn, imported] = useImportFleetMutation();
  const read = async (file: File | undefined) => {
    if (!file) return;
    const text = await file.text();
    setCsv(text);
    imported.reset();
    await preview({ csv: text });
  };
  return (
    <main className="mx-auto flex w-full max-w-[1100px] flex-col gap-5 p-5">
      <h1 className="text-23">Import a fleet</h1>
      <p className="max-w-[70ch] text-muted">
        A CSV with one line per axle: owner, unit, kind, plate, distance, hours, axle, role, wheels, brake,
        sheet. The export has the same form, so the easiest start is to export and change it. Nothing is saved
        until you say so.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <label className={buttonLook('plain')}>
          Choose a file
          <input
            type="file"
            accept=".csv,text/csv"
            className="sr-only"
            onChange={(e) => void read(e.target.files?.[0])}
          />
        </label>
        <Link to="/fleet/list" className="underline underline-offset-4">
          A list with a row per unit
        </Link>
        <a href="/api/exchange/fleet.csv" download className="underline underline-offset-4">
          Export the fleet as it is
        </a>
      </div>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {imported.error && <Note tone="trouble">{problemText(imported.error)}</Note>}
      {imported.data ? (
        <Note tone="good">
          {imported.data.goodCount} units are in.{' '}
          <Link className="underline" to="/fleet">
            See the fleet
          </Link>
        </Note>
      ) : (
        data && (
          <>
            <Preview preview={data} />
            <div>
              <Button
                weight="main"
                disabled={data.goodCount === 0 || isLoading || imported.isLoading}
                onClick={() => csv && void bringIn({ csv })}
              >
                Bring in {data.goodCount} {data.goodCount === 1 ? 'unit' : 'units'}
                {data.badCount > 0 && `, leave ${data.badCount} ${data.badCount === 1 ? 'row' : 'rows'} out`}
              </Button>
            </div>
          </>
        )
      )}
    </main>
  );
}
