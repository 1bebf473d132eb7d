import { isoTime } from '../database/sql-time.ts';

/** SQL: jobs as lists name them, newest first. @param places of the owners who are seen (null: all), how many, after how many */
export const jobLines = (
  which: 'open' | 'closed',
  { owners, limit, offset }: Record<'owners' | 'limit' | 'offset', string>,
) => `
  select j.id, j.number, j.title, j.stopped, j.estimate, j.wheel_ends as "wheelEnds",
    ${isoTime('j.opened_at')} as "openedAt",
    ${isoTime('j.closed_at')} as "closedAt",
    json_build_object('id', u.id, 'name', u.name, 'kind', u.kind,
      'owner', json_build_object('id', o.id, 'name', o.name)) as unit
  from job j join unit u on u.id = j.unit_id join owner o on o.id = u.owner_id
  where j.closed_at is ${which === 'open' ? 'null' : 'not null'}
    and (${owners} ::uuid[] is null or o.id = any(${owners} ::uuid[]))
  order by j.opened_at desc, j.number desc limit ${limit} offset ${offset}`;

const pageOf = (which: 'open' | 'closed') => `
  select coalesce(json_agg(line), '[]') ::text as page
  from (${jobLines(which, { owners: '$3', limit: '$1', offset: '$2' })}) line`;
export const OPEN_JOBS = pageOf('open');
export const CLOSED_JOBS = pageOf('closed');
