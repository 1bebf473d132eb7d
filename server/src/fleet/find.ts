import type { Found } from '@lanternwright/contract/fleet';
import { may } from '@lanternwright/core/access';
import { plainNumber } from '@lanternwright/core/part';
import type { Database } from '../database/connect.ts';
import { named, prepared } from '../database/prepared.ts';
import type { Viewer } from '../http/viewer.ts';
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

/** Fewer signs begin too many numbers. */
const LEAST_READ = 3;

/** A job's number where the text is one: `1042`, `job 1042`. */
function numberIn(text: string): number | null {
  const digits = /^(?:job\s*)?(\d{1,9})$/i.exec(text)?.[1];
  return digits === undefined ? null : Number(digits);
}

/** Finds units and jobs by words, parts by number; an owner's contact finds their own, which the database keeps to. */
export function finder(db: Database) {
  return async (text: string, { person }: Viewer): Promise<Found> => {
    const [sql, values] = findUnits(text);
    const plain = plainNumber(text);
    const [units, jobs, parts] = await Promise.all([
      may(person.role, 'see-units')
        ? prepared<Found['units'][number]>(db, ...named('find-units', sql), values)
        : [],
      may(person.role, 'see-jobs')
        ? prepared<Found['jobs'][number]>(db, 'find-jobs', FIND_JOBS, [
            patternsOf(text),
            text,
            numberIn(text),
          ])
        : [],
      may(person.role, 'see-stores') && plain.length >= LEAST_READ
        ? prepared<Found['parts'][number]>(db, 'find-parts', FIND_PARTS, [plain])
        : [],
    ]);
    return { units, jobs, parts };
  };
}
