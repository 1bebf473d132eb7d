import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { main, say } from './lib/output.mjs';
import { root, run } from './lib/run.mjs';

/**
 * Changes one condition at a time of what decides a release, and counts which changes the tests catch:
 * `npm run mutants -- --count 100 --seed 1`. Works on a copy, and names every change that was not caught.
 */
const FILES = [
  'core/src/assembly/effects.ts',
  'core/src/assembly/moves.ts',
  'core/src/assembly/fold-side.ts',
  'core/src/assembly/as-said.ts',
  'core/src/assembly/carry-side.ts',
  'core/src/assembly/standing.ts',
  'core/src/assembly/side.ts',
  'core/src/traveller/against-release.ts',
  'core/src/traveller/is-as-found.ts',
  'core/src/traveller/layer-states.ts',
  'core/src/traveller/open-again.ts',
  'core/src/traveller/meanwhile.ts',
  'core/src/traveller/oil-found.ts',
  'core/src/traveller/open-findings.ts',
  'core/src/traveller/route-progress.ts',
  'core/src/traveller/waits-for.ts',
  'core/src/traveller/what-is-left.ts',
];

/** Longest that the tests take with a change, several times over. */
const MOST_MS = 240_000;

/** @type {readonly [RegExp, string][]} */
const CHANGES = [
  [/ === /g, ' !== '],
  [/ !== /g, ' === '],
  [/ && /g, ' || '],
  [/ \|\| /g, ' && '],
  [/ > /g, ' <= '],
  [/ >= /g, ' < '],
  [/ <= /g, ' > '],
  [/ < /g, ' >= '],
  [/\.some\(/g, '.every('],
  [/\.every\(/g, '.some('],
  [/'never'(?= ?[:),])/g, "'supervisor'"],
  [/return true/g, 'return false'],
  [/return false/g, 'return true'],
  [/shifts: true,? ?/g, ''],
  [/closes: true,? ?/g, ''],
  [/moves: '(off|open|on)',? ?/g, ''],
  [/(?<=(?:restsOn|breaks|made|judged|steps): \[)'[a-z0-9-]+',? ?/g, ''],
];

/** @param {string[]} args @param {string} name @param {number} otherwise */
function option(args, name, otherwise) {
  const at = args.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(args[at + 1]);
}

/** Every single change that can be made. */
function candidates() {
  return FILES.flatMap((file) => {
    const text = readFileSync(join(root, file), 'utf8');
    const isCode = (/** @type {number} */ at) => {
      const line = text.slice(text.lastIndexOf('\n', at) + 1, text.indexOf('\n', at)).trim();
      return (
        !/^(\*|\/\*|\/\/|import|export type|export interface|type )/.test(line) && !line.includes('=>  ')
      );
    };
    return CHANGES.flatMap(([from, to]) =>
      [...text.matchAll(from)]
        .filter((m) => isCode(m.index))
        .map((m) => ({
          file,
          line: text.slice(0, m.index).split('\n').length,
          was: m[0].trim(),
          to: to.trim() || 'nothing',
          text: text.slice(0, m.index) + to + text.slice(m.index + m[0].length),
        })),
    );
  });
}

/** @template T @param {T[]} list @param {number} seed */
function shuffled(list, seed) {
  let state = seed >>> 0 || 1;
  const next = () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
  return list
    .map((item) => ({ item, at: next() }))
    .sort((a, b) => a.at - b.at)
    .map(({ item }) => item);
}

await main(async () => {
  checkNode();
  await ensurePackages();
  const args = process.argv.slice(2);
  const chosen = shuffled(candidates(), option(args, 'seed', 1)).slice(0, option(args, 'count', 100));
  const copy = mkdtempSync(join(tmpdir(), 'lanternwright-mutants-'));
  for (const part of ['core', 'contract', 'vitest.config.ts', 'package.json', 'tsconfig.base.json'])
    cpSync(join(root, part), join(copy, part), {
      recursive: true,
      filter: (path) => !path.includes('node_modules'),
    });
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  const config = `export default { resolve: { conditions: ['source'] }, test: { include: ['core/src/{assembly,traveller,record}/**/*.test.ts'], isolate: false, pool: 'threads', testTimeout: 120000 } };`;
  writeFileSync(join(copy, 'vitest.config.ts'), config);
  const tested = async () => {
    const { code } = await run(join(root, 'node_modules/.bin/vitest'), ['run', '--bail', '1'], {
      // A change that makes work endless is caught by that; threads end with their process.
      ...{ timeout: MOST_MS, killSignal: 'SIGKILL' },
      quiet: true,
      cwd: copy,
      env: { ...process.env, HISTORIES: '60' },
    });
    return code;
  };
  if ((await tested()) !== 0) throw new Error('The tests fail without any change: mend that first.');
  let [done, caught] = [0, 0];
  for (const { file, line, was, to, text } of chosen) {
    const original = readFileSync(join(copy, file), 'utf8');
    writeFileSync(join(copy, file), text);
    const code = await tested();
    writeFileSync(join(copy, file), original);
    if (code === 0) say(`not caught: ${file}:${line}, ${was} changed to ${to}`);
    else caught += 1;
    done += 1;
    if (done % 10 === 0) say(`${done} of ${chosen.length}, ${caught} caught`);
  }
  rmSync(copy, { recursive: true, force: true });
  say(`${caught} of ${chosen.length} changes were caught.`);
});
