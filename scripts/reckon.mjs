import { readFileSync } from 'node:fs';
import { buildCore } from './lib/build.mjs';

/**
 * The reckoner's command line: NAME < input.json, `list`, or `describe NAME`. Only the result goes to
 * standard output. Exit status 2: bad input; 3: no such calculation.
 */
await buildCore();
const { describeCalculation, listCalculations, reckon, describeBadJson } =
  await import('../core/dist/reckoner/index.js');

/** @param {unknown} value */
const print = (value) => console.log(JSON.stringify(value, null, 2));

/** @param {number} status @param {unknown} error */
function fail(status, error) {
  console.error(JSON.stringify({ error }));
  process.exitCode = status;
}

const [name, about] = process.argv.slice(2);
if (name === undefined) {
  fail(2, { message: 'Name a calculation, or say list', issues: [] });
} else if (name === 'list') {
  print(listCalculations());
} else if (name === 'describe') {
  const found = describeCalculation(about ?? '');
  if (found) print(found);
  else fail(3, { message: `There is no calculation named ${about}`, issues: [] });
} else {
  run(name);
}

/** @param {string} calculation */
function run(calculation) {
  const text = readFileSync(0, 'utf8');
  let input;
  try {
    input = JSON.parse(text);
  } catch (error) {
    const message = describeBadJson(text, error);
    if (!listCalculations().some((c) => c.name === calculation))
      return fail(3, { message: `There is no calculation named ${calculation}`, issues: [] });
    return fail(2, { message, issues: [{ path: '', message }] });
  }
  const answer = reckon(calculation, input);
  if (answer.ok) print(answer.result);
  else fail(answer.reason === 'unknown' ? 3 : 2, answer.error);
}
