import { familySheets } from '@lanternwright/core/procedure';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { layouts } from '@lanternwright/core/axle-plan';
import { quantity } from '@lanternwright/core/quantity';
import { axlesOf, openShop, type Shop } from '../testing/shop.ts';
import { readFleetCsv, writeFleetCsv, type ExportedUnit } from './fleet-csv.ts';

const unit = (name: string, layoutId: string): ExportedUnit => ({
  owner: 'Tern & Hollow Haulage',
  name,
  kind: 'tractor',
  plate: name.toUpperCase(),
  meter: {},
  remarks: '',
  told: [],
  axles: axlesOf(layoutId),
  km: 1234,
  hours: null,
});
const header = 'owner,unit,kind,plate,distance,hours,axle,role,wheels,brake,sheet';

const sheets = new Map(familySheets.map((s) => [s.sheetId, s]));

describe('fleet file', () => {
  it('reads back every common plan as it wrote it', () => {
    const units = layouts.map((l) => unit(`Unit ${l.id}`, l.id));
    const { good, bad } = readFleetCsv(writeFleetCsv(units), sheets);
    expect(bad).toEqual([]);
    expect(good.map((g) => g.unit.axles)).toEqual(units.map((u) => u.axles));
  });

  it('reads back what the shop changed on a sheet', () => {
    const changed = unit('Odd one', 'semi-2');
    const [first, second] = changed.axles;
    const own = { mark: 'shop', source: 'Fleet file' } as const;
    const sheet = {
      ...first!.sheet,
      nut: 'One, with "quotes", and commas',
      thread: { pitchMm: 2.5 },
      lock: { kind: 'castellated' as const, slots: 5, holeAxesDeg: [0, 45] },
      band: { min: quantity(0.02, 'mm'), max: quantity(0.1, 'mm'), ...own },
      jamTorque: { min: quantity(410, 'Nm'), max: quantity(500, 'Nm'), ...own },
    };
    changed.axles = [{ ...first!, sheet }, second!];
    expect(readFleetCsv(writeFleetCsv([changed]), sheets).good[0]?.unit.axles[0]?.sheet).toEqual(sheet);
  });

  it('names every bad line with its reason and keeps the good units', () => {
    const csv = [
      header,
      'Owner A,Good 1,tractor,,100 km,,1,steer,single,drum,d-steer-18',
      'Owner A,Good 1,tractor,,100 km,,2,drive,dual,drum,a-drive-dowel',
      'Owner A,Bad sheet,tractor,,,,1,steer,single,drum,no-such-sheet',
      'Owner A,Bad kind,spaceship,,,,1,steer,single,drum,d-steer-18',
      'Owner A,Bad meter,tractor,,lots,,1,steer,single,drum,d-steer-18',
      'Owner A,Bad axle,tractor,,,,2,steer,single,drum,d-steer-18',
      ',Nobody,tractor,,,,1,steer,single,drum,d-steer-18',
      'Owner A,Bad role,tractor,,,,1,pilot,single,drum,d-steer-18',
    ].join('\n');
    const { good, bad } = readFleetCsv(csv, sheets);
    expect(good.map((g) => [g.unit.name, g.lines])).toEqual([['Good 1', [2, 3]]]);
    expect(bad.map((b) => [b.line, b.name])).toEqual([
      [4, 'Bad sheet'],
      [5, 'Bad kind'],
      [6, 'Bad meter'],
      [7, 'Bad axle'],
      [8, 'Nobody'],
      [9, 'Bad role'],
    ]);
    expect(bad[0]?.reason).toMatch(/no sheet “no-such-sheet”/);
    expect(bad[1]?.reason).toMatch(/^kind: must be one of rigid, tractor/);
    expect(bad[2]?.reason).toMatch(/distance: "lots" is not a figure/);
  });

  it('refuses what is no fleet file at all', () => {
    expect(() => readFleetCsv('just words\nand more', sheets)).toThrow(/no column owner/);
    expect(() => readFleetCsv(`${header}\n"broken,quote`, sheets)).toThrow(/Near line 2/);
  });

  it('guards text that a spreadsheet would run as a formula', () => {
    const csv = writeFleetCsv([unit('=HYPERLINK("x")', 'towed-1')]);
    expect(csv).toContain(`"'=HYPERLINK`);
    expect(readFleetCsv(csv, sheets).good[0]?.unit.name).toBe('=HYPERLINK("x")');
  });
});

describe('bringing a fleet in', () => {
  let shop: Shop;
  beforeAll(async () => {
    shop = await openShop();
  });
  afterAll(() => shop.close());

  const post = (path: string, csv: string) =>
    shop.supervisor.call.post(`/api/exchange/fleet${path}`).send({ csv });
  const csvOf = (...names: string[]) => writeFleetCsv(names.map((n) => unit(n, 'tractor-2')));

  it('previews without keeping anything, then brings the good units in', async () => {
    const csv = csvOf('Tern 1', 'Tern 2');
    expect((await post('/preview', csv).expect(200)).body.good).toHaveLength(2);
    expect((await shop.supervisor.call.get('/api/fleet/units')).body.units).toHaveLength(0);
    await post('', csv).expect(200);
    const again = (await post('/preview', csvOf('Tern 2', 'Tern 3')).expect(200)).body;
    expect(again).toMatchObject({
      good: [{ name: 'Tern 3' }],
      bad: [{ name: 'Tern 2', reason: expect.stringMatching(/already/) }],
    });
    const { units } = (await shop.supervisor.call.get('/api/fleet/units')).body;
    expect(units.map((u: { name: string; meterKm: number }) => [u.name, u.meterKm])).toEqual([
      ['Tern 1', 1234],
      ['Tern 2', 1234],
    ]);
  });

  it('leaves out a unit whose plate another has, however it is written, and says which', async () => {
    const csv = writeFleetCsv([{ ...unit('Tern 9', 'tractor-2'), plate: 'tern-1' }]);
    expect((await post('/preview', csv).expect(200)).body).toMatchObject({
      ...{ goodCount: 0, badCount: 1 },
      bad: [{ line: 2, reason: 'Tern 1, Tern & Hollow Haulage has the plate tern-1' }],
    });
    await post('', csv).expect(422);
  });

  it('exports what it takes', async () => {
    const { text, headers } = await shop.technician.call.get('/api/exchange/fleet.csv').expect(200);
    expect(headers['content-type']).toMatch(/text\/csv/);
    expect(readFleetCsv(text, sheets).good.map((g) => g.unit.name)).toEqual(['Tern 1', 'Tern 2']);
  });

  it('is a supervisor’s, and says when nothing is good', async () => {
    await shop.technician.call
      .post('/api/exchange/fleet')
      .send({ csv: csvOf('x') })
      .expect(403);
    expect((await post('', csvOf('Tern 1')).expect(422)).body.detail).toMatch(/Nothing was kept/);
    expect((await post('/preview', 'nonsense').expect(422)).body.issues[0].path).toBe('csv');
  });
});
