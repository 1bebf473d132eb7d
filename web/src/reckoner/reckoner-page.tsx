import { useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import {
  describeCalculation,
  listCalculations,
  type CalculationDescription,
} from '@lanternwright/core/reckoner';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { KeepInJob, type ForJob } from './record-in-job.tsx';
import { groups, notes } from './notes.ts';
import { ResultTable } from './result-table.tsx';
import { InputForm } from './schema-field.tsx';
import type { JsonSchema } from './schema.ts';
import { useReckon, type Reckoning } from './use-reckon.ts';
import { views } from './views/index.ts';
import { useReader } from '../shell/use-reader.ts';

const KEPT = 'lanternwright.reckon.';
const titles = new Map(listCalculations().map((c) => [c.name, c.title]));

/** Input to begin with: from the address, else what was typed last, else the example. */
function firstInput({ name, example }: CalculationDescription): unknown {
  const sent = new URLSearchParams(window.location.search).get('i') ?? localStorage.getItem(KEPT + name);
  if (!sent) return example;
  try {
    return JSON.parse(sent);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return example;
  }
}

/** The part of an address that says for which job something is reckoned. */
function jobSearch({ job, at }: ForJob): string {
  return job ? `?${new URLSearchParams({ job, ...(at ? { at } : {}) })}` : '';
}

function SumList({ at, from }: { at: string; from: ForJob }) {
  return (
    <nav aria-label="Calculations" className="border-b border-rule p-4 md:border-r md:border-b-0">
      {groups.map((g) => (
        <section key={g.title} className="pb-3">
          <h2 className="caption pb-1">{g.title}</h2>
          <ul className="flex flex-wrap gap-1 md:flex-col md:gap-0">
            {g.names.map((name) => (
              <li key={name}>
                <Link
                  to={`/reckoner/${name}${jobSearch(from)}`}
                  aria-current={name === at ? 'page' : undefined}
                  className={`flex min-h-10 items-center rounded-sm px-2 text-14 ${name === at ? 'bg-lamp font-semibold' : 'hover:bg-side'}`}
                >
                  {titles.get(name)}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

function About({ sum }: { sum: CalculationDescription }) {
  const note = notes[sum.name];
  return (
    <section className="border-t border-rule pt-3 text-13">
      <h3 className="caption pb-1">How it is reckoned</h3>
      <p className="max-w-[72ch]">{note?.formula}</p>
      <h3 className="caption pt-2 pb-1">What it does not cover</h3>
      <p className="max-w-[72ch]">{note?.notCovered}</p>
      <h3 className="caption pt-2 pb-1">Sources</h3>
      <ul className="text-muted">
        {sum.sources.map((s) => (
          <li key={s.text}>
            {s.text}
            {s.mark === 'common-practice' && ', common practice'}
            {s.mark === 'from-memory' && ', recalled: confirm against the source'}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Copy({ result }: { result: unknown }) {
  const [copied, setCopied] = useState('');
  const copy = async (text: string, what: string) => {
    await navigator.clipboard.writeText(text);
    setCopied(what);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button onClick={() => void copy(JSON.stringify(result, null, 2), 'The result is copied')}>
        Copy the result
      </Button>
      <Button onClick={() => void copy(window.location.href, 'The address is copied')}>
        Copy the address
      </Button>
      <span role="status" className="text-13 text-muted">
        {copied}
      </span>
    </div>
  );
}

/** A sum that takes long: how far it is, and the way to stop it. */
function Running({ done, stopped, stop }: Pick<Reckoning, 'done' | 'stopped' | 'stop'>) {
  if (stopped) return <Note tone="plain">Stopped. Change something to reckon again.</Note>;
  const percent = Math.round((done ?? 0) * 100);
  return (
    <div className="flex items-center gap-4">
      <label className="flex flex-1 items-center gap-3 text-14 text-muted">
        <span className="shrink-0">Reckoning{done !== null && `, ${percent} %`}</span>
        {done !== null && <progress className="h-3 w-full" max={100} value={percent} />}
      </label>
      {done !== null && <Button onClick={stop}>Stop</Button>}
    </div>
  );
}

function Sum({ sum, from }: { sum: CalculationDescription; from: ForJob }) {
  const unit = useReader().length;
  const [input, setInput] = useState(() => firstInput(sum));
  const [accepted, setAccepted] = useState<unknown>(input);
  const { answer, running, done, stopped, stop } = useReckon(sum.name, input);
  const schema = sum.inputSchema as JsonSchema;
  const issues = useMemo(
    () =>
      answer && !answer.ok ? Object.fromEntries(answer.error.issues.map((i) => [i.path, i.message])) : {},
    [answer],
  );
  useEffect(() => {
    const text = JSON.stringify(input);
    localStorage.setItem(KEPT + sum.name, text);
    const search = new URLSearchParams(window.location.search);
    search.set('i', text);
    window.history.replaceState(window.history.state, '', `${window.location.pathname}?${search}`);
  }, [input, sum.name]);
  useEffect(() => {
    if (answer?.ok && !running) setAccepted(input);
  }, [answer, running, input]);
  const View = views[sum.name];
  return (
    <>
      <section aria-label="Input" className="border-b border-rule bg-side p-5 lg:border-r lg:border-b-0">
        <h1 className="text-23">{sum.title}</h1>
        <p className="pb-4 text-14 text-muted">{sum.summary}</p>
        <InputForm schema={schema} value={input} issues={issues} onChange={setInput} />
        <Button weight="quiet" onClick={() => setInput(sum.example)}>
          Take the example
        </Button>
      </section>
      <section aria-label="Result" aria-live="polite" className="flex min-w-0 flex-col gap-5 p-5">
        {answer && !answer.ok && <Note tone="trouble">{answer.error.message}</Note>}
        {(!answer || stopped || done !== null) && running && <Running {...{ done, stopped, stop }} />}
        {answer?.ok && (
          <>
            {View && <View input={running ? accepted : input} result={answer.result} unit={unit} />}
            <details open={!View}>
              <summary className="caption min-h-8">All figures</summary>
              <ResultTable result={answer.result as Record<string, unknown>} />
            </details>
            <div className="flex flex-wrap items-start gap-3">
              <Copy result={answer.result} />
              {!running && (
                <KeepInJob
                  sum={{ name: sum.name, title: sum.title, input, result: answer.result }}
                  from={from}
                />
              )}
            </div>
          </>
        )}
        {/* Below what is reckoned, once that stands. */}
        {answer && <About sum={sum} />}
      </section>
    </>
  );
}

/** Every sum of the trade, live as one types. */
export function ReckonerPage() {
  const { name = 'nut-setting' } = useParams();
  const sum = describeCalculation(name);
  const [params] = useSearchParams();
  const from: ForJob = { job: params.get('job'), at: params.get('at') };
  return (
    <main className="grid flex-1 md:grid-cols-[210px_1fr]">
      <SumList at={name} from={from} />
      <div className="grid min-w-0 content-start lg:content-stretch lg:grid-cols-[360px_1fr]">
        {sum ? (
          <Sum key={name} sum={sum} from={from} />
        ) : (
          <p className="p-5">There is no calculation of this name. Choose one from the list.</p>
        )}
      </div>
    </main>
  );
}
