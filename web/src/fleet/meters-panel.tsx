import { useState } from 'react';
import { METERS_A_PAGE, type MeterPage, type MeterRow } from '@lanternwright/contract/fleet';
import { meterSources } from '@lanternwright/core/record';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { formatDate, formatMeter } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Pager } from '../ui/pager.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useCorrectMeterMutation, useMetersQuery } from './fleet-api.ts';
import { ReadForm, SwapForm } from './meter-forms.tsx';
import { useReader } from '../shell/use-reader.ts';

type Asking = { what: 'read' } | { what: 'swap' } | { what: 'strike'; row: MeterRow } | null;

const isDoubted = ({ km, hours, totalKm, totalHours }: MeterRow) =>
  (km !== null && totalKm === null) || (hours !== null && totalHours === null);

function Readings({
  unitId,
  data,
  strike,
}: {
  unitId: string;
  data: MeterPage;
  strike: (row: MeterRow) => void;
}) {
  const reader = useReader();
  const able = useMay();
  return (
    <ul key={unitId}>
      {data.rows.map((row) => (
        <li
          key={row.nth}
          className="flex min-h-10 items-center justify-between gap-2 border-b border-rule text-13"
        >
          <span>
            <span className={`figure ${isDoubted(row) ? 'line-through' : ''}`}>
              {formatMeter(row.km, row.hours, reader)}
            </span>
            <span className="block text-12 text-muted">
              {formatDate(row.date)}, {meterSources[row.source].toLowerCase()}
              {isDoubted(row) && <b className="text-rust"> does not fit the others</b>}
            </span>
          </span>
          {able('change-fleet') && (
            <Button weight="quiet" onClick={() => strike(row)}>
              Strike out
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What a unit's meters read, and the acts on them. */
export function MetersPanel({
  unitId,
  km,
  hours,
}: {
  unitId: string;
  km: number | null;
  hours: number | null;
}) {
  const reader = useReader();
  const able = useMay();
  const [shown, setShown] = useState(false);
  const [page, setPage] = useState(1);
  const [asking, setAsking] = useState<Asking>(null);
  const { data, error } = useMetersQuery({ id: unitId, page }, { skip: !shown });
  const [correct, { error: refused, isLoading }] = useCorrectMeterMutation();
  const done = () => setAsking(null);
  const strike = async (row: MeterRow) => {
    const answer = await correct({ id: unitId, seenVersion: data!.version, nth: row.nth, right: null });
    if (!answer.error) done();
  };
  return (
    <section>
      <h2 className="pb-1 text-16">Meters</h2>
      <p className="figure pb-2 text-14">{formatMeter(km, hours, reader)}</p>
      {asking?.what === 'read' && <ReadForm unitId={unitId} onDone={done} />}
      {asking?.what === 'swap' && <SwapForm unitId={unitId} onDone={done} />}
      {asking?.what === 'strike' && (
        <Note tone="trouble">
          <p>
            {formatMeter(asking.row.km, asking.row.hours, reader)} of {formatDate(asking.row.date)} counts no
            more. It stays in the record, with your name.
          </p>
          {refused && <p>{problemText(refused)}</p>}
          <div className="flex flex-wrap gap-2 pt-2">
            <Button weight="grave" disabled={isLoading} onClick={() => void strike(asking.row)}>
              Strike this reading out
            </Button>
            <Button onClick={done}>Leave it</Button>
          </div>
        </Note>
      )}
      {asking === null && (
        <div className="flex flex-wrap gap-2">
          {able('read-meters') && (
            <>
              <Button onClick={() => setAsking({ what: 'read' })}>Read the meters</Button>
              <Button onClick={() => setAsking({ what: 'swap' })}>A meter was changed</Button>
            </>
          )}
          <Button weight="quiet" aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? 'Hide the readings' : 'All readings'}
          </Button>
        </div>
      )}
      {shown && error && <Note tone="trouble">{problemText(error)}</Note>}
      {shown && data && (
        <div className="pt-2">
          {data.swaps.map((s) => (
            <p key={`${s.of}${s.date}`} className="border-b border-rule py-2 text-13">
              {s.of === 'distance' ? 'Odometer' : 'Hour meter'} {s.why === 'swapped' ? 'changed' : 'set back'}{' '}
              {formatDate(s.date)}:{' '}
              <span className="figure">{Math.round(s.last).toLocaleString('en-GB')}</span> to{' '}
              <span className="figure">{Math.round(s.first).toLocaleString('en-GB')}</span>
            </p>
          ))}
          <Readings {...{ unitId, data }} strike={(row) => setAsking({ what: 'strike', row })} />
          {data.total === 0 && <p className="text-13 text-muted">Nobody has read them yet.</p>}
          <Pager page={page} more={page * METERS_A_PAGE < data.total} onPage={setPage} />
        </div>
      )}
    </section>
  );
}
