import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../', import.meta.url));

/**
 * Runs a command to its end.
 * @param {string} command
 * @param {string[]} args
 * @param {import('node:child_process').SpawnOptions & { quiet?: boolean }} [options] quiet keeps the output and gives it back
 * @returns {Promise<{ code: number, output: string }>}
 */
export function run(command, args, { quiet = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      ...options,
    });
    let output = '';
    child.stdout?.on('data', (data) => (output += data));
    child.stderr?.on('data', (data) => (output += data));
    child.on('error', (error) =>
      'code' in error && error.code === 'ENOENT'
        ? resolve({ code: 127, output: `${command} is not there` })
        : reject(error),
    );
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
  });
}

/** @param {import('node:child_process').ChildProcess} child */
export const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null;

/**
 * Ends a child process we started and waits until it is gone.
 * @param {import('node:child_process').ChildProcess} child
 * @param {NodeJS.Signals} [signal]
 */
export function end(child, signal = 'SIGTERM') {
  if (hasEnded(child)) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('close', resolve);
    child.kill(signal);
  });
}
