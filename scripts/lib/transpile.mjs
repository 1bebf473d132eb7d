import { existsSync, readdirSync, rmSync } from 'node:fs';
import { isAbsolute, join } from 'node:path';
import { rolldown } from 'rolldown';
import { root } from './run.mjs';

/** @param {string} folder @returns {string[]} paths of everything below it; none where it is not there */
const filesIn = (folder) =>
  existsSync(folder) ? /** @type {string[]} */ (readdirSync(folder, { recursive: true })) : [];

/** @param {string} path */
const isSource = (path) =>
  path.endsWith('.ts') && !path.endsWith('.test.ts') && !path.split('/').includes('testing');

/**
 * Writes the TypeScript of a workspace as JavaScript into its `dist`, a file for a file. Types are not looked at here:
 * `npm run types` and `npm test` do that.
 * @param {'core' | 'contract' | 'server'} workspace
 */
export async function transpile(workspace) {
  const from = join(root, workspace, 'src');
  const to = join(root, workspace, 'dist');
  const files = filesIn(from).filter(isSource);
  const bundle = await rolldown({
    input: files.map((file) => join(from, file)),
    external: (id) => !id.startsWith('.') && !isAbsolute(id),
    platform: 'node',
    treeshake: false,
    logLevel: 'warn',
  });
  // Declarations stay: they are of the check of types.
  for (const old of filesIn(to).filter((file) => file.endsWith('.js'))) rmSync(join(to, old));
  await bundle.write({ dir: to, format: 'esm', preserveModules: true, preserveModulesRoot: from });
  await bundle.close();
}
