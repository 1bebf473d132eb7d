import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { MovementRow, StorePart } from '@lanternwright/contract/stores';
import { formatMoney } from '@lanternwright/core/cost';
import { thickeners } from '@lanternwright/core/lubricant';
import { lipFacings, partKinds } from '@lanternwright/core/part';
import { stockMoves } from '@lanternwright/core/record';
import { partLines } from '@lanternwright/core/route';
import { problemText } from '../api.ts';
import { PageProblem } from '../form-problem.tsx';
import { useMay } from '../people/people-api.ts';
import { useNewestSheets } from '../sheets/sheets-api.ts';
import { useReader } from '../shell/use-reader.ts';
import { formatDate, formatTime } from '../shell/words.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { keeperMoves, MovementForm, type KeeperMove } from './movement-form.tsx';
import { PartForm } from './part-form.tsx';
import { PartSection } from './part-section.tsx';
import { dimsInMm, dimsWords, stockWords } from './part-words.ts';
import { useBatchQuery, usePartQuery } from './stores-api.ts';

/** What may be told of a part as it stands: nothing can come back that is not lent. */
const movesOf = ({ onHand, lent, cores }: StorePart): KeeperMove[] => [
  ...(['received', 'counted'] as const),
  ...(onHand > 0 ? (['moved', 'lent', 'scrapped'] as const) : []),
  ...(lent.length > 0 ? (['lent-back'] as const) : []),
  ...(cores > 0 ? (['core-returned'] as const) : []),
];

function Movement({ row }: { row: MovementRow }) {
  const {
    what,
    quantity,
    change,
    place,
    to,
    who,
    jobId,
    jobNumber,
    position,
    reason,
    price,
    reference,
    batch,
  } = row;
  return (
    <li className="grid gap-x-4 border-b border-rule py-2 text-14 sm:grid-cols-[120px_60px_1fr]">
      <span className="text-13 text-muted">{formatTime(row.at)}</span>
      <span className="figure font-semibold">{change > 0 ? `+${change}` : change}</span>
      <span>
        {stockMoves[what]}
        {what === 'counted' ? `: ${quantity} at ${place}` : `, ${place}`}
        {to && ` to ${to}`}
        {what === 'moved' && `, ${quantity}`}
        {who && `, ${who}`}
        {jobId && (
          <>
            ,{' '}
            <Link className="underline underline-offset-2" to={`/jobs/${jobId}?at=${position ?? ''}`}>
              job {jobNumber}, {position}
            </Link>
          </>
        )}
        {price && <span className="figure text-13"> at {formatMoney(price.minor, price.currency)}</span>}
        {batch && (
          <>
            , batch{' '}
            <Link
              className="underline underline-offset-2"
              to={`?${new URLSearchParams({ batch }).toString()}`}
            >
              {batch}
            </Link>
          </>
        )}
        {reference && `, their number ${reference}`}
        {reason && `: ${reason}`} <span className="text-muted">{row.byName}</span>
      </span>
    </li>
  );
}

function Facts({ found: { part, cores } }: { found: StorePart }) {
  const sheets = useNewestSheets();
  const fits = part.fits.map(({ sheetId, line }) => {
    const sheet = sheets.find((s) => s.sheetId === sheetId)?.title ?? sheetId;
    return `${partLines[line] ?? line}: ${sheet}`;
  });
  const money = part.price && formatMoney(part.price.minor, part.price.currency);
  const rows: [string, string | null][] = [
    ['Other numbers', part.crossings.join(', ') || null],
    ['Fits', fits.join('; ') || null],
    ['Thickener', part.thickener ? thickeners[part.thickener] : null],
    ['Category', part.category ?? null],
    ['Lips', part.lips && `${part.lips.count}, ${lipFacings[part.lips.facing].toLowerCase()}`],
    ['Price of one', money],
    ['Old one back', part.core && formatMoney(part.core.minor, part.core.currency)],
    ['Old ones here', cores > 0 ? String(cores) : null],
    ['Supplier', part.supplier || null],
    ['Order to shelf', part.leadDays === null ? null : `${part.leadDays} days`],
    ['Order again', part.reorderLevel === null ? null : `when ${part.reorderLevel} are free`],
  ];
  return (
    <dl className="grid grid-cols-[110px_1fr] gap-x-3 gap-y-1 text-14">
      {rows.map(
        ([name, value]) =>
          value && (
            <div key={name} className="contents">
              <dt className="text-muted">{name}</dt>
              <dd className="figure text-13">{value}</dd>
            </div>
          ),
      )}
    </dl>
  );
}

/** What was paid for one, and how that has changed. */
function Paid({ paid }: Pick<StorePart, 'paid'>) {
  if (paid.length === 0) return null;
  return (
    <section>
      <h2 className="pb-1 text-16">Paid for one</h2>
      <ul className="text-14">
        {paid.map(({ at, price, orderNumber }, i) => {
          const before = paid[i + 1]?.price;
          const more =
            before && before.currency === price.currency && before.minor > 0
              ? Math.round((price.minor / before.minor - 1) * 1000) / 10
              : 0;
          return (
            <li key={at} className="flex flex-wrap justify-between gap-x-3 border-b border-rule py-1.5">
              <span>
                {formatDate(at)}
                {orderNumber !== null && <span className="text-muted">, order {orderNumber}</span>}
              </span>
              <span className="figure text-13">
                {formatMoney(price.minor, price.currency)}
                {more !== 0 && (
                  <span className={more > 0 ? 'text-rust' : 'text-muted'}>
                    {' '}
                    {more > 0 ? '+' : '−'}
                    {Math.abs(more)} %
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Shelves({ found }: { found: StorePart }) {
  const { places, lent, reservations } = found;
  return (
    <section>
      <h2 className="text-18">{stockWords(found)}</h2>
      <ul className="text-14">
        {places.map(({ place, quantity }) => (
          <li key={place} className="flex justify-between border-b border-rule py-2">
            {place} <span className="figure">{quantity}</span>
          </li>
        ))}
        {lent.map(({ who, quantity }) => (
          <li key={who} className="flex justify-between border-b border-rule py-2 text-muted">
            Lent to {who} <span className="figure">{quantity}</span>
          </li>
        ))}
        {reservations.map((r) => (
          <li key={r.id} className="flex justify-between border-b border-rule py-2">
            <Link className="underline underline-offset-2" to={`/jobs/${r.jobId}?at=${r.position}`}>
              Kept for job {r.jobNumber}, {r.unit}, {r.position}
            </Link>
            <span className="figure">{r.quantity}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** On which units a batch is, so that they can be called back. */
function BatchUses({ partId, batch }: { partId: string; batch: string }) {
  const { data, error } = useBatchQuery({ id: partId, batch });
  const units = new Set(data?.map((u) => u.unitId)).size;
  return (
    <section aria-label={`Batch ${batch}`} className="rounded-md border border-lamp-edge bg-lamp p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-18">
          Batch {batch}
          {data && ` is on ${units === 1 ? '1 unit' : `${units} units`}`}
        </h2>
        <Link to="?" className="inline-flex min-h-11 items-center text-14 underline underline-offset-2">
          Close
        </Link>
      </div>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <ul className="text-14">
        {data?.map((u) => (
          <li
            key={`${u.jobId} ${u.position}`}
            className="flex flex-wrap justify-between gap-x-4 border-t border-rule"
          >
            <Link
              className="min-h-11 py-2.5 font-semibold underline underline-offset-2"
              to={`/fleet/${u.unitId}?at=${u.position}`}
            >
              {u.unit}, {u.position}
            </Link>
            <span className="py-2.5 text-13">
              {u.owner}. {u.quantity} on {formatDate(u.at)},{' '}
              <Link className="underline underline-offset-2" to={`/jobs/${u.jobId}?at=${u.position}`}>
                job {u.jobNumber}
              </Link>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function PartView({ found }: { found: StorePart }) {
  const reader = useReader();
  const able = useMay();
  const [doing, setDoing] = useState<KeeperMove | 'change' | null>(null);
  const { part, movements, supersededBy } = found;
  const batch = useSearchParams()[0].get('batch');
  const dims = dimsInMm(part.dims);
  const done = () => setDoing(null);
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-4 border-b border-rule px-5 py-4">
        <div>
          <h1 className="text-23">
            <span className="figure">{part.number}</span>
          </h1>
          <p className="text-14 text-muted">
            {partKinds[part.kind].title} · {part.title}
          </p>
        </div>
        {able('keep-stores') && (
          <div className="flex flex-wrap gap-2">
            {movesOf(found).map((what, i) => (
              <Button key={what} weight={i === 0 ? 'main' : 'plain'} onClick={() => setDoing(what)}>
                {keeperMoves[what].title}
              </Button>
            ))}
            <a href={`/api/stores/parts/${part.id}/labels.pdf?copies=3`} className={buttonLook('plain')}>
              Labels
            </a>
            <Button weight="quiet" onClick={() => setDoing('change')}>
              Change
            </Button>
          </div>
        )}
      </div>
      <div className="grid lg:grid-cols-[1fr_340px]">
        <div className="flex min-w-0 flex-col gap-5 p-5">
          {supersededBy && (
            <Note tone="plain">
              Replaced by{' '}
              <Link className="underline underline-offset-2" to={`/stores/${supersededBy.id}`}>
                {supersededBy.number}
              </Link>
              .
            </Note>
          )}
          {doing === 'change' && <PartForm part={found} onDone={done} />}
          {doing && doing !== 'change' && (
            <MovementForm key={doing} found={found} what={doing} onDone={done} />
          )}
          {batch && <BatchUses partId={part.id} batch={batch} />}
          <Shelves found={found} />
          <section>
            <h2 className="pb-1 text-18">What happened to it</h2>
            <ul>
              {movements.map((row) => (
                <Movement key={row.version} row={row} />
              ))}
            </ul>
            {movements.length === 0 && <p className="text-14 text-muted">Nothing yet.</p>}
          </section>
        </div>
        <aside className="flex flex-col gap-4 border-rule bg-side p-5 lg:border-l">
          {Object.keys(dims).length > 0 && (
            <figure className="flex flex-col gap-1">
              <PartSection part={{ dims, lips: part.lips }} label={`${part.number} in section, to scale`} />
              <figcaption className="figure text-13">{dimsWords(part, reader)}</figcaption>
            </figure>
          )}
          <Facts found={found} />
          <Paid paid={found.paid} />
        </aside>
      </div>
    </main>
  );
}

/** A part of the store. */
export function PartPage() {
  const { id } = useParams();
  const { currentData: found, error } = usePartQuery(id!);
  if (error && !found) return <PageProblem error={error} />;
  return found ? <PartView found={found} /> : null;
}
