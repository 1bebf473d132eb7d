import { useState } from 'react';
import { Link } from 'react-router';
import type { HistoryLine } from '@lanternwright/contract/fleet';
import { problemText } from '../api.ts';
import { formatDate, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useHistoryQuery } from './fleet-api.ts';

const FIRST_LINES = 12;
const FIRST_PHOTOS = 6;

/** Photos of a wheel end over all its jobs, newest first; each opens whole. */
function Photos({ lines, position }: { lines: readonly HistoryLine[]; position: string }) {
  const [all, setAll] = useState(false);
  const photos = lines.flatMap(({ photoId, ...line }) => (photoId ? [{ photoId, ...line }] : []));
  if (photos.length === 0) return null;
  return (
    <section aria-label={`Photos of ${position}`}>
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

function Lines({ lines, position }: { lines: readonly HistoryLine[]; position: string }) {
  const [all, setAll] = useState(false);
  if (lines.length === 0) return <p className="text-muted">Nothing was done on {position} yet.</p>;
  return (
    <>
      <ol>
        {(all ? lines : lines.slice(0, FIRST_LINES)).map((line, i) => (
          <li key={i} className="grid grid-cols-[110px_1fr] gap-3 border-b border-rule py-1.5 text-13">
            <span className="text-muted">{formatTime(line.at)}</span>
            <span>
              {line.text.replace(`${position}, `, '')}
              <span className="text-muted">
                {' '}
                {line.by},{' '}
                <Link className="underline underline-offset-2" to={`/jobs/${line.jobId}?at=${position}`}>
                  job {line.jobNumber}
                </Link>
              </span>
            </span>
          </li>
        ))}
      </ol>
      {!all && lines.length > FIRST_LINES && (
        <Button weight="quiet" onClick={() => setAll(true)}>
          All {lines.length} lines
        </Button>
      )}
    </>
  );
}

/** What was done on a wheel end, with the photos taken of it. */
export function UnitHistory({ id, position }: { id: string; position: string }) {
  const { data, error } = useHistoryQuery({ id, position });
  if (error) return <Note tone="trouble">{problemText(error)}</Note>;
  return (
    <>
      {data && <Photos lines={data} position={position} />}
      <section>
        <h2 className="pb-1 text-16">What was done on {position}</h2>
        {data && <Lines lines={data} position={position} />}
      </section>
    </>
  );
}
