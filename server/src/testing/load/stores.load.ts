import pg from 'pg';
import { afterAll, beforeAll, it } from 'vitest';
import { BY_MEASURE, LINES, NEAR_NUMBERS, NUMBERS } from '../../stores/search.ts';
import { bareClients, measure, say } from './measure.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { must } from './technician.ts';

const SECONDS = Number(process.env['SECONDS'] ?? 5);
const PARTS = Number(process.env['PARTS'] ?? 100_000);
const CLIENTS = 4;

/** Parts of all kinds with two crossings each, their sizes spread over what wheel ends have. */
const FILL = `
  with made as materialized (
    select gen_random_uuid() as id, n,
      (array['seal', 'cone', 'cup', 'bearing-set', 'gasket', 'nut', 'stud', 'lining'])[(n % 8 + 1) ::int] as kind,
      lpad((n * 7919 % 1000000) ::text, 6, '0') as number, 30 + n % 1700 / 10.0 as bore, n % 37 as thick, n % 23 as wide
    from generate_series(1, $1 ::bigint) n
  ), filled as (
    insert into part (id, part, version, changed_at, changed_by, kind, title, bore_mm, outside_mm, width_mm, on_hand, reserved, cores)
    select id, jsonb_build_object('id', id, 'kind', kind, 'title', kind || ' of wheel end ' || n % 900,
        'number', left(number, 2) || '-' || substr(number, 3), 'dims', '{}' ::jsonb, 'lips', null), 1, now(), 'bench', kind,
      kind || ' of wheel end ' || n % 900, bore, bore + 30 + thick, 8 + wide, 0, 0, 0
    from made
  )
  insert into part_number (part_id, plain, number, own)
  select id, number, left(number, 2) || '-' || substr(number, 3), true from made
  union all select id, 'HS' || (n * 104729 % 10000000), 'HS ' || (n * 104729 % 10000000), false from made
  union all select id, (n * 15485863 % 100000000) || 'B', (n * 15485863 % 100000000) || ' B', false from made`;

let shop: LoadShop;
let bare: pg.Client[] = [];
beforeAll(async () => {
  shop = await openLoadShop({ servers: 1, technicians: CLIENTS });
  const owner = new pg.Client({ connectionString: shop.postgres.ownerUrl });
  await owner.connect();
  await owner.query(FILL, [PARTS]);
  await owner.query('vacuum analyze part, part_number');
  await owner.end();
  bare = await bareClients(shop.postgres.url, CLIENTS);
}, 600_000);
afterAll(async () => {
  await Promise.all(bare.map((c) => c.end()));
  await shop.close();
});

it('finds parts among many', async () => {
  let n = 0;
  const next = () => (n += 1);
  const digits = () => String((next() * 7_919 * 13) % 1_000_000).padStart(6, '0');
  const read = async (what: string, path: () => string, statements: () => [string, string, unknown[]][]) =>
    say(
      what,
      await measure(shop.technicians, SECONDS, (caller) => must(caller, 'GET', path())),
      await measure(bare, SECONDS, async (client) => {
        for (const [name, text, values] of statements()) {
          const { rows } = await client.query<{ id: string }>({ name, text, values });
          if (name !== 'measure')
            await client.query({ name: 'lines', text: LINES, values: [rows.slice(0, 40).map((r) => r.id)] });
        }
      }),
    );
  const by = async (
    what: string,
    text: () => string,
    statement: (text: string) => [string, string, unknown[]],
  ) =>
    read(
      what,
      () => `/api/stores/parts?text=${encodeURIComponent(text())}`,
      () => [statement(text())],
    );
  say(
    'a request that asks for next to nothing',
    await measure(shop.technicians, SECONDS, (caller) => must(caller, 'GET', '/api/tools')),
  );
  await by('a part by its number', digits, (text) => ['numbers', NUMBERS, [text, `${text}%`]]);
  await by(
    'by a number with gaps',
    () => `${digits().slice(0, 2)}?${digits().slice(3, 5)}*`,
    (text) => ['numbers', NUMBERS, [text, text.replace('?', '_').replace('*', '%')]],
  );
  await by(
    'by a number that is nearly one',
    () => `${digits().slice(0, 5)}X`,
    (text) => ['near', NEAR_NUMBERS, [text]],
  );
  const sizes = () => {
    const bore = 30 + (next() % 1_700) / 10;
    return { bore, outside: bore + 30 + (n % 37), width: 8 + (n % 23) };
  };
  await read(
    'by measuring',
    () => {
      const { bore, outside, width } = sizes();
      return `/api/stores/by-measure?kind=seal&bore=${bore}&outside=${outside}&width=${width}`;
    },
    () => {
      const { bore, outside, width } = sizes();
      return [['measure', BY_MEASURE, ['seal', bore, outside, width]]];
    },
  );
}, 600_000);
