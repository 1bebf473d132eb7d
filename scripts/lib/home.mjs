import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root } from './run.mjs';

/**
 * The folder that holds this checkout's data. It lies in the checkout, unless root runs us from a
 * place that the database's account cannot enter.
 */
export function dataHome() {
  const own = process.env['LANTERNWRIGHT_DATA'];
  if (own) return own;
  if (process.getuid?.() === 0 && !enterable(root)) {
    return join('/var/lib/lanternwright', createHash('sha256').update(root).digest('hex').slice(0, 12));
  }
  return join(root, '.data');
}

/** @param {string} path @returns {boolean} whether everybody may pass through every folder of it */
function enterable(path) {
  for (let at = path; ; at = dirname(at)) {
    if ((statSync(at).mode & 0o001) === 0) return false;
    if (at === dirname(at)) return true;
  }
}

/** @param {string} home @returns {string} kept, so that people stay signed in over a restart */
export function sessionSecret(home) {
  const file = join(home, 'session-secret');
  if (!existsSync(file)) {
    mkdirSync(home, { recursive: true });
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  }
  return readFileSync(file, 'utf8').trim();
}
