import { useState } from 'react';
import { METERS_A_PAGE, type MeterPage, type MeterRow } from '@lanternwright/contract/fleet';
import { meterSources } from '@lanternwright/core/record';
import { parseQuantity } from '@lanternwright/core/quantity';
import { problemFields, problemText } from '../api.ts';
import { Choices } from '../jobs/step-form-parts.tsx';
import { useMay } from '../people/people-api.ts';
import { formatDate, formatMeter, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Pager } from '../ui/pager.tsx';
import { Note } from '../ui/problem-note.tsx';
import {
  useAddMeterMutation,
  useCorrectMeterMutation,
  useMetersQuery,
  useSwapMeterMutation,
} from './fleet-api.ts';
import { PanelForm } from './panel-form.tsx';
import { useReader } from '../shell/use-reader.ts';
import { eitherUnit } from '../shell/words.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

type Asking = { what: 'read' } | { what: 'swap' } | { what: 'strike'; row: MeterRow } | null;

const distanceOf = (text: string, reader: ReaderUnits) => parseQuantity(text, ['km', 'mi'], reader.distance);
const hoursOf = (text: string) => parseQuantity(text, ['h'], 'h');

function ReadForm({ unitId, onDone }: { unitId: string; onDone: () => void }) {
  const reader = useReader();
  const [date, setDate] = useState('');
  const [distance, setDistance] = useState('');
  const [hours, setHours] = useState('');
  const [bad, setBad] = useState<Record<string, string>>({});
  const [add, { isLoading, error }] = useAddMeterMutation();
  const refused = { ...problemFields(error), ...bad };
  const save = async (sure: boolean) => {
    const [km, h] = [distanceOf(distance, reader), hoursOf(hours)];
    const wrong = {
      ...(date === '' ? { date: 'Say the day' } : {}),
      ...(distance.trim() !== '' && !km.ok ? { distance: km.message } : {}),
      ...(hours.trim() !== '' && !h.ok ? { hours: h.message } : {}),
      ...(distance.trim() === '' && hours.trim() === '' ? { distance: 'Say what one of them reads' } : {}),
    };
    setBad(wrong);
    if (Object.keys(wrong).length > 0) return;
    const meter = { ...(km.ok ? { distance: km.quantity } : {}), ...(h.ok ? { hours: h.quantity } : {}) };
    const answer = await add({ id: unitId, date, sure, ...meter });
    if (!answer.error) onDone();
  };
  const doubted = error !== undefined && Object.keys(problemFields(error)).some((f) => f !== 'date');
  return (
    <PanelForm
      {...{ error, isLoading, onDone }}
      button="Keep this reading"
      also={
        doubted && (
          <Button disabled={isLoading} onClick={() => void save(true)}>
            I looked again: keep it as it is
          </Button>
        )
      }
      onSave={() => void save(false)}
    >
      <TextField
        label="Day"
        type="date"
        max={shopToday()}
        value={date}
        error={refused['date']}
        onChange={(e) => setDate(e.target.value)}
      />
      <TextField
        label={`Odometer, optional, ${eitherUnit(reader, 'distance')}`}
        placeholder="611,240 km"
        value={distance}
        error={refused['distance']}
        onChange={(e) => setDistance(e.target.value)}
      />
      <TextField
        label="Hour meter, optional"
        placeholder="4,210 h"
        value={hours}
        error={refused['hours']}
        onChange={(e) => setHours(e.target.value)}
      />
    </PanelForm>
  );
}

const meters = [
  ['distance', 'Odometer'],
  ['hours', 'Hour meter'],
] as const;
const reasons = [
  ['swapped', 'Another one was put in'],
  ['set-back', 'It was set back, or ran over'],
] as const;

function SwapForm({ unitId, onDone }: { unitId: string; onDone: () => void }) {
  const reader = useReader();
  const [of, setOf] = useState<'distance' | 'hours' | ''>('');
  const [why, setWhy] = useState<'swapped' | 'set-back' | ''>('');
  const [date, setDate] = useState('');
  const [last, setLast] = useState('');
  const [first, setFirst] = useState('');
  const [bad, setBad] = useState<Record<string, string>>({});
  const [swap, { isLoading, error }] = useSwapMeterMutation();
  const refused = { ...problemFields(error), ...bad };
  const valueOf = (text: string) => {
    const read = of === 'hours' ? hoursOf(text) : distanceOf(text, reader);
    if (!read.ok) return null;
    return of === 'hours' ? read.quantity.value : read.quantity.si / 1000;
  };
  const save = async () => {
    const [old, now] = [valueOf(last), valueOf(first)];
    const wrong = {
      ...(of === '' || why === '' ? { of: 'Say which one, and why' } : {}),
      ...(date === '' ? { date: 'Say the day' } : {}),
      ...(old === null ? { last: 'Say what the old one read at its end' } : {}),
      ...(now === null ? { first: 'Say what it began at' } : {}),
    };
    setBad(wrong);
    if (of === '' || why === '' || date === '' || old === null || now === null) return;
    const answer = await swap({ id: unitId, of, why, date, last: old, first: now });
    if (!answer.error) onDone();
  };
  return (
    <PanelForm
      {...{ error, isLoading, onDone }}
      button="Count on from the new one"
      onSave={() => void save()}
    >
      <Choices legend="Which meter" name="of" choices={meters} chosen={of} onChoose={setOf} />
      <Choices legend="What happened" name="why" choices={reasons} chosen={why} onChoose={setWhy} />
      {refused['of'] && <Note tone="trouble">{refused['of']}</Note>}
      <TextField
        label="Day"
        type="date"
        max={shopToday()}
        value={date}
        error={refused['date']}
        onChange={(e) => setDate(e.target.value)}
      />
      <TextField
        label="The old one read at its end"
        value={last}
        error={refused['last']}
        onChange={(e) => setLast(e.target.value)}
      />
      <TextField
        label="The new one began at"
        value={first}
        error={refused['first']}
        onChange={(e) => setFirst(e.target.value)}
      />
    </PanelForm>
  );
}

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
