import { createReadStream, createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { Worker } from 'node:worker_threads';
import { Decrypter, Encrypter } from 'age-encryption';

/** How every file of this format begins. @source age-encryption.org/v1 */
const BEGINS = 'age-encryption.org/v1\n';

/** Whether a file is locked with a passphrase. */
export async function isLocked(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(BEGINS.length), 0, BEGINS.length, 0);
    return buffer.subarray(0, bytesRead).toString('latin1') === BEGINS;
  } finally {
    await handle.close();
  }
}

const bytesOf = (file: string) => Readable.toWeb(createReadStream(file)) as ReadableStream<Uint8Array>;

/**
 * Locks a file with a passphrase into another one, which any program of that format opens: `age -d`.
 * @source age-encryption.org/v1: scrypt for the passphrase, ChaCha20-Poly1305 for the file, each part of 64 KiB proved
 */
export async function lockFile(from: string, to: string, passphrase: string): Promise<void> {
  const encrypter = new Encrypter();
  encrypter.setPassphrase(passphrase);
  const locked = await encrypter.encrypt(bytesOf(from) as globalThis.ReadableStream<Uint8Array<ArrayBuffer>>);
  await pipeline(Readable.fromWeb(locked as ReadableStream), createWriteStream(to));
}

/** The compiled thread: it is run as it was built, whether this file itself was or not. */
const thread = new URL('../../dist/backup/lock-thread.js', import.meta.url);

/** The same on a thread of its own: making a key of a passphrase takes seconds in which a server would answer nobody. */
export function lockFileAside(from: string, to: string, passphrase: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(thread, { workerData: { from, to, passphrase } });
    worker.once('error', reject);
    worker.once('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`The backup was not locked: its thread ended with ${code}`)),
    );
  });
}

/** Opens a locked file into another one. @throws Error for another passphrase, or a file that was cut or changed */
export async function unlockFile(from: string, to: string, passphrase: string): Promise<void> {
  const decrypter = new Decrypter();
  decrypter.addPassphrase(passphrase);
  try {
    const open = await decrypter.decrypt(bytesOf(from) as globalThis.ReadableStream<Uint8Array<ArrayBuffer>>);
    await pipeline(Readable.fromWeb(open as ReadableStream), createWriteStream(to));
  } catch (error) {
    // What the file system says is its own fault: a disk that is full, a file that is gone.
    if (error instanceof Error && 'code' in error) throw error;
    throw new Error('This backup cannot be opened: the passphrase is another one, or the file is damaged', {
      cause: error,
    });
  }
}
