import { fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { root } from './run.mjs';
import { Trouble } from './output.mjs';

/**
 * The wanted port, or the next one that is free.
 * @param {number} wanted
 * @returns {Promise<number>}
 */
export async function portFrom(wanted) {
  for (let port = wanted; port < wanted + 50; port++) {
    if (await isFree(port)) return port;
  }
  throw new Trouble(`Ports ${wanted} to ${wanted + 49} are all taken: set PORT to a free one.`);
}

/** @param {number} port @returns {Promise<boolean>} */
function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}

/**
 * Starts the built server as a child and waits until it listens.
 * @param {Record<string, string>} settings
 * @param {string[]} [options] of Node.js
 * @param {{ part?: (part: string, seconds: number) => void, waiting?: (port: number) => void, making?: (percent: number) => void }} [on]
 *   is told of each part of its start and how long it took; that a page already says how far it is; how far the demo is
 * @returns {Promise<{ child: import('node:child_process').ChildProcess, port: number, complaint: () => string }>}
 *   complaint: the last it said for whoever runs it
 */
export function startServer(settings, options = [], on = {}) {
  const env = { ...process.env, WEB_ROOT: join(root, 'web/dist'), NODE_ENV: 'production', ...settings };
  // A group of its own, so that Ctrl-C reaches us first and we end things in order.
  const child = fork(join(root, 'server/dist/main.js'), {
    env,
    // How we were started ourselves, by a test runner say, is nothing to it.
    execArgv: options,
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    detached: true,
  });
  let complaint = '';
  child.stderr?.on('data', (text) => {
    complaint = (complaint + text).slice(-4000);
    process.stderr.write(text);
  });
  return new Promise((resolve, reject) => {
    child.on('message', (/** @type {any} */ told) => {
      if ('listening' in told) resolve({ child, port: told.listening, complaint: () => complaint });
      else if ('waiting' in told) on.waiting?.(told.waiting);
      else if ('making' in told) on.making?.(told.making);
      else on.part?.(told.part, told.seconds);
    });
    child.once('exit', (_code, signal) => {
      const [line, error] = /^\w*Error: (.*)|^.*cannot.*/m.exec(complaint) ?? [];
      const ended = `it was ended${signal ? ` by ${signal}` : ''} without a word`;
      reject(new Trouble(`The server did not start: ${error ?? line ?? ended}.`));
    });
  });
}
