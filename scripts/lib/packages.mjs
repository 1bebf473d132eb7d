import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, run } from './run.mjs';
import { say, Trouble } from './say.mjs';

const LEAST = { major: 20, minor: 19 };

/** @param {string} [version] */
export function checkNode(version = process.versions.node) {
  const [major = 0, minor = 0] = version.split('.').map(Number);
  if (major < LEAST.major || (major === LEAST.major && minor < LEAST.minor)) {
    throw new Trouble(
      `Lanternwright needs Node.js ${LEAST.major}.${LEAST.minor} or newer and this is ${version}: install a newer Node.js and start again.`,
    );
  }
}

/** Installs the npm packages when they are missing or the lock file has changed since. */
export async function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules/.lanternwright-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('Installing packages.');
  const { code, output } = await run('npm', ['ci', '--no-audit', '--no-fund'], { quiet: true });
  if (code !== 0) throw new Trouble(`The packages could not be installed; npm says: ${lastLine(output)}`);
  writeFileSync(stamp, lock);
}

/** @param {string} text */
function lastLine(text) {
  const lines = text
    .trim()
    .split('\n')
    .filter((l) => !l.includes('A complete log'));
  return lines.at(-1) ?? 'nothing';
}

/**
 * Installs a Debian package through apt.
 * @param {string} name
 * @param {string} why what to do without it, for the sentence of failure
 */
export async function aptInstall(name, why) {
  const asRoot = process.getuid?.() === 0;
  const apt = (/** @type {string[]} */ args) => {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    return asRoot
      ? run('apt-get', args, { quiet: true, env })
      : run('sudo', ['-n', 'apt-get', ...args], { quiet: true, env });
  };
  say(`Installing ${name}.`);
  await apt(['update', '-qq']);
  const { code, output } = await apt(['install', '-y', '-qq', '--no-install-recommends', name]);
  if (code !== 0)
    throw new Trouble(`${name} is missing and apt could not install it (${lastLine(output)}): ${why}`);
}
