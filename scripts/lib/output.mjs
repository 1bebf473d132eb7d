/** A failure that is told in one sentence, without a stack. */
export class Trouble extends Error {}

/** Whether the last line waits for how long its part took. */
let lineIsOpen = false;

/** @param {string} words */
export function say(words) {
  if (lineIsOpen) process.stdout.write('\n');
  lineIsOpen = false;
  console.log(words);
}

/** Every so many seconds a part that takes long says that it goes on. */
const BEAT_S = 5;

/**
 * Does a part of what somebody waits for: says what it is, that it goes on, and how long it took.
 * @template T
 * @param {string} words
 * @param {() => Promise<T>} work
 * @returns {Promise<T>}
 */
export async function part(words, work) {
  const begun = Date.now();
  process.stdout.write(`${words} … `);
  lineIsOpen = true;
  const beat = setInterval(() => {
    if (lineIsOpen) process.stdout.write(`${Math.round((Date.now() - begun) / 1000)} s … `);
  }, BEAT_S * 1000);
  const done = await work().finally(() => clearInterval(beat));
  const took = describeTook((Date.now() - begun) / 1000);
  if (lineIsOpen) process.stdout.write(`${took}\n`);
  else console.log(`${words}: ${took}`);
  lineIsOpen = false;
  return done;
}

/** @param {number} seconds */
export const describeTook = (seconds) => `${seconds.toFixed(1)} s`;

/**
 * Runs a script's main work; a Trouble is one sentence on standard error.
 * @param {() => Promise<void>} work
 */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    if (lineIsOpen) process.stdout.write('\n');
    console.error(error.message);
    process.exitCode = 1;
  }
}
