import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { MeterFile } from '@lanternwright/contract/exchange';
import { dayNumber } from '@lanternwright/core/interval';
import { compareProjections, rebuildProjections } from '../record/rebuild.ts';
import { verifyRecord } from '../record/verify.ts';
import { prepareQueue } from '../queue/queue.ts';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';
import { readMeterCsv } from './meter-csv.ts';

const TODAY = dayNumber('2026-11-26');
const read = (csv: string) => {
  const answer = readMeterCsv(csv, TODAY);
  if (!answer.ok) throw new Error(answer.reason);
  return answer;
};
const whyNot = (csv: string) => {
  const answer = readMeterCsv(csv, TODAY);
  return answer.ok ? null : answer.reason;
};

describe('a file of meter readings', () => {
  it('is read by what its columns are called, in any order and case', () => {
    const { named, of, day, distance, hours, distanceIn } = read(
      'Engine_hours,DATE,Unit name,odometer miles\n12.5,2026-01-02,Tern 1,100\n,3.2.2026,tern 1,120.5\n',
    );
    expect(named).toEqual([{ unit: 'Tern 1', owner: '', plate: '' }]);
    expect([...of]).toEqual([0, 0]);
    expect([...day]).toEqual([dayNumber('2026-01-02'), dayNumber('2026-02-03')]);
    expect([...distance]).toEqual([100, 120.5]);
    expect([...hours]).toEqual([12.5, Number.NaN]);
    expect(distanceIn).toBe('mi');
  });

  it('names each bad line by its place, with why', () => {
    const csv = [
      'unit,date,km',
      'Tern 1,2026-01-02,100',
      '',
      'Tern 1,2026-02-30,100',
      'Tern 1,2/3/2026,100',
      'Tern 1,2027-01-01,100',
      'Tern 1,2026-01-03,"1,050"',
      'Tern 1,2026-01-03,-4',
      'Tern 1,2026-01-03,99999999',
      ',2026-01-03,4',
      'Tern 1,2026-01-03,',
    ].join('\n');
    const { of, bad, badCount } = read(csv);
    expect(of).toHaveLength(1);
    expect(badCount).toBe(8);
    expect(bad.map((b) => [b.line, b.reason.slice(0, 32)])).toEqual([
      [4, 'there is no day 2026-02-30'],
      [5, 'the day “2/3/2026” could mean se'],
      [6, 'the day 2027-01-01 is still to c'],
      [7, 'km: “1,050” is no plain number: '],
      [8, 'km: “-4” is no plain number: wri'],
      [9, 'km: 99999999 is more than any me'],
      [10, 'it does not say whose meter it i'],
      [11, 'neither distance nor hours are t'],
    ]);
  });

  it('is refused where its head does not say enough, and says what is missing', () => {
    expect(whyNot('')).toMatch(/empty/);
    expect(whyNot('date,km\n')).toMatch(/whose meter/);
    expect(whyNot('unit,km\n')).toMatch(/which day/);
    expect(whyNot('unit,date\n')).toMatch(/what was read/);
    expect(whyNot('unit,date,km,miles\n')).toMatch(/keep one/);
  });
});

let shop: Shop;
let tern = '';
let nth = 0;
beforeAll(async () => {
  shop = await openShop();
  await prepareQueue({ ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl }, shop.log);
});
afterAll(() => shop.close());
beforeEach(async () => {
  tern = `Tern ${(nth += 1)}`;
  await addUnit(shop, tern);
});

const post = (path: string) => shop.supervisor.call.post(`/api/exchange/meters${path}`);
/** Sends a file and has it read, as the queue would. */
async function sent(csv: string): Promise<string> {
  const { id } = (await post('?name=march.csv').type('text/csv').send(csv).expect(200)).body as {
    id: string;
  };
  await shop.meterFiles.run(id);
  return id;
}
const one = async (id: string): Promise<MeterFile> =>
  (await shop.supervisor.call.get(`/api/exchange/meters/${id}`).expect(200)).body;
async function taken(id: string): Promise<MeterFile> {
  await post(`/${id}/take`).expect(200);
  await shop.meterFiles.run(id);
  return one(id);
}
async function readings(name: string) {
  const unit = await shop.db.unit.findOne({ where: { name } });
  const { body } = await shop.technician.call.get(`/api/fleet/units/${unit!.id}/meters`).expect(200);
  return body as {
    version: number;
    rows: { nth: number; date: string; km: number; totalKm: number | null; source: string }[];
  };
}

describe('bringing a file of meter readings in', () => {
  it('is looked at first, taken in one record, and known the second time', async () => {
    const csv = `unit,date,km\n${tern},2026-01-05,620000\n${tern},2026-01-02,619000\n${tern},2026-01-02,619000\nNobody,2026-01-02,5\n`;
    const id = await sent(csv);
    expect(await one(id)).toMatchObject({
      name: 'march.csv',
      state: 'read',
      report: {
        ...{ kept: 2, known: 1, doubtful: 2, units: 1, from: '2026-01-02', until: '2026-01-05', badCount: 1 },
        bad: [{ line: 5, text: 'Nobody', reason: 'no unit is called Nobody' }],
      },
    });
    // 611,240 km were told today: 620,000 of January cannot be. Nothing is kept yet.
    expect((await readings(tern)).rows).toHaveLength(1);
    const entries = await shop.db.entry.count();
    expect(await taken(id)).toMatchObject({ state: 'taken', report: { kept: 2 } });
    expect(await shop.db.entry.count()).toBe(entries + 1);
    expect((await readings(tern)).rows.map((r) => [r.date, r.km, r.source])).toEqual(
      expect.arrayContaining([
        ['2026-01-05', 620_000, 'file'],
        ['2026-01-02', 619_000, 'file'],
      ]),
    );
    expect((await one(await sent(csv))).report).toMatchObject({ kept: 0, known: 3 });
    await post(`/${id}/take`).expect(409);
  });

  it('counts across it: what was told before and after stays in its place, and a correction means its reading', async () => {
    const csv = `unit,date,km\n${tern},2026-01-02,600000\n${tern},2026-01-05,600500\n${tern},2026-01-09,60100\n`;
    await taken(await sent(csv));
    const unit = (await shop.db.unit.findOne({ where: { name: tern } }))!;
    const before = await readings(tern);
    const wrong = before.rows.find((r) => r.km === 60_100)!;
    expect(wrong.totalKm).toBeNull();
    await shop.supervisor.call
      .post(`/api/fleet/units/${unit.id}/meters/corrections`)
      .send({
        ...{ seenVersion: before.version, nth: wrong.nth },
        right: { date: '2026-01-09', distance: { value: 601_000, unit: 'km' } },
      })
      .expect(200);
    expect((await readings(tern)).rows.map((r) => r.totalKm)).toEqual([611_240, 601_000, 600_500, 600_000]);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('finds a unit by its plate however it is spaced, and asks where two owners have one of a name', async () => {
    await addUnit(shop, tern, 'tractor-3', 'Marrow Valley Coaches');
    const csv = `unit,owner,date,km\n${tern},,2026-01-02,1\n${tern},marrow valley coaches,2026-01-02,2\n`;
    expect((await one(await sent(csv))).report).toMatchObject({
      kept: 1,
      bad: [{ line: 2, reason: expect.stringMatching(/2 units are called .* “owner”/) }],
    });
    const plates = await one(await sent('plate,date,km\nabc-123,2026-01-02,7\nXYZ 9,2026-01-02,7\n'));
    // Every unit of this test has the same plate.
    expect(plates.report).toMatchObject({ kept: 0, badCount: 2 });
  });

  it('is nobody’s but a supervisor’s, and no file is no file', async () => {
    const body = `unit,date,km\n${tern},2026-01-02,5\n`;
    await shop.technician.call.post('/api/exchange/meters').type('text/csv').send(body).expect(403);
    expect(await one(await sent('who,when\n1,2\n'))).toMatchObject({
      state: 'refused',
      reason: expect.stringMatching(/whose meter/),
    });
    await post('').type('text/csv').send('').expect(422);
  });

  it('is put away, also while it is being taken: then nothing of it is kept', async () => {
    const id = await sent(`unit,date,km\n${tern},2026-01-02,5\n`);
    await post(`/${id}/take`).expect(200);
    await post(`/${id}/drop`).expect(200);
    await shop.meterFiles.run(id);
    expect((await readings(tern)).rows).toHaveLength(1);
    await shop.supervisor.call.get(`/api/exchange/meters/${id}`).expect(404);
  });

  it('writes what was not taken as CSV, in which nothing is a formula', async () => {
    const id = await sent(`unit,date,km\n=1+1,2026-01-02,5\n${tern},someday,5\n`);
    const { text } = await shop.supervisor.call.get(`/api/exchange/meters/${id}/bad.csv`).expect(200);
    expect(text).toMatch(/^line,what,why\r\n2,'=1\+1,no unit is called =1\+1\r\n3,/);
  });

  it('stands beside readings that are told at the same moment: none is lost, and the record proves all of them', async () => {
    const unit = (await shop.db.unit.findOne({ where: { name: tern } }))!;
    const lines = Array.from(
      { length: 200 },
      (_, i) => `${tern},${new Date(Date.UTC(2026, 0, 1 + i)).toISOString().slice(0, 10)},${1_000 + i}`,
    );
    const id = await sent(['unit,date,km', ...lines].join('\n'));
    await post(`/${id}/take`).expect(200);
    const told = Array.from({ length: 8 }, (_, i) =>
      shop.technician.call
        .post(`/api/fleet/units/${unit.id}/meters`)
        .send({ date: '2026-11-20', distance: { value: 700_000 + i, unit: 'km' }, sure: true })
        .expect(200),
    );
    await Promise.all([shop.meterFiles.run(id), ...told]);
    expect(await shop.db.meterReading.count({ where: { unitId: unit.id } })).toBe(209);
    expect(await verifyRecord(shop.db, null)).toMatchObject({ ok: true });
    await rebuildProjections(shop.db);
    expect(await shop.db.meterReading.count({ where: { unitId: unit.id } })).toBe(209);
  });
});
