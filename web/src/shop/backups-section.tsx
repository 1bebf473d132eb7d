import { problemText } from '../api.ts';
import { useBackupsQuery } from '../people/people-api.ts';
import { formatTime } from '../shell/words.ts';
import { Note } from '../ui/problem-note.tsx';

const HOUR_MS = 3_600_000;
/** One is made every night: after this long one was left out. */
const LATE_HOURS = 26;

/** How old something is, in the unit a person would say it in. */
function formatAge(iso: string): string {
  const hours = Math.floor((Date.now() - Date.parse(iso)) / HOUR_MS);
  if (hours < 1) return 'less than an hour old';
  if (hours < 48) return `${hours} ${hours === 1 ? 'hour' : 'hours'} old`;
  return `${Math.floor(hours / 24)} days old`;
}

/** When the shop was last backed up, and whether that is long enough ago to look into. */
export function BackupsSection() {
  const { data, error } = useBackupsQuery();
  if (error) return <Note tone="trouble">{problemText(error)}</Note>;
  if (!data) return null;
  const [newest] = data.made;
  const late = newest !== undefined && Date.now() - Date.parse(newest) > LATE_HOURS * HOUR_MS;
  return (
    <section className="flex flex-col gap-2 border-t border-rule pt-5">
      <h2 className="text-18 font-semibold">Backups</h2>
      {data.kept === null && (
        <Note tone="trouble">
          None are made by themselves. Whoever looks after the server sets BACKUPS to a folder on another
          disk.
        </Note>
      )}
      {data.kept !== null && newest === undefined && (
        <p className="text-14">The first is made tonight. The newest {data.kept} are kept.</p>
      )}
      {newest !== undefined && (
        <p className="text-14">
          The last is <span className="font-semibold">{formatAge(newest)}</span>, made {formatTime(newest)}.
          There are {data.made.length}; one is made every night, the newest {data.kept} are kept.
        </p>
      )}
      {late && <Note tone="trouble">There is no backup of last night. Tell your administrator.</Note>}
      <p className="text-13 text-muted">Backups stay on this machine until they are copied to another one.</p>
    </section>
  );
}
