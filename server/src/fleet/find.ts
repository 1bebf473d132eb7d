import type { Found } from '@lanternwright/contract/fleet';
import { plainNumber } from '@lanternwright/core/part';
import type { Database } from '../database/connect.ts';
import { named, prepared } from '../database/prepared.ts';
import { able, type Viewer } from '../http/viewer.ts';
import { patternsOf, wordsFound } from './find-words.ts';
import { places } from './fleet-page.ts';

const MOST = 8;
const MOST_PARTS = 4;

/** What is called exactly so comes first, then what begins so. @param text what names it */
const likeliest = (name: string, text: string) =>
  `lower(${name}) = lower(${text}) desc, starts_with(lower(${name}), lower(${text})) desc`;

/** SQL: units by words, the likeliest first. */
export function findUnits(text: string): [sql: string, values: unknown[]] {
  const { values, bound } = places();
  const whole = bound(text);
  const sql = `
    select u.id, u.name, u.kind, u.plate, o.name as owner from unit u join owner o on o.id = u.owner_id
    where ${wordsFound(text, bound)}
    order by ${likeliest('u.name', whole)}, u.name collate natural_order, u.id limit ${MOST}`;
  return [sql, values];
}

const FIND_JOBS = `
  select j.id, j.number, j.title, u.name as unit, j.closed_at is null as open
  from job j join unit u on u.id = j.unit_id
  where (j.closed_at is null and concat_ws(' ', 'job', j.number, j.title, u.name) ilike all($1 ::text[]))
    or j.number = $3 ::int
  order by j.number = $3 ::int desc nulls last, ${likeliest('u.name', '$2')}, j.opened_at desc limit ${MOST}`;

/** SQL: parts of which a number begins with $1, as numbers are compared; those that lie here first. */
const FIND_PARTS = `
  select p.id, p.part ->> 'number' as number, p.title, p.on_hand as "onHand" from part p
  where p.id in (select part_id from part_number where plain like $1 || '%' limit 50)
  order by p.on_hand > 0 desc, p.title, p.id limit ${MOST_PARTS}`;

const FIND_TOOLS = `
  select id, code, tool ->> 'title' as title from tool
  where retired_at is null and concat_ws(' ', code, tool ->> 'title') ilike all($1 ::text[])
  order by ${likeliest('code', '$2')}, code limit ${MOST_PARTS}`;

/** SQL: batches that begin as $1 says, with how many units each is on. */
const FIND_BATCHES = `
  select m.part_id as "partId", m.batch, p.part ->> 'number' as number, p.title,
    count(distinct j.unit_id) filter (where m.what = 'used') ::int as units
  from stock_movement m join part p on p.id = m.part_id left join job j on j.id = m.job_id
  where starts_with(lower(m.batch), lower($1))
  group by m.part_id, m.batch, p.part, p.title order by max(m.at) desc limit ${MOST_PARTS}`;

const FIND_ORDERS = `
  select id, number, supplier, status from purchase
  where concat_ws(' ', 'order', number, supplier, reference) ilike all($1 ::text[])
  order by number = $2 ::int desc nulls last, number desc limit ${MOST_PARTS}`;

const FIND_PEOPLE = `
  select id, name, role from person where switched_off_at is null and name ilike all($1 ::text[])
  order by name, id limit ${MOST_PARTS}`;

/** Fewer signs begin too many numbers. */
const LEAST_READ = 3;

/** A number of a job or an order where the text is one: `1042`, `job 1042`. */
function numberIn(text: string): number | null {
  const digits = /^(?:(?:job|order)\s*)?(\d{1,9})$/i.exec(text)?.[1];
  return digits === undefined ? null : Number(digits);
}

/** Finds units, jobs, tools, orders and people by words, parts by number, batches; an owner's contact finds their own, which the database keeps to. */
export function finder(db: Database) {
  return async (text: string, viewer: Viewer): Promise<Found> => {
    const [sql, values] = findUnits(text);
    const plain = plainNumber(text);
    const [patterns, number] = [patternsOf(text), numberIn(text)];
    const [units, jobs, parts, tools, orders, people, batches] = await Promise.all([
      able(viewer, 'see-units')
        ? prepared<Found['units'][number]>(db, ...named('find-units', sql), values)
        : [],
      able(viewer, 'see-jobs')
        ? prepared<Found['jobs'][number]>(db, 'find-jobs', FIND_JOBS, [patterns, text, number])
        : [],
      able(viewer, 'see-stores') && plain.length >= LEAST_READ
        ? prepared<Found['parts'][number]>(db, 'find-parts', FIND_PARTS, [plain])
        : [],
      able(viewer, 'see-tools')
        ? prepared<Found['tools'][number]>(db, 'find-tools', FIND_TOOLS, [patterns, text])
        : [],
      able(viewer, 'see-stores')
        ? prepared<Found['orders'][number]>(db, 'find-orders', FIND_ORDERS, [patterns, number])
        : [],
      able(viewer, 'manage-people')
        ? prepared<Found['people'][number]>(db, 'find-people', FIND_PEOPLE, [patterns])
        : [],
      able(viewer, 'see-stores') && text.length >= LEAST_READ
        ? prepared<Found['batches'][number]>(db, 'find-batches', FIND_BATCHES, [text])
        : [],
    ]);
    return { units, jobs, parts, tools, orders, people, batches };
  };
}
