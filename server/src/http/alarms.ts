import { statfs } from 'node:fs/promises';
import { QueryTypes } from 'sequelize';
import type { Logger } from 'pino';
import { backupsIn } from '../backup/backup.ts';
import type { Database } from '../database/connect.ts';
import type { StandbyReads } from '../database/standby.ts';

/** A figure that somebody is woken by. */
export interface Alarm {
  name: string;
  help: string;
  /** NaN where it is not known just now. */
  read: () => Promise<number>;
}

interface Watched {
  db: Database;
  standby: StandbyReads;
  /** Folders of the backups and of the seals; null where there are none. */
  backups: string | null;
  seals: string | null;
}

/**
 * What goes wrong slowly: room on the disk, work that stays in the queue, an old backup, a record that is not sealed, a
 * standby that falls behind. A figure that cannot be read is told of and is no number, which an alarm hears as well.
 */
export function alarms({ db, standby, backups, seals }: Watched, log: Logger): Alarm[] {
  const count = async (sql: string): Promise<number> => {
    const [row] = await db.sequelize.query<{ is: number | null }>(sql, { type: QueryTypes.SELECT });
    return row?.is ?? NaN;
  };
  const free = async (folder: string) => {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  };
  const figures: Alarm[] = [
    {
      name: 'queue_waiting',
      help: 'Background jobs that are due and not done',
      read: () =>
        count(
          `select count(*)::int as is from graphile_worker.jobs where run_at <= now() and attempts < max_attempts`,
        ),
    },
    {
      name: 'queue_given_up',
      help: 'Background jobs that failed as often as they are tried',
      read: () =>
        count(`select count(*)::int as is from graphile_worker.jobs where attempts >= max_attempts`),
    },
    {
      name: 'seal_age_seconds',
      help: 'Since the end of the record was sealed last',
      read: () => count(`select extract(epoch from now() - max(at))::float as is from seal`),
    },
  ];
  if (backups !== null)
    figures.push(
      {
        name: 'backup_age_seconds',
        help: 'Since the newest backup was made',
        read: async () => {
          const [newest] = await backupsIn(backups);
          return newest ? (Date.now() - Date.parse(newest.made)) / 1000 : NaN;
        },
      },
      { name: 'backups_free_bytes', help: 'Room where the backups lie', read: () => free(backups) },
    );
  if (seals !== null)
    figures.push({ name: 'seals_free_bytes', help: 'Room where the seals lie', read: () => free(seals) });
  if (standby.behind !== null)
    figures.push({
      name: 'standby_behind_entries',
      help: 'Records that the standby has not yet',
      read: standby.behind,
    });
  return figures.map(({ name, help, read }) => ({
    name,
    help,
    read: () =>
      read().catch((err: unknown) => {
        log.warn({ err, figure: name }, 'a figure for the alarms cannot be read');
        return NaN;
      }),
  }));
}
