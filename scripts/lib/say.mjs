/** A failure that is told in one sentence, without a stack. */
export class Trouble extends Error {}

/** @param {string} words */
export function say(words) {
  console.log(words);
}

/**
 * Runs a script's main work; a Trouble is one sentence on standard error.
 * @param {() => Promise<void>} work
 */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    console.error(error.message);
    process.exitCode = 1;
  }
}
