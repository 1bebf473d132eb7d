import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from '../../../../scripts/lib/postgres.mjs';
import { run } from '../../../../scripts/lib/run.mjs';

/** The pieces of docs/operating.md that are followed in tests, as they stand there. */
const operating = readFileSync(new URL('../../../../docs/operating.md', import.meta.url), 'utf8');

/** A piece of docs/operating.md. @param containing words that only it has */
export function pieceOf(language: string, containing: string): string {
  const pieces = [...operating.matchAll(/```(\w+)\n([\s\S]*?)```/g)];
  const found = pieces.find(([, of, text]) => of === language && text!.includes(containing));
  if (!found) throw new Error(`docs/operating.md has no ${language} with ${containing}`);
  return found[2]!;
}

type Postgres = Awaited<ReturnType<typeof startPostgres>>;

async function idOf(flag: string): Promise<number> {
  return Number((await run('id', [flag, 'postgres'], { quiet: true })).output);
}

/** Where Debian keeps the programs of the PostgreSQL that runs. */
async function binOf(): Promise<string> {
  const { output } = await run('sh', ['-c', 'ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1'], {
    quiet: true,
  });
  return output.trim();
}

const PASSWORD = 'a word for tests';

/**
 * A streaming standby, made as docs/operating.md says.
 * @param home folder of the first one, with the passwords of the roles
 * @param within folder that it lies in
 */
export async function openStandby(first: Postgres, home: string, within = tmpdir()) {
  const account = process.getuid?.() === 0 ? { uid: await idOf('-u'), gid: await idOf('-g') } : {};
  const folder = mkdtempSync(join(within, 'lanternwright-standby-'));
  await run('chown', ['-R', account.uid ? 'postgres' : String(process.getuid?.()), folder], { quiet: true });
  await first.psql('postgres', pieceOf('sql', 'replication').replace('choose one', PASSWORD));
  const env = {
    ...process.env,
    PATH: `${await binOf()}:${process.env['PATH']}`,
    PGPASSWORD: PASSWORD,
    PRIMARY_HOST: '127.0.0.1',
    PRIMARY_PORT: String(first.port),
    STANDBY_DATA: join(folder, 'pg'),
  };
  const follow = async (text: string) => {
    const { code, output } = await run('bash', ['-euc', text], { quiet: true, cwd: '/', env, ...account });
    if (code !== 0) throw new Error(output);
  };
  await follow(pieceOf('sh', 'pg_basebackup'));
  for (const name of ['password', 'app-password', 'server-password'])
    copyFileSync(join(home, name), join(folder, name));
  const postgres = await startPostgres(folder);
  return {
    folder,
    postgres,
    /** Makes it the first one, as docs/operating.md says. */
    promote: () => follow(pieceOf('sh', 'pg_ctl promote')),
    async close(): Promise<void> {
      await postgres.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
