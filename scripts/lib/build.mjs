import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root, run } from './run.mjs';
import { Trouble } from './output.mjs';

/** @param {string} path @returns {string[]} every file below that is a source */
function filesBelow(path) {
  if (!existsSync(path)) return [];
  if (!statSync(path).isDirectory()) return [path];
  return readdirSync(path)
    .filter((name) => name !== 'node_modules' && name !== 'dist')
    .flatMap((name) => filesBelow(join(path, name)));
}

/** @param {string[]} sources @returns {string} another one when a file is changed, added or taken away */
function stampOf(sources) {
  const files = ['package-lock.json', 'tsconfig.base.json', ...sources].flatMap((s) =>
    filesBelow(join(root, s)),
  );
  return `${files.length} files, newest ${Math.max(...files.map((f) => statSync(f).mtimeMs))}`;
}

/**
 * Builds a part when any of its sources changed since its last build.
 * @param {string} output the folder it is built into
 * @param {string[]} sources
 * @param {string[]} command
 */
async function buildPart(output, sources, command) {
  const stamp = join(root, output, '.built');
  const changed = stampOf(sources);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === changed) return false;
  const [tool = '', ...args] = command;
  const { code, output: said } = await run(join(root, 'node_modules/.bin', tool), args, {
    quiet: true,
    // What is served is never a test's build, whoever has it built.
    env: { ...process.env, NODE_ENV: 'production' },
  });
  if (code !== 0) throw new Trouble(`The build of ${dirname(output)} failed:\n${said.trim()}`);
  mkdirSync(join(root, output), { recursive: true });
  writeFileSync(stamp, changed);
  return true;
}

/** Compiles core alone: what the reckoner's command line needs. */
export function buildCore() {
  return buildPart(
    'core/dist',
    ['core/src', 'core/tsconfig.json', 'core/package.json'],
    ['tsc', '-b', 'core'],
  );
}

/** Compiles the server and what it imports. */
export function buildServer() {
  return buildPart('server/dist', ['core/src', 'contract/src', 'server/src', 'tsconfig.json'], ['tsc', '-b']);
}

/** Bundles the web application. */
export function buildWeb() {
  return buildPart(
    'web/dist',
    ['core/src', 'contract/src', 'web'],
    ['vite', 'build', 'web', '--logLevel', 'error'],
  );
}
