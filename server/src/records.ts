import { createInterface } from 'node:readline/promises';
import { connectDatabase, type Database } from './database/connect.ts';
import { HttpProblem } from './http/problem.ts';
import { exportRecord } from './record/export.ts';
import { rebuildProjections } from './record/rebuild.ts';
import { noteBreak } from './record/verify-chain.ts';
import { verifyRecord } from './record/verify.ts';
import { rightsService } from './people/rights.ts';
import { peopleService } from './people/service.ts';
import { shopClock } from './shop/clock.ts';
import { settingsService } from './shop/settings.ts';

// Whatever this program writes into files is for its own account to read.
process.umask(0o077);

async function verify(db: Database): Promise<void> {
  const report = await verifyRecord(db, seals);
  if (!report.ok) {
    console.error(`Wrong: ${report.part}: ${report.reason}.`);
    process.exitCode = 1;
    return;
  }
  const { entries, streams, photos, noted } = report;
  const notes = noted > 0 ? ` ${noted} broken links have a note beside them.` : '';
  console.log(
    `${entries} records in ${streams} streams, ${report.seals} seals, ${photos} photos: all hold. Last hash ${report.lastHash}.${notes}`,
  );
}

async function writeExport(db: Database): Promise<void> {
  const folder = process.argv[3];
  if (!folder) {
    console.error('Name the folder.');
    process.exitCode = 2;
    return;
  }
  await exportRecord(db, seals, folder);
  console.log(`The record is in ${folder}. Prove it with: node ${folder}/verify.mjs`);
}

/** Reads login, password and reason, a line each, from the standard input: a password stands in no command. */
async function note(db: Database): Promise<void> {
  const people = peopleService(
    db,
    rightsService(db, settingsService(db, 'UTC')),
    shopClock(() => 'UTC'),
    { demo: false, firstCode: undefined },
  );
  const lines: string[] = [];
  for await (const line of createInterface({ input: process.stdin })) lines.push(line);
  const [login = '', password = '', reason = ''] = lines;
  try {
    const noted = await noteBreak(db, people, { login, password, reason });
    console.log(`Noted beside record ${noted.seq}: ${noted.reason}.`);
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    console.error(`${error.message}.`);
    process.exitCode = 1;
  }
}

async function rebuild(db: Database): Promise<void> {
  const { streams, aside } = await rebuildProjections(db);
  console.log(`${streams} streams folded, their rows swapped in.`);
  for (const { stream, streamId, reason } of aside)
    console.error(`Set aside, its rows as they were: ${stream} ${streamId}: ${reason}.`);
  if (aside.length > 0) process.exitCode = 1;
}

/** Proves that no record was altered, writes it out, puts a note beside a broken one, or writes the projections again. */
const [, , task] = process.argv;
const url = process.env['DATABASE_URL'];
const seals = process.env['SEALS'] ?? null;
if (!url) throw new Error('DATABASE_URL is not set');
const db = connectDatabase(url);

if (task === 'verify') await verify(db);
else if (task === 'export') await writeExport(db);
else if (task === 'note') await note(db);
else if (task === 'rebuild') await rebuild(db);
else {
  console.error('Name one: verify, export, note or rebuild.');
  process.exitCode = 2;
}
await db.sequelize.close();
