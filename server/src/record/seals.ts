import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  verify,
} from 'node:crypto';
import type { KeyObject } from 'node:crypto';
import { existsSync } from 'node:fs';
import { appendFile, mkdir, open, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Op } from 'sequelize';
import type { Logger } from 'pino';
import { z } from 'zod';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { CHAIN_LOCK } from './append.ts';
import type { SealRow } from './model.ts';

/** The end of the record at some moment, signed with a key that stands outside the database. */
const sealSchema = z.object({
  /** Hash of the first entry: which record it is of. */
  chain: z.string(),
  seq: z.int(),
  hash: z.string(),
  at: z.iso.datetime(),
  /** Which key signed it. */
  key: z.string(),
  /** Ed25519, base64. */
  signature: z.string(),
});
export type Seal = z.output<typeof sealSchema>;

/** The half that signs: whoever has it can seal whatever they like. */
export const SECRET_KEY = 'seal-key.pem';
const PUBLIC_KEY = 'seal-key.pub.pem';
const FILE = 'seals.jsonl';

/** What is signed, a line each. */
const signed = ({ chain, seq, hash, at }: Omit<Seal, 'key' | 'signature'>) =>
  Buffer.from(['lanternwright seal 1', chain, seq, hash, at].join('\n'));

/** Names a key: the first 16 hex digits of the SHA-256 of its public half. */
function nameOf(publicKey: KeyObject): string {
  const der = publicKey.export({ type: 'spki', format: 'der' });
  return createHash('sha256').update(der).digest('hex').slice(0, 16);
}

/** Reads the key, or makes one the first time. */
async function openKey(home: string): Promise<{ name: string; key: KeyObject }> {
  await mkdir(home, { recursive: true, mode: 0o700 });
  const path = join(home, SECRET_KEY);
  const made = generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' });
  try {
    // Two servers may come at once: one makes the file, both read it.
    await writeFile(path, made, { mode: 0o600, flag: 'wx' });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
  }
  const key = createPrivateKey(await readFile(path));
  const publicKey = createPublicKey(key);
  const name = nameOf(publicKey);
  // What an earlier key sealed is proved by its public half.
  const before = await publicKeyIn(home);
  if (before && before.name !== name)
    await writeFile(join(home, `seal-key-${before.name}.pub.pem`), before.pem);
  await writeFile(join(home, PUBLIC_KEY), publicKey.export({ type: 'spki', format: 'pem' }));
  return { name, key };
}

const toSeal = ({ chain, seq, hash, at, key, signature }: SealRow): Seal => ({
  ...{ chain, hash, key, signature, seq: Number(seq), at: at.toISOString() },
});

/** The seals of a folder, in the order they were written. @throws Error for a line that is none */
export async function sealsIn(home: string): Promise<Seal[]> {
  let text = '';
  try {
    text = await readFile(join(home, FILE), 'utf8');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
  }
  return text
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => sealSchema.parse(JSON.parse(line)));
}

/** More than a line of the file takes. */
const A_LINE = 1_000;

/** The seal that was written last; null where none was. Of a long file only the end is read. */
async function lastSealIn(home: string): Promise<Seal | null> {
  const path = join(home, FILE);
  const file = await open(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'ENOENT') throw error;
    return null;
  });
  if (!file) return null;
  try {
    const { size } = await file.stat();
    const start = Math.max(0, size - A_LINE);
    const { buffer, bytesRead } = await file.read(Buffer.alloc(size - start), 0, size - start, start);
    const line = buffer.toString('utf8', 0, bytesRead).trimEnd().split('\n').at(-1);
    return line ? sealSchema.parse(JSON.parse(line)) : null;
  } finally {
    await file.close();
  }
}

interface PublicKey {
  name: string;
  key: KeyObject;
  pem: string;
}

/** The public half of a folder's key; null where there is none. */
async function publicKeyIn(home: string, file: string = PUBLIC_KEY): Promise<PublicKey | null> {
  try {
    const pem = await readFile(join(home, file), 'utf8');
    const key = createPublicKey(pem);
    return { name: nameOf(key), key, pem };
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    return null;
  }
}

/** The public halves of every key that the seals of a folder were signed with, by their file; none where it is not there. */
export async function publicKeysIn(home: string): Promise<Map<string, PublicKey>> {
  const files = (existsSync(home) ? await readdir(home) : []).filter((file) =>
    /^seal-key(-[0-9a-f]{16})?\.pub\.pem$/.test(file),
  );
  const keys = new Map<string, PublicKey>();
  for (const file of files) keys.set(file, (await publicKeyIn(home, file))!);
  return keys;
}

export const isSigned = (seal: Seal, key: KeyObject): boolean =>
  verify(null, signed(seal), key, Buffer.from(seal.signature, 'base64'));

/** Which record this is: the hash of its first entry; null before there is one. */
export async function chainOf(db: Database): Promise<string | null> {
  return (await db.entry.findByPk(1, { attributes: ['hash'] }))?.hash ?? null;
}

export async function sealsOf(db: Database): Promise<Seal[]> {
  return (await db.seal.findAll({ order: ['seq'] })).map(toSeal);
}

/**
 * Seals the record, every hour and at every release, and keeps the seals in a file beside the key.
 * @param home folder of key and file, outside the database; null where the record is not sealed
 */
export function sealsService(db: Database, home: string | null, now: () => Date, log: Logger) {
  // Work goes on where the key cannot be read: what is recorded is sealed with what comes after.
  const key = home === null ? null : openKey(home).catch(complain('the key of the seals cannot be read'));

  function complain(what: string) {
    return (error: unknown) => {
      log.error({ err: error }, what);
      return null;
    };
  }

  let writing = Promise.resolve();

  /**
   * A record that is not the one sealed here before is sealed only where the shop begins: else somebody who put another
   * in its place would have it sealed by waiting.
   */
  async function mayBeSealed(chain: string, begins: boolean): Promise<boolean> {
    const last = await lastSealIn(home!);
    return begins || last === null || last.chain === chain;
  }

  /** Seals an entry in the open transaction: it and all before it. @returns whether it is sealed */
  async function seal({ seq, hash }: { seq: number; hash: string }, begins = false): Promise<boolean> {
    const own = await key;
    const chain = await chainOf(db);
    if (!own || chain === null) return false;
    if (!(await mayBeSealed(chain, begins))) {
      log.error('this record is not the one that was sealed here before: it is not sealed');
      return false;
    }
    const at = now();
    const text = signed({ chain, seq, hash, at: at.toISOString() });
    const signature = sign(null, text, own.key).toString('base64');
    await db.seal.create({ chain, seq, hash, at, key: own.name, signature });
    return true;
  }

  async function write(): Promise<void> {
    const chain = await chainOf(db);
    if (home === null || chain === null) return;
    const newest = await lastSealIn(home);
    const last = newest?.chain === chain ? newest.seq : 0;
    const more = await db.seal.findAll({ where: { chain, seq: { [Op.gt]: last } }, order: ['seq'] });
    if (more.length === 0) return;
    await appendFile(join(home, FILE), more.map((row) => `${JSON.stringify(toSeal(row))}\n`).join(''));
  }

  return {
    seal,

    /** Writes what was sealed since into the file, one after the other. */
    writeFile(): Promise<void> {
      writing = writing.then(write).catch((error: unknown) => {
        // They stand in the database, and are written with the next.
        complain('the seals were not written into their file')(error);
      });
      return writing;
    },

    /**
     * Seals the end of the record, where it is not sealed yet.
     * @param begins whether the shop begins with this record
     */
    async sealEnd(begins = false): Promise<void> {
      await inTransaction(db, async () => {
        await db.sequelize.query(`select pg_advisory_xact_lock(${CHAIN_LOCK})`);
        const last = await db.entry.findOne({ attributes: ['seq', 'hash'], order: [['seq', 'DESC']] });
        if (!last) return;
        const [seq, chain] = [Number(last.seq), await chainOf(db)];
        if (chain && !(await db.seal.findOne({ where: { chain, seq } })))
          await seal({ seq, hash: last.hash }, begins);
      });
      await this.writeFile();
    },

    /** The first seal that holds an entry; null where it is not sealed yet. */
    async sealOver(seq: number): Promise<Seal | null> {
      const row = await db.seal.findOne({ where: { seq: { [Op.gte]: seq } }, order: ['seq'] });
      return row && toSeal(row);
    },
  };
}
export type SealsService = ReturnType<typeof sealsService>;
