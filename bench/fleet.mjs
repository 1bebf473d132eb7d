import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import { layouts } from '@lanternwright/core/axle-plan';

/**
 * A fleet far larger than the demo's, written with COPY straight into the tables that lists are read from: units of many
 * owners, their axles, what is known of their wheel ends, four years of meters, what is due and who is booked.
 */

const DAY = 86_400_000;
// Eight wheel ends a unit, on average.
const kinds = layouts
  .filter((l) => l.axles.length > 2)
  .flatMap((l) => (l.axles.length > 3 ? [l, l, l] : [l]));

/** @param {number} seed @returns {() => number} numbers from 0 to 1, the same for the same seed */
function randomFrom(seed) {
  let state = (seed % 2147483646) + 1;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

/** @param {unknown} value @returns {string} a field of COPY's text format */
function field(value) {
  if (value === null || value === undefined) return '\\N';
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value);
  return text.replace(
    /[\\\n\r\t]/g,
    (c) => ({ '\\': '\\\\', '\n': '\\n', '\r': '\\r', '\t': '\\t' })[c] ?? c,
  );
}

const AT_ONCE = 2_000;

/** @param {Iterable<unknown[]>} rows @returns {Generator<string>} */
function* lines(rows) {
  let piece = [];
  for (const row of rows) {
    piece.push(row.map(field).join('\t'));
    if (piece.length === AT_ONCE) {
      yield `${piece.join('\n')}\n`;
      piece = [];
    }
  }
  if (piece.length > 0) yield `${piece.join('\n')}\n`;
}

/**
 * Fills a migrated database that has no units.
 * @param {import('pg').Client} client of the role that owns the tables
 * @param {{ units?: number, readings?: number, owners?: number, seed?: number, today?: string }} [size]
 * @returns {Promise<{ units: string[], owners: string[], wheelEnds: number }>} ids
 */
export async function fillFleet(
  client,
  { units = 20_000, readings = 2_000_000, owners = 40, seed = 618, today = '2026-11-26' } = {},
) {
  const random = randomFrom(seed);
  const pick = (/** @type {readonly any[]} */ list) => list[Math.floor(random() * list.length)];
  const id = () => {
    const hex = Array.from({ length: 32 }, () => Math.floor(random() * 16).toString(16)).join('');
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
  };
  const now = Date.parse(`${today}T12:00:00Z`);
  const day = (/** @type {number} */ ago) => new Date(now - ago * DAY).toISOString().slice(0, 10);
  const copy = async (/** @type {string} */ into, /** @type {Iterable<unknown[]>} */ rows) =>
    pipeline(Readable.from(lines(rows)), client.query(copyFrom(`copy ${into} from stdin`)));

  const ownerIds = Array.from({ length: owners }, id);
  const fleet = Array.from({ length: units }, (_, n) => {
    const layout = pick(kinds);
    return {
      id: id(),
      owner: ownerIds[n % owners],
      name: `Unit ${n + 1}`,
      kind: pick(layout.kinds),
      plate: `MB ${String(n).padStart(5, '0')}`,
      aDay: 40 + random() * 400,
      axles: layout.axles.map((/** @type {object} */ axle) => ({ id: id(), ...axle })),
    };
  });
  const ends = fleet.flatMap((unit) =>
    unit.axles.flatMap((/** @type {any} */ axle, /** @type {number} */ i) =>
      ['L', 'R'].map((side) => ({ unit, axle, position: `${i + 1}${side}` })),
    ),
  );

  await client.query('begin');
  await copy(
    'owner (id, name)',
    ownerIds.map((o, n) => [o, `Owner ${n + 1} Haulage`]),
  );
  await copy(
    'unit (id, owner_id, name, kind, plate)',
    fleet.map((u) => [u.id, u.owner, u.name, u.kind, u.plate]),
  );
  await copy(
    'axle (id, unit_id, number, role, wheels, brake, sheet)',
    fleet.flatMap((u) =>
      u.axles.map((/** @type {any} */ a, /** @type {number} */ i) => [
        a.id,
        u.id,
        i + 1,
        a.role,
        a.wheels,
        a.brake,
        a.sheet,
      ]),
    ),
  );
  await copy(
    'wheel_end (unit_id, axle_id, position, verdict, end_play_mm, read_at, read_km)',
    ends.map(({ unit, axle, position }) => {
      const verdict = random() < 0.93 ? 'in-band' : pick(['tight', 'loose', 'unsure']);
      return [
        unit.id,
        axle.id,
        position,
        verdict,
        0.02 + random() * 0.1,
        `${day(random() * 700)}T09:00:00Z`,
        1000,
      ];
    }),
  );
  const each = Math.round(readings / units);
  await copy(
    'meter_reading (unit_id, nth, date, km, source, total_km)',
    (function* () {
      for (const unit of fleet)
        for (let n = 0; n < each; n++) {
          const ago = Math.round(((each - 1 - n) * 1_460) / each);
          const km = Math.round((1_460 - ago) * unit.aDay);
          yield [unit.id, n, day(ago), km, 'feed', km];
        }
    })(),
  );
  const dues = ends.flatMap(({ unit, axle, position }) =>
    ['seal', 'check'].map((work) => ({
      unit,
      row: [axle.id, position, work, unit.id, day(500 - random() * 500), day(60 - random() * 500)],
    })),
  );
  await copy(
    'due (axle_id, position, work, unit_id, last_on, due_on, earliest, latest, due_by, missing)',
    dues.map(({ row }) => [...row, row[5], row[5], 'distance', []]),
  );
  await client.query(
    `insert into unit_due select unit_id, min(due_on), min(earliest), 0 from due group by unit_id`,
  );
  await copy(
    'booking (id, unit_id, bay_id, during, people, tools, note, locked, cancelled, version)',
    Array.from({ length: 200 }, (_, n) => {
      const from = now + Math.floor(n / 8) * 7_200_000;
      const during = `[${new Date(from).toISOString()},${new Date(from + 6_000_000).toISOString()})`;
      return [id(), fleet[n]?.id, `bay-${(n % 8) + 1}`, during, '{}', '{}', '', false, false, 1];
    }),
  );
  await client.query('commit');
  await client.query('analyze');
  return { units: fleet.map((u) => u.id), owners: ownerIds, wheelEnds: ends.length };
}
