import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { MeterFile, MeterReport } from '@lanternwright/contract/exchange';
import { problemText } from '../api.ts';
import { formatDate } from '../shell/words.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { FeedPanel } from './feed-panel.tsx';
import {
  useDropMeterFileMutation,
  useMeterFileQuery,
  useSendMeterFileMutation,
  useTakeMeterFileMutation,
} from './meter-files-api.ts';

const POLL_MS = 700;
const count = (n: number, one: string, many = `${one}s`) =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

function Figure({ n, what, tone = '' }: { n: number; what: string; tone?: string }) {
  return (
    <div>
      <dd className={`figure text-26 ${n > 0 ? tone : 'text-muted'}`}>{n.toLocaleString('en')}</dd>
      <dt className="text-13 text-muted">{what}</dt>
    </div>
  );
}

function Report({ id, report }: { id: string; report: MeterReport }) {
  const { kept, known, doubtful, badCount, bad, units, from, until, distanceIn } = report;
  return (
    <>
      <dl className="flex flex-wrap gap-x-10 gap-y-3">
        <Figure n={kept} what="new readings" tone="text-pine" />
        <Figure n={known} what="known already" />
        <Figure n={doubtful} what="do not fit the others" tone="text-rust" />
        <Figure n={badCount} what="lines cannot be taken" tone="text-rust" />
      </dl>
      <p className="text-14">
        Of {count(units, 'unit')}
        {from && until && `, from ${formatDate(from)} to ${formatDate(until)}`}. The odometer is read in{' '}
        {distanceIn === 'km' ? 'km' : 'miles'}.
        {doubtful > 0 &&
          ' Readings that do not fit are saved, not counted, and listed on the Floor: an odometer may have been changed.'}
      </p>
      {bad.length > 0 && (
        <section aria-label="Lines that cannot be taken">
          <div className="flex flex-wrap items-baseline gap-4 pb-1">
            <h3 className="text-16">Lines that cannot be taken</h3>
            <a href={`/api/exchange/meters/${id}/bad.csv`} download className="text-14 underline">
              All of them as CSV
            </a>
          </div>
          <ul className="max-h-[42vh] overflow-y-auto">
            {bad.map((b) => (
              <li
                key={`${b.line} ${b.reason}`}
                className="grid gap-x-4 border-b border-rule py-2 text-14 sm:grid-cols-[90px_260px_1fr]"
              >
                <span className="figure text-muted">line {b.line.toLocaleString('en')}</span>
                <span className="truncate">{b.text}</span>
                <span className="font-semibold text-rust">{b.reason}</span>
              </li>
            ))}
          </ul>
          {badCount > bad.length && (
            <p className="py-2 text-13 text-muted">
              and {count(badCount - bad.length, 'more line', 'more lines')}
            </p>
          )}
        </section>
      )}
    </>
  );
}

function Sent({ file, away }: { file: MeterFile; away: () => void }) {
  const [take, taking] = useTakeMeterFileMutation();
  const [drop, dropping] = useDropMeterFileMutation();
  const putAway = async () => {
    if (!(await drop(file.id)).error) away();
  };
  const { state, report, reason } = file;
  const works = state === 'reading' || state === 'taking';
  const error = taking.error ?? dropping.error;
  return (
    <section
      aria-label={file.name}
      className="flex flex-col gap-4 rounded-lg border border-edge bg-panel p-5"
    >
      <h2 className="text-18">{file.name}</h2>
      {works && (
        <div className="flex max-w-[560px] flex-col gap-2">
          <p className="text-16">
            {state === 'reading'
              ? 'The file is being read. Nothing is saved yet.'
              : 'It is being brought in, all of it or nothing.'}
          </p>
          <progress className="h-3 w-full accent-action" max={1} value={file.done} aria-label="Progress" />
        </div>
      )}
      {(state === 'refused' || state === 'failed') && <Note tone="trouble">{reason}</Note>}
      {state === 'taken' && report && (
        <Note tone="good">
          {count(report.kept, 'reading')} of {count(report.units, 'unit')} {report.kept === 1 ? 'is' : 'are'}{' '}
          in, as one record.{' '}
          <Link className="underline" to={report.doubtful > 0 ? '/floor' : '/plan'}>
            {report.doubtful > 0 ? 'See what does not fit' : 'See what is due'}
          </Link>
        </Note>
      )}
      {report && <Report id={file.id} report={report} />}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div className="flex flex-wrap gap-3">
        {state === 'read' && report && report.kept > 0 && (
          <Button weight="main" disabled={taking.isLoading} onClick={() => void take(file.id)}>
            Bring in {count(report.kept, 'reading')}
          </Button>
        )}
        {state === 'taken' ? (
          <Button onClick={away}>Another file</Button>
        ) : (
          <Button disabled={dropping.isLoading} onClick={() => void putAway()}>
            {works ? 'Stop' : 'Put it away'}
          </Button>
        )}
      </div>
    </section>
  );
}

/** Readings of meters from a file and from the units' own feed. */
export function MeterFilesPage() {
  const [params, setParams] = useSearchParams();
  const id = params.get('file') ?? '';
  const [send, sending] = useSendMeterFileMutation();
  const [rests, setRests] = useState(false);
  const { data, error } = useMeterFileQuery(id, { skip: id === '', pollingInterval: rests ? 0 : POLL_MS });
  const works = data === undefined || data.state === 'reading' || data.state === 'taking';
  if (rests === works) setRests(!works);
  const file = id === '' ? undefined : data;
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    const answer = await send(chosen);
    if (answer.data) setParams({ file: answer.data.id });
  };
  return (
    <main className="mx-auto flex w-full max-w-[1100px] flex-col gap-5 p-5">
      <div>
        <h1 className="text-23">Readings of meters</h1>
        <p className="max-w-[75ch] pt-1 text-muted">
          A CSV with a line for each reading: unit (or plate), date, km or miles, hours; owner where two have
          a unit of one name. Any order of columns. What would come of it is shown first.
        </p>
      </div>
      {file ? (
        <Sent file={file} away={() => setParams({})} />
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <label className={`${buttonLook('main')} ${sending.isLoading ? 'opacity-50' : 'cursor-pointer'}`}>
            {sending.isLoading ? 'It is being sent' : 'Choose a file'}
            <input
              type="file"
              accept=".csv,text/csv"
              className="sr-only"
              disabled={sending.isLoading}
              onChange={(e) => void choose(e.target.files?.[0])}
            />
          </label>
        </div>
      )}
      {(sending.error ?? (id !== '' && error)) && (
        <Note tone="trouble">{problemText(sending.error ?? error)}</Note>
      )}
      <FeedPanel />
    </main>
  );
}
