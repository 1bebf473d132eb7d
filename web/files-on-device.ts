import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

const WORKER = 'sw.js';
/** What a device keeps of the program. */
const KEPT = /\.(js|css|html|svg|woff2)$/;

/** Files with a hash in their name never change under it. */
const revisionOf = (folder: string, file: string) =>
  file.startsWith('assets/')
    ? null
    : createHash('sha256')
        .update(readFileSync(join(folder, file)))
        .digest('hex')
        .slice(0, 32);

/** Builds the service worker beside the pages, and tells it every file of the program once all are written. */
export const filesOnDevice: Plugin = {
  name: 'files-on-device',
  apply: 'build',
  buildStart() {
    this.emitFile({ type: 'chunk', id: '/src/offline/service-worker.ts', fileName: WORKER });
  },
  writeBundle({ dir }) {
    const folder = dir ?? '';
    const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => KEPT.test(file) && file !== WORKER)
      .sort();
    const worker = join(folder, WORKER);
    const code = readFileSync(worker, 'utf8');
    const list = JSON.stringify(files.map((url) => ({ url, revision: revisionOf(folder, url) })));
    const told = code.replace('self.__FILES_OF_THE_PROGRAM', () => list);
    if (told === code) this.error('The service worker asks for no files: nothing would lie on a device.');
    writeFileSync(worker, told);
  },
};
