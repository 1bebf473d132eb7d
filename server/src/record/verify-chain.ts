import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';
import { HttpProblem, refused } from '../http/problem.ts';
import type { PeopleService } from '../people/service.ts';
import { GENESIS, hashOf, sha256, type Link } from './link.ts';
import { toLink, type RawEntry } from './model.ts';

export type ChainReport =
  { ok: true; events: number; lastHash: string; noted: number } | { ok: false; seq: number; reason: string };

const AT_ONCE = 2_000;
const SHORTEST_REASON = 10;

/** What stands at a broken link, as one hash: a note holds for just that, and for nothing it is changed to later. */
const fingerprint = (...parts: readonly string[]) => sha256(parts.join('|'));

/** Notes beside broken links: what each found there. */
async function notes(db: Database): Promise<Map<number, string>> {
  const rows = await db.sequelize.query<{ seq: string; found: string }>('select seq, found from chain_note', {
    type: QueryTypes.SELECT,
  });
  return new Map(rows.map(({ seq, found }) => [Number(seq), found]));
}

interface Broken {
  seq: number;
  reason: string;
  /** Null where nothing stands there that a note could be about. */
  found: string | null;
}

/** What is wrong with a link, given the hash of the one before; null where nothing is. */
function faultOf(link: Link, seq: number, prevHash: string): Broken | null {
  const own = hashOf(link);
  const found = fingerprint(prevHash, link.prevHash, link.hash, own);
  if (link.prevHash !== prevHash)
    return { seq, reason: `Record ${seq} does not follow the one before it`, found };
  if (own !== link.hash)
    return { seq, reason: `Record ${seq} was altered: its content does not give its hash`, found };
  return null;
}

/** Walks the whole chain and recomputes every hash; stops at the first break that no note stands beside. */
async function walk(db: Database): Promise<ChainReport & { broken?: Broken }> {
  const noted = await notes(db);
  let prevHash = GENESIS;
  let seq = 0;
  let passed = 0;
  for (;;) {
    const rows = await db.sequelize.query<RawEntry>(
      `select * from entry where seq > $1 order by seq limit ${AT_ONCE}`,
      { type: QueryTypes.SELECT, bind: [seq] },
    );
    if (rows.length === 0) return { ok: true, events: seq, lastHash: prevHash, noted: passed };
    for (const row of rows) {
      const next = seq + 1;
      const broken =
        Number(row.seq) === next
          ? faultOf(toLink(row), next, prevHash)
          : { seq: next, reason: `Record ${next} is missing`, found: null };
      if (broken && noted.get(next) !== broken.found) return { ok: false, ...broken, broken };
      if (broken) passed += 1;
      prevHash = row.hash;
      seq = next;
    }
  }
}

/** Whether every record follows the one before and gives its hash. The first link that does not hold is reported. */
export async function verifyChain(db: Database): Promise<ChainReport> {
  const report = await walk(db);
  if (report.ok) return report;
  return { ok: false, seq: report.seq, reason: report.reason };
}

/**
 * Puts a note beside the first broken link, the one repair it may have: nothing of the record changes, the note says
 * who looked at it and why it is so, and the chain is verified past it from then on.
 * @throws HttpProblem when nothing is broken, nothing stands there, or it is no supervisor who signs
 */
export async function noteBreak(
  db: Database,
  people: PeopleService,
  { login, password, reason }: { login: string; password: string; reason: string },
): Promise<{ seq: number; reason: string }> {
  const person = await people.withPassword(login, password);
  if (person.role !== 'supervisor') throw new HttpProblem(403, 'Not allowed', 'A supervisor signs a note');
  if (reason.trim().length < SHORTEST_REASON) throw refused('Enter what happened, in a sentence', 'reason');
  const report = await walk(db);
  if (report.ok || !report.broken) throw refused('No link is broken: there is nothing to note');
  const { seq, found, reason: fault } = report.broken;
  if (found === null) throw refused(`${fault}: a note has nothing to stand beside. Restore a backup.`);
  await db.sequelize.query(
    `insert into chain_note (seq, found, fault, reason, person_id, person_name)
     values (:seq, :found, :fault, :reason, :id, :name)`,
    { replacements: { seq, found, fault, reason: reason.trim(), id: person.id, name: person.name } },
  );
  return { seq, reason: fault };
}
