import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import whyTooOld from '../old-node.cjs';
import { root, run } from './run.mjs';
import { say, Trouble } from './output.mjs';

/** @param {string} [version] */
export function checkNode(version = process.versions.node) {
  const why = whyTooOld(version);
  if (why) throw new Trouble(why);
}

/**
 * Installs the npm packages when they are missing or the lock file has changed since.
 * @param {'to-run' | 'all'} [what] what serving needs, a quarter of it all; or what checks and tests need besides
 */
export async function ensurePackages(what = 'all') {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules/.lanternwright-lock');
  const stamped = () => (existsSync(stamp) ? readFileSync(stamp, 'utf8') : '');
  // Whoever has all of them has those to run as well.
  const are = () => stamped() === `${lock} all` || stamped() === `${lock} ${what}`;
  if (are()) return;
  await oneAtATime(async () => {
    if (are()) return;
    // Where somebody works on the program, a start takes nothing away.
    const all = what === 'all' || stamped().endsWith(' all');
    const only = all ? [] : ['--omit=dev'];
    const { code, output } = await run('npm', ['ci', '--no-audit', '--no-fund', ...only], { quiet: true });
    if (code !== 0) throw new Trouble(`The packages could not be installed; npm says: ${lastLine(output)}`);
    writeFileSync(stamp, `${lock} ${all ? 'all' : what}`);
  });
}

/** Two commands that are started together install once; a lock whose holder is gone holds nobody. */
async function oneAtATime(/** @type {() => Promise<void>} */ work) {
  const file = join(root, '.installing');
  for (;;) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx' });
      break;
    } catch (error) {
      if (!(error instanceof Error && 'code' in error && error.code === 'EEXIST')) throw error;
      const holder = existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0;
      if (holder > 0 && !isRunning(holder)) rmSync(file, { force: true });
      else await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
  try {
    await work();
  } finally {
    rmSync(file, { force: true });
  }
}

/** @param {number} pid */
function isRunning(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error instanceof Error && 'code' in error && error.code === 'EPERM';
  }
}

/** @param {string} text */
function lastLine(text) {
  const lines = text
    .trim()
    .split('\n')
    .filter((l) => !l.includes('A complete log'));
  return lines.at(-1) ?? 'nothing';
}

const CLUSTER_CONFIG = '/etc/postgresql-common/createcluster.conf';

/** @param {string} command @param {string[]} args */
function asRoot(command, args) {
  // No service is started by its installation: ours are started by hand, where they are wanted.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' };
  return process.getuid?.() === 0
    ? run(command, args, { quiet: true, env })
    : run('sudo', ['-n', command, ...args], { quiet: true, env });
}

/** Debian's PostgreSQL would start a server of its own on installation; ours is the only one wanted. */
function forbidMainCluster() {
  const script = `test -e ${CLUSTER_CONFIG} || { mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > ${CLUSTER_CONFIG}; }`;
  return asRoot('sh', ['-c', script]);
}

/**
 * Installs a Debian package through apt.
 * @param {'postgresql' | 'chromium' | 'nginx'} name
 * @param {string} why what to do without it, for the sentence of failure
 */
export async function aptInstall(name, why) {
  say(`Installing ${name}.`);
  if (name === 'postgresql') await forbidMainCluster();
  await asRoot('apt-get', ['update', '-qq']);
  const keepOurs = ['-o', 'Dpkg::Options::=--force-confold'];
  const { code, output } = await asRoot('apt-get', [
    'install',
    '-y',
    '-qq',
    '--no-install-recommends',
    ...keepOurs,
    name,
  ]);
  if (code !== 0)
    throw new Trouble(`${name} is missing and apt could not install it (${lastLine(output)}): ${why}`);
}
