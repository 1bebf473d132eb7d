import { createHash } from 'node:crypto';
import type { Actor, EventBody, StoredEvent } from '@lanternwright/core/traveller';

/** What one link of the chain binds. */
export interface Link {
  seq: number;
  id: string;
  jobId: string;
  version: number;
  at: string;
  by: Actor;
  body: EventBody;
  prevHash: string;
}

/** Hash before the first event. */
export const GENESIS = '0'.repeat(64);

/** JSON with sorted keys and no undefined members, so that a value read back from jsonb gives the same text. */
function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  const members = Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`);
  return `{${members.join(',')}}`;
}

/** SHA-256 of a link, in hex. @source FIPS 180-4, through node:crypto */
export function hashLink(link: Link): string {
  return createHash('sha256').update(canonicalJson(link)).digest('hex');
}

/** Links an event to the one before. */
export function linkOf(event: StoredEvent, seq: number, prevHash: string): Link {
  const { id, jobId, version, at, by, body } = event;
  return { seq, id, jobId, version, at, by, body, prevHash };
}
