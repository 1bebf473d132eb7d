import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Found, MeasuredPart, PartLine } from '@lanternwright/contract/stores';
import { measuredIds, partKinds, sealAdvice, type OldPart } from '@lanternwright/core/part';
import { PageProblem } from '../form-problem.tsx';
import { useMay } from '../people/people-api.ts';
import { usePageNumber } from '../shell/use-page-number.ts';
import { useReader } from '../shell/use-reader.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { MeasureForm, measuredIn } from './measure-form.tsx';
import { DayList } from './day-list.tsx';
import { ShortageList } from './shortage-list.tsx';
import { OrderList } from './order-list.tsx';
import { PartKindField } from './part-choices.tsx';
import { PartForm } from './part-form.tsx';
import { PartSection } from './part-section.tsx';
import { dimsInMm, dimsWords, offWords, stockWords } from './part-words.ts';
import { usePartsByMeasureQuery, usePartsQuery } from './stores-api.ts';
import { useExactParts } from './use-exact-parts.ts';

const CameraReader = lazy(() => import('./camera-reader.tsx').then((m) => ({ default: m.CameraReader })));

const foundWords: Record<Found['how'], (number: string) => string | null> = {
  same: () => 'its own number',
  crossing: (number) => `crosses from ${number}`,
  like: (number) => `reads like ${number}`,
  near: (number) => `nearly ${number}: look again at the old one`,
  title: () => null,
  listed: () => null,
};

/** Where a part lies and how many of it are free. */
function Stock({ part }: { part: PartLine }) {
  const places = part.places.map((p) => `${p.place}: ${p.quantity}`).join(', ');
  const short = part.reserved > part.onHand;
  const low = part.reorderLevel !== null && part.onHand - part.reserved <= part.reorderLevel;
  return (
    <span className="text-13 md:text-right">
      <span className={`block ${short ? 'font-semibold text-rust' : ''}`}>{stockWords(part)}</span>
      <span className="block text-muted">
        {places}
        {low && !short && `${places ? ', ' : ''}order again`}
      </span>
    </span>
  );
}

function Named({ part, found }: { part: PartLine; found: string | null }) {
  return (
    <span>
      <span className="block text-16">
        <span className="figure font-semibold">{part.number}</span> {part.title}
      </span>
      <span className="block text-13 text-muted">
        {partKinds[part.kind].title}
        {found && `, ${found}`}
        {part.supersededBy && (
          <span className="font-semibold text-ink">, replaced by {part.supersededBy.number}</span>
        )}
      </span>
    </span>
  );
}

function ByNumber() {
  const [params, setParams] = useSearchParams();
  const [page, turnTo] = usePageNumber();
  const navigate = useNavigate();
  const exactParts = useExactParts();
  const [camera, setCamera] = useState(false);
  /** A number that no part has, or more than one. */
  const [strange, setStrange] = useState<{ number: string; parts: number } | null>(null);
  const text = params.get('text') ?? '';
  const kind = (params.get('kind') as PartLine['kind'] | null) ?? undefined;
  const { currentData: data, error } = usePartsQuery({ text, kind, page });
  const ask = (name: string, value: string) => {
    const next = new URLSearchParams(window.location.search);
    next.delete('page');
    if (value) next.set(name, value);
    else next.delete(name);
    setParams(next, { replace: true });
  };
  // A reader of labels types the number and Enter: the part opens, whatever is asked for the next moment.
  const open = async (typed: string) => {
    const exact = await exactParts(typed, kind);
    if (exact.length === 1) void navigate(`/stores/${exact[0]!.id}`);
    setStrange(exact.length > 1 ? { number: typed.trim(), parts: exact.length } : null);
    return exact.length;
  };
  const readLabel = async (number: string) => {
    setCamera(false);
    const parts = await open(number);
    if (parts === 0) setStrange({ number, parts });
    if (parts > 1) ask('text', number);
  };
  return (
    <>
      <form
        className="grid gap-3 sm:grid-cols-[1fr_220px]"
        onSubmit={(e) => {
          e.preventDefault();
          void open(String(new FormData(e.currentTarget).get('number') ?? ''));
        }}
      >
        <TextField
          label="Number, or words"
          hint="As it is read off the old part: ? for a sign that cannot be read, * for any number of them"
          className="figure"
          name="number"
          autoFocus
          defaultValue={text}
          maxLength={80}
          onChange={(e) => ask('text', e.target.value.trim())}
        />
        <PartKindField none="Any part" value={kind ?? ''} onChange={(e) => ask('kind', e.target.value)} />
      </form>
      {camera ? (
        <Suspense>
          <CameraReader onRead={(number) => void readLabel(number)} onClose={() => setCamera(false)} />
        </Suspense>
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <Button
            onClick={() => {
              setStrange(null);
              setCamera(true);
            }}
          >
            Read a label
          </Button>
          {strange !== null && (
            <p role="status" className="text-14 text-rust">
              <span className="figure">{strange.number}</span>:{' '}
              {strange.parts === 0
                ? 'no part of the store has this number'
                : `${strange.parts} parts have this number. Choose one`}
            </p>
          )}
        </div>
      )}
      {error && <PageProblem error={error} />}
      {data && (
        <ul aria-label="Parts" className="border-t border-rule">
          {data.parts.map((part) => (
            <li key={part.id} className="border-b border-rule">
              <Link
                to={`/stores/${part.id}`}
                className="grid min-h-14 items-center gap-x-4 gap-y-1 py-2 hover:bg-side md:grid-cols-[1fr_260px]"
              >
                <Named part={part} found={foundWords[part.found.how](part.found.number)} />
                <Stock part={part} />
              </Link>
            </li>
          ))}
        </ul>
      )}
      {data?.parts.length === 0 && (
        <p className="text-16 text-muted">
          {text === ''
            ? 'There are no parts yet. A storekeeper or a supervisor adds them.'
            : 'No part has this number, nor one that is nearly it. Measure the old one instead.'}
        </p>
      )}
      {data && (data.more || page > 1) && (
        <div className="flex items-center gap-3">
          <Button disabled={page === 1} onClick={() => turnTo(page - 1)}>
            Before
          </Button>
          <Button disabled={!data.more} onClick={() => turnTo(page + 1)}>
            More
          </Button>
        </div>
      )}
    </>
  );
}

function Candidate({ part, old, tolerance }: { part: MeasuredPart; old: OldPart; tolerance: number }) {
  const reader = useReader();
  const dims = dimsInMm(part.dims);
  const advice = part.kind === 'seal' && !part.fit.fits ? sealAdvice(part.fit, tolerance) : null;
  return (
    <li className="grid items-center gap-x-4 gap-y-2 border-b border-rule py-3 sm:grid-cols-[160px_1fr] md:grid-cols-[160px_1fr_240px]">
      <PartSection
        part={{ dims, lips: part.lips }}
        old={old}
        label={`${part.number} in section, the old one in dashed lines over it`}
      />
      <div className="flex flex-col gap-1">
        <Link to={`/stores/${part.id}`} className="flex min-h-12 items-center hover:underline">
          <Named part={part} found={null} />
        </Link>
        <p className="figure text-13">{dimsWords(part, reader)}</p>
        <p className={`text-14 ${part.fit.fits ? 'font-semibold text-pine' : ''}`}>
          {part.fit.fits ? 'Fits: ' : ''}
          {offWords(part.fit.off, reader)}
          {part.fit.unknown.length > 0 && `. Not known of it: ${part.fit.unknown.join(', ')}`}
          {part.fit.lips === 'other' && '. Its lips are others'}
          {part.fit.lips === 'unknown' && '. Number of lips unknown'}
        </p>
        {advice && (
          <p className="text-13">
            {advice.text}{' '}
            {advice.sum && (
              <Link className="underline underline-offset-2" to={`/reckoner/${advice.sum}`}>
                Reckon its depth
              </Link>
            )}
          </p>
        )}
      </div>
      <Stock part={part} />
    </li>
  );
}

function ByMeasure() {
  const [params] = useSearchParams();
  const asked = measuredIn(params);
  const { currentData: data, error } = usePartsByMeasureQuery(asked!, { skip: asked === null });
  const taken = measuredIds.flatMap((what) => (asked?.[what] ? [[what, asked[what]] as const] : []));
  const old: OldPart = {
    dims: Object.fromEntries(taken),
    ...(asked?.lips && asked.facing ? { lips: { count: asked.lips, facing: asked.facing } } : {}),
  };
  return (
    <>
      <MeasureForm />
      {error && <PageProblem error={error} />}
      {asked && data && (
        <ul aria-label="What is near it" className="border-t border-rule">
          {data.map((part) => (
            <Candidate key={part.id} part={part} old={old} tolerance={asked.tolerance} />
          ))}
        </ul>
      )}
      {asked && data?.length === 0 && (
        <p className="text-16 text-muted">
          Nothing of that size is on the list. Measure it once more across another place: an old part is worn
          and out of round.
        </p>
      )}
    </>
  );
}

/** The store: parts by their number, or by what a caliper reads of the old one. */
export function StoresPage() {
  const able = useMay();
  const [params] = useSearchParams();
  const [adding, setAdding] = useState(false);
  const by = params.get('by');
  const ways = [
    ...(able('keep-stores') ? [{ to: '/stores?by=day', title: 'Today', on: by === 'day' }] : []),
    { to: '/stores', title: 'By number', on: by === null },
    { to: '/stores?by=measure', title: 'By measuring', on: by === 'measure' },
    { to: '/stores?by=shortage', title: 'Shortages', on: by === 'shortage' },
    ...(able('keep-stores') ? [{ to: '/stores?by=order', title: 'Orders', on: by === 'order' }] : []),
  ];
  return (
    <main className="mx-auto flex w-full max-w-[1080px] flex-col gap-5 p-5">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <h1 className="text-23">Stores</h1>
        {able('keep-stores') && !adding && (
          <Button weight="main" onClick={() => setAdding(true)}>
            Add a part
          </Button>
        )}
      </div>
      {adding && <PartForm part={null} onDone={() => setAdding(false)} />}
      <nav aria-label="Parts by" className="flex flex-wrap gap-2">
        {ways.map(({ to, title, on }) => (
          <Link
            key={to}
            to={to}
            aria-current={on ? 'page' : undefined}
            className={`flex min-h-12 items-center rounded-lg border px-4 text-16 font-semibold ${on ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel hover:bg-side'}`}
          >
            {title}
          </Link>
        ))}
      </nav>
      {by === 'measure' ? (
        <ByMeasure key={params.toString()} />
      ) : by === 'shortage' ? (
        <ShortageList />
      ) : by === 'day' ? (
        <DayList />
      ) : by === 'order' ? (
        <OrderList />
      ) : (
        <ByNumber />
      )}
    </main>
  );
}
