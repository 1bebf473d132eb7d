import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { aptInstall, checkNode, ensurePackages } from './lib/packages.mjs';
import { run } from './lib/run.mjs';
import { changedFiles, foldersWithTests } from './lib/changed.mjs';
import { main, say, Trouble } from './lib/output.mjs';

/**
 * All checks and tests: `npm test`, or some: `npm test -- core`, `-- server web`, `-- e2e`. `npm test -- quick` checks the
 * types, the files that changed and the tests of the folders that changed: for while one works, not instead of the rest.
 * Ends with how many passed and failed, counted from the runs.
 */
const CHECKS = ['lint', 'types', 'deps', 'unused'];
const PROJECTS = ['core', 'scripts', 'server', 'web'];
const ALL = [...CHECKS, ...PROJECTS, 'e2e', 'quick'];
const CHROMIUM = '/usr/bin/chromium';

const reports = mkdtempSync(join(tmpdir(), 'lanternwright-reports-'));
const total = { passed: 0, failed: 0 };

/** @param {{ passed: number, failed: number }} counts */
function count({ passed, failed }) {
  total.passed += passed;
  total.failed += failed;
}

/**
 * @param {string} name
 * @param {string[]} [command] what it runs; the script of its name if left out
 */
async function check(name, [program = '', ...args] = ['npm', 'run', '-s', name]) {
  const started = performance.now();
  const { code, output } = await run(program, args, { quiet: true });
  const seconds = ((performance.now() - started) / 1000).toFixed(1);
  say(`${code === 0 ? 'passed' : 'FAILED'}  ${name} (${seconds} s)`);
  if (code !== 0) say(output);
  count({ passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 });
}

/**
 * A run that ends without a report, or with an exit code its report does not explain, is a failure.
 * @param {string} file
 * @param {number} code
 * @param {(report: any) => { passed: number, failed: number }} read
 */
function countReport(file, code, read) {
  const counts = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 1 };
  if (code !== 0 && counts.failed === 0) counts.failed = 1;
  if (counts.passed + counts.failed === 0) counts.failed = 1;
  count(counts);
}

/**
 * @param {string[]} projects
 * @param {string[]} [folders] with the tests that are run; all of them if left out
 */
async function vitest(projects, folders = []) {
  const file = join(reports, 'vitest.json');
  const selected = projects.flatMap((p) => ['--project', p]);
  const { code } = await run('npx', [
    '--no-install',
    'vitest',
    'run',
    ...folders,
    ...selected,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ]);
  countReport(file, code, (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests + suitesWithoutTests(r),
  }));
}

/** @param {any} report @returns {number} files that broke before any of their tests could */
function suitesWithoutTests(report) {
  return report.testResults.filter(
    (/** @type {any} */ f) =>
      f.status === 'failed' && !f.assertionResults.some((/** @type {any} */ a) => a.status === 'failed'),
  ).length;
}

/** @param {string[]} [files] with the tests that are run; all of them if left out */
async function e2e(files = []) {
  if (!existsSync(CHROMIUM))
    await aptInstall(
      'chromium',
      'install Chromium, or leave the browser tests out with npm test -- core server web.',
    );
  const file = join(reports, 'e2e.json');
  const { code } = await run('npx', ['--no-install', 'playwright', 'test', '-c', 'e2e', ...files], {
    env: { ...process.env, E2E_REPORT: file },
  });
  countReport(file, code, ({ stats }) => {
    if (stats.flaky > 0) say(`${stats.flaky} browser tests passed only at the second try, named above.`);
    return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  });
}

async function quick() {
  const files = await changedFiles();
  say(files.length === 0 ? 'Nothing is changed.' : `${files.length} files are changed.`);
  const code = files.filter((f) => /\.(ts|tsx|mjs)$/.test(f));
  const bin = 'node_modules/.bin/';
  await Promise.all([
    check('types'),
    ...(files.length > 0 ? [check('format', [`${bin}prettier`, '--check', '-u', ...files])] : []),
    ...(code.length > 0 ? [check('lint', [`${bin}eslint`, '--no-warn-ignored', ...code])] : []),
  ]);
  const folders = foldersWithTests(code);
  if (folders.length > 0) await vitest(PROJECTS, folders);
  const browser = files.filter((f) => f.startsWith('e2e/tests/'));
  if (browser.length === 0) return;
  await buildWeb();
  await e2e(browser);
}

await main(async () => {
  checkNode();
  const wanted = process.argv.slice(2);
  const unknown = wanted.filter((w) => !ALL.includes(w));
  if (unknown.length > 0)
    throw new Trouble(`There is no test called ${unknown.join(', ')}: choose from ${ALL.join(', ')}.`);
  const has = (/** @type {string} */ name) => wanted.length === 0 || wanted.includes(name);
  await ensurePackages();
  await buildServer();
  if (wanted.includes('quick')) await quick();
  else {
    await buildWeb();
    await Promise.all(CHECKS.filter(has).map((name) => check(name)));
    const projects = PROJECTS.filter(has);
    if (projects.length > 0) await vitest(projects);
    if (has('e2e')) await e2e();
  }
  rmSync(reports, { recursive: true, force: true });
  say(`${total.passed} passed, ${total.failed} failed`);
  if (total.failed > 0) process.exitCode = 1;
});
