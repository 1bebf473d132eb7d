import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
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
 * @param {() => Promise<void>} build
 */
async function buildPart(output, sources, build) {
  const stamp = join(root, output, '.built');
  const changed = stampOf(sources);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === changed) return false;
  await build();
  mkdirSync(join(root, output), { recursive: true });
  writeFileSync(stamp, changed);
  return true;
}

/** @param {('core' | 'contract' | 'server')[]} workspaces */
async function transpiled(...workspaces) {
  // The bundler is a package: it is there once the packages are.
  const { transpile } = await import('./transpile.mjs');
  for (const workspace of workspaces)
    await transpile(workspace).catch((/** @type {Error} */ error) => {
      throw new Trouble(`The build of ${workspace} failed:\n${error.message.trim()}`);
    });
}

/** Makes JavaScript of core alone: what the reckoner's command line needs. */
export const buildCore = () =>
  buildPart('core/dist', ['core/src', 'core/package.json'], () => transpiled('core'));

/** Makes JavaScript of the server and what it imports. */
export const buildServer = () =>
  buildPart('server/dist', ['core/src', 'contract/src', 'server/src'], () =>
    transpiled('core', 'contract', 'server'),
  );

/** Bundles the web application. */
export const buildWeb = () =>
  buildPart('web/dist', ['core/src', 'contract/src', 'web'], async () => {
    const vite = join(root, 'node_modules/.bin/vite');
    const { code, output: said } = await run(vite, ['build', 'web', '--logLevel', 'error'], {
      quiet: true,
      // What is served is never a test's build, whoever has it built.
      env: { ...process.env, NODE_ENV: 'production' },
    });
    if (code !== 0) throw new Trouble(`The build of the pages failed:\n${said.trim()}`);
  });
