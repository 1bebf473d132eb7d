import { createHash } from 'node:crypto';
import { canonicalJson, type Entry } from '@lanternwright/core/record';

/** An entry in its place in the chain. */
export interface Link extends Entry {
  seq: number;
  prevHash: string;
  hash: string;
  /** How it is hashed. */
  form: 1 | 2;
}

/** Hash before the first entry. */
export const GENESIS = '0'.repeat(64);

/** SHA-256 of a text, in hex. @source FIPS 180-4, through node:crypto */
export const sha256 = (text: string | Buffer): string => createHash('sha256').update(text).digest('hex');

/** Hash of what an entry says, wherever it stands. */
export function contentHash({ id, stream, streamId, version, at, by, body }: Entry): string {
  return sha256(canonicalJson({ id, stream, streamId, version, at, by, body }));
}

/** Form 2: the form, the place, the hash before and the hash of the content, a line each. */
export function linkHash(seq: number, prevHash: string, content: string): string {
  return sha256(['2', seq, prevHash, content].join('\n'));
}

/** The hash a link must have. Form 1 is the one of the record of jobs, from before it took other streams. */
export function hashOf(link: Link): string {
  const { seq, id, streamId, version, at, by, body, prevHash, form } = link;
  if (form === 1) return sha256(canonicalJson({ seq, id, jobId: streamId, version, at, by, body, prevHash }));
  return linkHash(seq, prevHash, contentHash(link));
}
