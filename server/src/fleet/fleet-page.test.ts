import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  NEEDING_A_PAGE,
  UNITS_A_PAGE,
  type FleetOverview,
  type FleetPage,
  type Found,
} from '@lanternwright/contract/fleet';
import { addUnit, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
const ids: Record<string, string> = {};
beforeAll(async () => {
  shop = await openShop();
  for (const [name, owner] of [
    ['Tern 10', 'Tern & Hollow Haulage'],
    ['Tern 9', 'Tern & Hollow Haulage'],
    ['Dunlin 100%', 'Marrow Valley Coaches'],
    ['Dunlin 2', 'Marrow Valley Coaches'],
  ] as const)
    ids[name] = await addUnit(shop, name, 'tractor-3', owner);
  ids['job'] = await openJobOn(shop, ids['Tern 9']!, ['2L', '2R']);
});
afterAll(() => shop.close());

const page = async (query: Record<string, string> = {}): Promise<FleetPage> =>
  (await shop.technician.call.get('/api/fleet/units').query(query).expect(200)).body;
const names = async (query: Record<string, string>) => (await page(query)).units.map((u) => u.name);

describe('the fleet, a page at a time', () => {
  it('goes by owner and name, 9 before 10, and counts the whole fleet', async () => {
    const { units, total, ofOwner, fleet } = await page();
    expect(units.map((u) => u.name)).toEqual(['Dunlin 2', 'Dunlin 100%', 'Tern 9', 'Tern 10']);
    expect({ total, fleet }).toEqual({
      total: 4,
      fleet: { units: 4, standing: { working: 2 } },
    });
    expect(Object.values(ofOwner)).toEqual([2, 2]);
  });

  it('finds by words of name, plate, owner and kind, in any order; a sign is a letter', async () => {
    expect(await names({ search: 'valley dunlin' })).toEqual(['Dunlin 2', 'Dunlin 100%']);
    expect(await names({ search: '100%' })).toEqual(['Dunlin 100%']);
    expect(await names({ search: 'abc tractor' })).toHaveLength(4);
    expect(await names({ search: 'tern_9' })).toEqual([]);
    expect(await names({ search: '\\' })).toEqual([]);
  });

  it('keeps to owner, kind and state, each alone and all at once', async () => {
    const owner = (await page({ search: 'tern' })).units[0]!.owner.id;
    expect(await names({ owner })).toEqual(['Tern 9', 'Tern 10']);
    expect(await names({ kind: 'bus' })).toEqual([]);
    expect(await names({ state: 'working' })).toEqual(['Tern 9']);
    expect(await names({ state: 'not-measured' })).toHaveLength(4);
    expect(await names({ owner, kind: 'tractor', state: 'working', search: 'tern' })).toEqual(['Tern 9']);
    const { total, fleet } = await page({ state: 'working' });
    expect({ total, units: fleet.units }).toEqual({ total: 1, units: 4 });
  });

  it('shows each unit once over all pages', async () => {
    for (let i = 0; i < UNITS_A_PAGE; i++) await addUnit(shop, `Plover ${i}`, 'tractor-2', 'Dunlin Hire');
    const [first, second] = [await page({ page: '1' }), await page({ page: '2' })];
    const all = [...first.units, ...second.units].map((u) => u.id);
    expect(first.units).toHaveLength(UNITS_A_PAGE);
    expect(new Set(all).size).toBe(first.total);
    expect((await page({ page: '3' })).units).toEqual([]);
  }, 60_000);

  it('refuses what no fleet has', async () => {
    for (const query of [{ kind: 'ship' }, { state: 'fine' }, { owner: 'x' }, { page: '0' }])
      await shop.technician.call.get('/api/fleet/units').query(query).expect(422);
  });
});

describe('what needs something first', () => {
  const overview = async (number = 1, call = shop.technician.call): Promise<FleetOverview> =>
    (await call.get('/api/fleet/overview').query({ page: number }).expect(200)).body;
  const table = (sql: string, ids: readonly string[]) =>
    shop.db.sequelize.query(sql, { replacements: { ids } });

  it('puts out of service before loose, then a job, a follow-up, a work past its interval; owners are counted', async () => {
    const before = await overview();
    expect(before.needing.map((n) => n.unit.name)).toEqual(['Tern 9']);
    const unit: Record<string, string> = {};
    for (const name of ['Out', 'Loose', 'Followed', 'Overdue', 'Well'])
      unit[name] = await addUnit(shop, `Heron ${name}`, 'tractor-2', 'Heron Coaches');
    const state = (name: string, verdict: string, outOfService: string) =>
      table(
        `insert into wheel_end (axle_id, position, unit_id, verdict, end_play_mm, out_of_service)
         select id, number || 'L', unit_id, ${verdict}, 0.5, ${outOfService} from axle where unit_id in (:ids) and number = 1`,
        [unit[name]!],
      );
    await state('Out', `'loose'`, `'{"reason": "spindle"}'`);
    await state('Loose', `'loose'`, 'null');
    await state('Well', `'in-band'`, 'null');
    await table(
      `insert into follow_up (job_id, axle_id, position, kind, nth, unit_id, what, by_date)
       select j.id, a.id, '1L', 'retorque', 1, a.unit_id, '', '2020-01-01' from axle a, job j where a.unit_id in (:ids) limit 1`,
      [unit['Followed']!],
    );
    await table(`update unit_due set due_on = '2020-01-01' where unit_id in (:ids)`, [unit['Overdue']!]);
    const { needing, total, owners } = await overview();
    expect(needing.map((n) => n.unit.name)).toEqual([
      ...['Heron Out', 'Heron Loose', 'Tern 9', 'Heron Followed', 'Heron Overdue'],
    ]);
    expect(needing.map((n) => n.followUps)).toEqual([0, 0, 0, 1, 0]);
    expect(total).toBe(5);
    expect(owners.find((o) => o.name === 'Heron Coaches')).toMatchObject({ units: 5, needing: 4 });
    expect(owners.map((o) => o.name)).toEqual([...owners.map((o) => o.name)].sort());
  });

  it('goes on by the page, each unit once', async () => {
    for (let i = 0; i < NEEDING_A_PAGE; i++)
      await openJobOn(shop, await addUnit(shop, `Snipe ${i}`, 'tractor-2', 'Snipe Hire'), ['1L']);
    const [first, second] = [await overview(1), await overview(2)];
    const all = [...first.needing, ...second.needing].map((n) => n.unit.id);
    expect(first.needing).toHaveLength(NEEDING_A_PAGE);
    expect(new Set(all).size).toBe(first.total);
  });
});

describe('find', () => {
  const find = async (text: string): Promise<Found> =>
    (await shop.technician.call.get('/api/find').query({ text }).expect(200)).body;

  it('puts what is called so first', async () => {
    expect((await find('tern 9')).units[0]!.id).toBe(ids['Tern 9']);
    expect((await find('plover 5')).units.map((u) => u.name).slice(0, 2)).toEqual(['Plover 5', 'Plover 50']);
  });

  it('finds a job by its number, written either way, and open ones by unit and title', async () => {
    const [job] = (await find('drive seals tern')).jobs;
    expect(job).toMatchObject({ id: ids['job'], unit: 'Tern 9', open: true });
    for (const text of [String(job!.number), `Job ${job!.number}`])
      expect((await find(text)).jobs[0]!.id).toBe(ids['job']);
  });

  it('finds tools by code and title, orders by number and supplier, and people for who looks after them', async () => {
    const wrench = {
      ...{
        kind: 'torque-wrench',
        code: 'TW-77',
        title: 'Long wrench',
        torque: { min: 100, max: 800, unit: 'lbf-ft' },
      },
    };
    await shop.db.sequelize.query(
      `insert into tool (id, code, tool, changed_at, changed_by, version)
       values (gen_random_uuid(), 'TW-77', $1 ::jsonb, now(), 'a test', 1)`,
      { bind: [JSON.stringify(wrench)] },
    );
    await shop.db.sequelize.query(
      `insert into purchase (id, number, supplier, status, lines, reference, version, changed_at, changed_by)
       values (gen_random_uuid(), 88, 'Fenland Seals', 'sent', '[]', '', 1, now(), 'a test')`,
    );
    expect((await find('long wrench')).tools).toMatchObject([{ code: 'TW-77', title: 'Long wrench' }]);
    expect((await find('tw-77')).tools).toHaveLength(1);
    expect((await find('fenland')).orders).toMatchObject([{ number: 88, supplier: 'Fenland Seals' }]);
    expect((await find('Order 88')).orders).toHaveLength(1);
    const { name } = shop.technician.viewer.person;
    expect((await find(name)).people).toEqual([]);
    const forSupervisor = await shop.supervisor.call.get('/api/find').query({ text: name }).expect(200);
    expect((forSupervisor.body as Found).people).toMatchObject([{ name, role: 'technician' }]);
  });

  it('asks for words', async () => {
    await shop.technician.call.get('/api/find').query({ text: '  ' }).expect(422);
    await shop.anyone().get('/api/find').query({ text: 'tern' }).expect(401);
  });
});
