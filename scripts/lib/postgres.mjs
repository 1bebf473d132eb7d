import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  chownSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { aptInstall } from './packages.mjs';
import { end, run } from './run.mjs';
import { Trouble } from './output.mjs';

const DEBIAN = '/usr/lib/postgresql';
const DATABASE = 'lanternwright';
/** Owns the tables and changes them; the server's own role only reads and writes in them. */
const OWNER = 'lanternwright';
const SERVER = 'lanternwright_server';
/** Names the process that started the database, and stops it at its own end. */
const STARTER = 'starter';

/** @returns {string | null} folder with initdb and postgres, of the newest version there is */
function findBinaries() {
  const versions = existsSync(DEBIAN)
    ? readdirSync(DEBIAN)
        .map(Number)
        .filter(Boolean)
        .sort((a, b) => b - a)
    : [];
  const found = versions
    .map((v) => join(DEBIAN, String(v), 'bin'))
    .find((bin) => existsSync(join(bin, 'initdb')));
  return found ?? null;
}

async function ensureBinaries() {
  if (!findBinaries())
    await aptInstall('postgresql', 'install PostgreSQL, or set DATABASE_URL to one that runs elsewhere.');
  const bin = findBinaries();
  if (!bin)
    throw new Trouble(
      `PostgreSQL is installed but its programs are not under ${DEBIAN}: set DATABASE_URL to a server that runs elsewhere.`,
    );
  return bin;
}

/**
 * PostgreSQL refuses to run as root, so root hands it to the account that Debian's package makes.
 * @returns {Promise<{ uid?: number, gid?: number }>}
 */
async function serverAccount() {
  if (process.getuid?.() !== 0) return {};
  const id = async (/** @type {string} */ flag) =>
    Number((await run('id', [flag, 'postgres'], { quiet: true })).output);
  const account = { uid: await id('-u'), gid: await id('-g') };
  if (!account.uid)
    throw new Trouble(
      'PostgreSQL must not run as root and there is no account named postgres: start as another user.',
    );
  return account;
}

/** @returns {Promise<number>} a loopback port nobody listens on */
function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      probe.close(() => resolve(port));
    });
  });
}

/**
 * Makes the data directory if it is not there. It is filled beside its place and moved when whole,
 * so that one that was interrupted is never mistaken for a good one.
 * @param {string} bin
 * @param {string} home
 * @param {{ uid?: number, gid?: number }} account
 */
async function ensureCluster(bin, home, account) {
  const data = join(home, 'pg');
  const passwordFile = join(home, 'password');
  if (existsSync(join(data, 'PG_VERSION')) && existsSync(passwordFile)) return;
  const making = join(home, 'pg.making');
  rmSync(making, { recursive: true, force: true });
  if (existsSync(data) && readdirSync(data).length > 0) {
    throw new Trouble(
      `The data directory ${data} is not whole: move it away (or restore it from a backup) and start again.`,
    );
  }
  mkdirSync(dirname(home), { recursive: true });
  mkdirSync(home, { recursive: true, mode: 0o700 });
  writeFileSync(passwordFile, randomBytes(24).toString('hex'), { mode: 0o600 });
  mkdirSync(making, { recursive: true, mode: 0o700 });
  if (account.uid !== undefined)
    for (const path of [home, making, passwordFile]) chownSync(path, account.uid, account.gid ?? account.uid);
  const { code, output } = await run(
    join(bin, 'initdb'),
    [
      '-D',
      making,
      '-U',
      'postgres',
      '--pwfile',
      passwordFile,
      '-A',
      'scram-sha-256',
      '-E',
      'UTF8',
      '--locale',
      'C.UTF-8',
      '--no-instructions',
    ],
    { quiet: true, cwd: '/', ...account },
  );
  if (code !== 0) {
    rmSync(making, { recursive: true, force: true });
    throw new Trouble(
      `PostgreSQL could not make its data directory ${data}: ${output.trim().split('\n').at(-1)}`,
    );
  }
  rmSync(data, { recursive: true, force: true });
  renameSync(making, data);
}

/**
 * The process that runs on a data directory now, by PostgreSQL's own pid file; null when it is stopped.
 * @param {string} data
 */
export function runningOn(data) {
  const pidFile = join(data, 'postmaster.pid');
  if (!existsSync(pidFile)) return null;
  const [pid, , , port] = readFileSync(pidFile, 'utf8').split('\n');
  // A machine that went down leaves the file behind, and its number may be another program's by now.
  const command = `/proc/${pid}/cmdline`;
  const ours = existsSync(command) && readFileSync(command, 'utf8').split('\0').includes(data);
  return ours ? { pid: Number(pid), port: Number(port) } : null;
}

/**
 * Ends a database whose starter was killed and could not stop it.
 * @param {string} home
 * @param {number} pid of the database
 * @returns {Promise<boolean>} false where its starter is still there
 */
async function endOrphan(home, pid) {
  const file = join(home, STARTER);
  const starter = existsSync(file) ? readFileSync(file, 'utf8').trim() : '';
  const command = `/proc/${starter}/cmdline`;
  if (starter && existsSync(command) && /node/.test(readFileSync(command, 'utf8'))) return false;
  process.kill(pid, 'SIGINT');
  for (let i = 0; i < 300 && existsSync(`/proc/${pid}`); i++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  return !existsSync(`/proc/${pid}`);
}

/**
 * Starts a PostgreSQL of our own on loopback, on a free port, and makes the application's database.
 * @param {string} home folder that holds the data directory and its password
 * @param {{ scratch?: boolean, port?: number }} [options] scratch gives up durability for speed; port is one it had before
 */
export async function startPostgres(home, { scratch = false, port: before } = {}) {
  const bin = await ensureBinaries();
  const account = await serverAccount();
  await ensureCluster(bin, home, account);
  const data = join(home, 'pg');
  const running = runningOn(data);
  if (running && !(await endOrphan(home, running.pid))) {
    throw new Trouble(
      `The database in ${data} runs already, as process ${running.pid}: stop the Lanternwright that uses it, or end that process if none does.`,
    );
  }
  rmSync(join(data, 'postmaster.pid'), { force: true });
  const version = readFileSync(join(data, 'PG_VERSION'), 'utf8').trim();
  if (!bin.includes(`/${version}/`)) {
    throw new Trouble(
      `The data directory ${data} was made by PostgreSQL ${version}, which is not what is installed: install postgresql-${version} or move the directory away.`,
    );
  }
  const port = before ?? (await freePort());
  const settings = {
    listen_addresses: '127.0.0.1',
    port: String(port),
    unix_socket_directories: '',
    log_min_messages: 'fatal',
    ...(scratch ? { fsync: 'off', synchronous_commit: 'off', full_page_writes: 'off' } : {}),
  };
  const server = spawn(
    join(bin, 'postgres'),
    ['-D', data, ...Object.entries(settings).flatMap(([k, v]) => ['-c', `${k}=${v}`])],
    {
      cwd: '/',
      stdio: ['ignore', 'ignore', 'pipe'],
      // A group of its own: Ctrl-C reaches only us, and we stop it after the application.
      detached: true,
      ...account,
    },
  );
  // Whatever ends this process, an orphan must not keep the data directory.
  const endWithUs = () => server.kill('SIGINT');
  process.once('exit', endWithUs);
  server.once('close', () => process.off('exit', endWithUs));
  writeFileSync(join(home, STARTER), String(process.pid));
  let complaint = '';
  server.stderr?.on('data', (text) => (complaint = (complaint + text).slice(-2000)));
  const password = readFileSync(join(home, 'password'), 'utf8').trim();
  const passwords = { [OWNER]: passwordOf(home, OWNER), [SERVER]: passwordOf(home, SERVER) };
  const psql = (/** @type {string} */ database, /** @type {string} */ sql) =>
    run(
      join(bin, 'psql'),
      [
        '-X',
        '-q',
        '-A',
        '-t',
        '-v',
        'ON_ERROR_STOP=1',
        '-h',
        '127.0.0.1',
        '-p',
        String(port),
        '-U',
        'postgres',
        '-d',
        database,
        '-c',
        sql,
      ],
      {
        quiet: true,
        env: { ...process.env, PGPASSWORD: password },
      },
    );
  const stop = () => end(server, 'SIGINT');
  try {
    await untilReady(
      () => psql('postgres', 'select 1'),
      server,
      () => complaint,
      data,
    );
    await ensureDatabase(psql, passwords);
  } catch (error) {
    await stop();
    throw error;
  }
  return {
    url: urlOf(home, port),
    ownerUrl: ownerUrlOf(home, port),
    password,
    port,
    psql,
    stop,
    server,
    complaint: () => complaint,
  };
}

/**
 * @param {() => Promise<{ code: number }>} ask
 * @param {import('node:child_process').ChildProcess} server
 * @param {() => string} complaint
 * @param {string} data
 */
async function untilReady(ask, server, complaint, data) {
  for (let i = 0; i < 300; i++) {
    if (server.exitCode !== null) {
      const reason =
        complaint()
          .trim()
          .split('\n')
          .find((l) => /FATAL|PANIC|ERROR/.test(l)) ?? complaint().trim();
      throw new Trouble(
        `PostgreSQL did not start on ${data} (${reason}): restore the directory from a backup, or move it away to begin empty.`,
      );
    }
    if ((await ask()).code === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Trouble(`PostgreSQL on ${data} did not answer within 30 s: look whether the disk is full.`);
}

/**
 * Each role has a password of its own: the superuser's stays with whoever starts PostgreSQL.
 * @param {string} home
 * @param {typeof OWNER | typeof SERVER} role
 */
function passwordOf(home, role) {
  const file = join(home, role === OWNER ? 'app-password' : 'server-password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

/**
 * Where the server finds its database; or the owner of the tables, who migrates it.
 * @param {string} home
 * @param {number} port
 * @param {typeof OWNER | typeof SERVER} [role]
 */
export function urlOf(home, port, role = SERVER) {
  return `postgres://${role}:${passwordOf(home, role)}@127.0.0.1:${port}/${DATABASE}`;
}

/** @param {string} home @param {number} port */
export const ownerUrlOf = (home, port) => urlOf(home, port, OWNER);

/**
 * Neither role is a superuser, so that the privileges of tables bind them.
 * @param {(database: string, sql: string) => Promise<{ code: number, output: string }>} psql
 * @param {Record<string, string>} passwords by role
 */
async function ensureDatabase(psql, passwords) {
  const has = async (/** @type {string} */ sql) => (await psql('postgres', sql)).output.trim() === '1';
  for (const [role, password] of Object.entries(passwords)) {
    if (!(await has(`select 1 from pg_roles where rolname = '${role}'`)))
      await psql('postgres', `create role ${role} login nosuperuser nocreatedb nocreaterole`);
    await psql('postgres', `alter role ${role} password '${password}'`);
  }
  if (!(await has(`select 1 from pg_database where datname = '${DATABASE}'`))) {
    const { code, output } = await psql('postgres', `create database ${DATABASE} owner ${OWNER}`);
    if (code !== 0) throw new Trouble(`The database could not be made: ${output.trim()}`);
  }
}
