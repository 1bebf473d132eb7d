import { useState } from 'react';
import { Link } from 'react-router';
import { VISITS_A_PAGE, type Visit } from '@lanternwright/contract/fleet';
import { works } from '@lanternwright/core/stack';
import { problemText } from '../api.ts';
import { formatDate, formatPlay, formatTime } from '../shell/words.ts';
import { useReader } from '../shell/use-reader.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Pager } from '../ui/pager.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useHistoryQuery, useVisitsQuery } from './fleet-api.ts';

const FIRST_PHOTOS = 6;

/** Every record of a visit, newest first. */
function Records({ id, visit, position }: { id: string; visit: Visit; position: string }) {
  const { data, error } = useHistoryQuery({ id, position, job: visit.jobId });
  if (error) return <Note tone="trouble">{problemText(error)}</Note>;
  if (!data) return <p className="py-2 text-13 text-muted">Opening.</p>;
  return (
    <ol className="pb-2">
      {data.map((line, i) => (
        <li key={i} className="grid grid-cols-[110px_1fr] gap-3 border-t border-rule py-1.5 text-13">
          <span className="text-muted">{formatTime(line.at)}</span>
          <span>
            {line.text.replace(`${position}, `, '')} <span className="text-muted">{line.by}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** End play as it came and as it left. */
function Play({ asFoundMm, asLeftMm, closedAt }: Visit) {
  const { length } = useReader();
  const said = [
    asFoundMm !== null && `found ${formatPlay(asFoundMm, length)}`,
    asLeftMm !== null && `${closedAt ? 'left' : 'now'} ${formatPlay(asLeftMm, length)}`,
  ].filter(Boolean);
  return <>{said.length > 0 ? said.join(', ') : 'not measured'}</>;
}

function VisitLine({ id, visit, position }: { id: string; visit: Visit; position: string }) {
  const [open, setOpen] = useState(false);
  const paper = visit.closedAt ? 'record' : 'traveller';
  return (
    <li className="border-b border-rule py-2">
      <div className="grid gap-x-3 sm:grid-cols-[110px_1fr_auto]">
        <span className="text-14 font-semibold">{formatDate(visit.openedAt)}</span>
        <span className="min-w-0">
          <span className="block text-14 font-semibold">
            {visit.works.map((w) => works[w]).join('; ')}
            {!visit.closedAt && <span className="font-normal text-muted">, open</span>}
          </span>
          <span className="figure block text-13">
            <Play {...visit} />
          </span>
          {visit.parts.length > 0 && (
            <span className="block text-13">
              {visit.parts.map((p, i) => (
                <span key={i}>
                  {i > 0 && ', '}
                  {p.quantity > 1 && `${p.quantity} × `}
                  <Link to={`/stores/${p.id}`} className="underline underline-offset-2">
                    {p.number}
                  </Link>{' '}
                  {p.title}
                  {p.batch && `, batch ${p.batch}`}
                </span>
              ))}
            </span>
          )}
          <span className="block text-13 text-muted">
            {visit.who && `${visit.who}, `}
            <Link className="underline underline-offset-2" to={`/jobs/${visit.jobId}?at=${position}`}>
              job {visit.jobNumber}
            </Link>
          </span>
        </span>
        <span className="flex items-start gap-3">
          <button
            type="button"
            aria-expanded={open}
            className="min-h-11 text-13 underline underline-offset-2"
            onClick={() => setOpen(!open)}
          >
            {open ? 'Hide its records' : 'Every record'}
          </button>
          <a
            className="flex min-h-11 items-center text-13 underline underline-offset-2"
            href={`/api/exchange/jobs/${visit.jobId}/${paper}.pdf`}
            download
          >
            {paper === 'record' ? 'Service record' : 'Traveller'}
          </a>
        </span>
      </div>
      {open && <Records {...{ id, visit, position }} />}
    </li>
  );
}

/** Photos of the visits that are shown, newest first; each opens whole. */
function Photos({ photos, position }: { photos: Visit['photos']; position: string }) {
  const [all, setAll] = useState(false);
  if (photos.length === 0) return null;
  return (
    <section aria-label={`Photos of ${position}`} className="pt-6">
      <h2 className="pb-1 text-16">Photos of {position}</h2>
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {(all ? photos : photos.slice(0, FIRST_PHOTOS)).map((p) => {
          const what = p.text.replace(`${position}, `, '');
          return (
            <li key={p.photoId} className="text-12 text-muted">
              <a href={`/api/jobs/photos/${p.photoId}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/jobs/photos/${p.photoId}`}
                  alt={what}
                  loading="lazy"
                  className="aspect-4/3 w-full rounded-sm border border-edge object-cover"
                />
              </a>
              {what}, {formatDate(p.at)},{' '}
              <Link className="underline underline-offset-2" to={`/jobs/${p.jobId}?at=${position}`}>
                job {p.jobNumber}
              </Link>
            </li>
          );
        })}
      </ul>
      {!all && photos.length > FIRST_PHOTOS && (
        <Button weight="quiet" onClick={() => setAll(true)}>
          All {photos.length} photos
        </Button>
      )}
    </section>
  );
}

/** What was done on a wheel end: a line a visit, to be searched; each unfolds to every record of it. */
export function UnitVisits({ id, position }: { id: string; position: string }) {
  const [search, setSearch] = useState('');
  const [page, setPage] = useState(1);
  const { data, error } = useVisitsQuery({ id, position, page, ...(search ? { search } : {}) });
  return (
    <section aria-label={`What was done on ${position}`}>
      <div className="flex flex-wrap items-end justify-between gap-3 pb-1">
        <h2 className="text-16">What was done on {position}</h2>
        <div className="w-full sm:w-[300px]">
          <TextField
            label="Search its visits"
            type="search"
            placeholder="seal 2024"
            value={search}
            onChange={(e) => {
              setSearch(e.target.value);
              setPage(1);
            }}
          />
        </div>
      </div>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {data?.total === 0 && (
        <p className="py-2 text-14 text-muted">
          {search ? `No visit says “${search}”.` : `Nothing was done on ${position} yet.`}
        </p>
      )}
      <ul>
        {data?.rows.map((visit) => (
          <VisitLine key={visit.jobId} {...{ id, visit, position }} />
        ))}
      </ul>
      {data && <Pager page={page} more={page * VISITS_A_PAGE < data.total} onPage={setPage} />}
      {data && <Photos photos={data.rows.flatMap((v) => v.photos)} position={position} />}
    </section>
  );
}
