import { existsSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Trouble } from './output.mjs';
import { root, run } from './run.mjs';

/** @param {string[]} args @returns {Promise<string[]>} lines that git says */
async function git(...args) {
  const { code, output } = await run('git', args, { quiet: true });
  if (code !== 0) throw new Trouble(`What changed is asked of git, which says: ${output.trim()}`);
  return output.split('\n').filter(Boolean);
}

/** @returns {Promise<string[]>} files that differ from the last commit, or that it changed where none does */
export async function changedFiles() {
  const now = [
    ...(await git('diff', '--name-only', 'HEAD')),
    ...(await git('ls-files', '--others', '--exclude-standard')),
  ];
  const files = now.length > 0 ? now : await git('diff', '--name-only', 'HEAD~1', 'HEAD');
  return files.filter((file) => existsSync(join(root, file)));
}

/**
 * The folders that hold the tests of some files: their own, or the nearest above them that has any.
 * @param {string[]} files relative to the root
 */
export function foldersWithTests(files) {
  const folders = new Set();
  for (const file of files) {
    let folder = dirname(file);
    // The first two parts name a workspace and its sources: a test beside all of those is none of this file's.
    while (folder.split('/').length > 2 && !hasTests(folder)) folder = dirname(folder);
    if (hasTests(folder)) folders.add(`${folder}/`);
  }
  return [...folders];
}

/** @param {string} folder */
const hasTests = (folder) => readdirSync(join(root, folder)).some((name) => /\.test\.(tsx?|mjs)$/.test(name));
