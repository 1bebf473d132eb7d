import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import ical from 'node-ical';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
let units: string[];
let owners: { id: string; name: string }[];
const bays = ['Bay 1', 'Bay 2'].map((name, i) => ({ id: `bay-${i + 1}`, name }));
const inDays = (days: number, hour: number) => {
  const at = new Date(Date.now() + days * 86_400_000);
  return new Date(Date.UTC(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate(), hour)).toISOString();
};
const person = () => shop.technician.viewer.person;
const make = (what: string, of = '') => shop.technician.call.post('/api/plan/calendars').send({ what, of });

/** A feed as another program reads it: without a session, by a library of its own. */
async function read(path: string) {
  const { text, headers } = await shop.anyone().get(path).expect(200);
  expect(headers['content-type']).toBe('text/calendar; charset=utf-8');
  return Object.values(ical.sync.parseICS(text)).filter((c) => c?.type === 'VEVENT') as {
    uid: string;
    summary: string;
    location: string;
    description: string;
    start: Date;
    end: Date;
  }[];
}

beforeAll(async () => {
  shop = await openShop();
  await shop.supervisor.call
    .put('/api/shop/settings')
    .send({ ...shop.settings.current(), bays })
    .expect(200);
  units = [await addUnit(shop, 'Tern, 40'), await addUnit(shop, '=Tern 41', 'tractor-3', 'Dunlin; Söhne')];
  owners = (await shop.supervisor.call.get('/api/fleet/owners').expect(200)).body;
  const book = (unitId: string, bayId: string, people: string[], days: number) =>
    shop.technician.call
      .post('/api/plan/bookings')
      .send({ unitId, bayId, people, jobId: null, note: '', from: inDays(days, 8), until: inDays(days, 11) })
      .expect(200);
  await book(units[0]!, 'bay-1', [person().id], 3);
  await book(units[1]!, 'bay-2', [], 4);
}, 60_000);
afterAll(() => shop.close());

describe('a calendar', () => {
  it('is read by any iCalendar program at its secret address: the shop, a bay, a person, an owner', async () => {
    const names = async (what: string, of = '') =>
      (await read((await make(what, of).expect(200)).body.address as string)).map((e) => e.summary).sort();
    expect(await names('shop')).toEqual(['=Tern 41', 'Tern, 40']);
    expect(await names('bay', 'bay-2')).toEqual(['=Tern 41']);
    expect(await names('person', person().id)).toEqual(['Tern, 40']);
    const dunlin = owners.find((o) => o.name === 'Dunlin; Söhne')!;
    expect(await names('owner', dunlin.id)).toEqual(['=Tern 41']);
    const [event] = await read((await make('bay', 'bay-1').expect(200)).body.address as string);
    expect(event).toMatchObject({ location: 'Bay 1', summary: 'Tern, 40' });
    expect(event!.description).toBe(`Tern & Hollow Haulage\n${person().name}`);
    expect(event!.start.toISOString()).toBe(inDays(3, 8));
    expect(event!.end.toISOString()).toBe(inDays(3, 11));
    for (const [what, of] of [
      ['bay', 'bay-9'],
      ['person', '018f0000-0000-4000-8000-000000000000'],
      ['owner', 'x'],
    ] as const)
      await make(what, of).expect(422);
  });

  it('tells an owner where their unit is, and not who of the shop works on it', async () => {
    const haulage = owners.find((o) => o.name === 'Tern & Hollow Haulage')!;
    const [event] = await read((await make('owner', haulage.id).expect(200)).body.address as string);
    expect(event!.description).toBe('Tern & Hollow Haulage');
  });

  it('is closed when it is revoked; a wrong address shows nothing, and only a hash is kept', async () => {
    const { id, address: path } = (await make('shop').expect(200)).body as { id: string; address: string };
    await read(path);
    const listed = await shop.technician.call.get('/api/plan/calendars').expect(200);
    expect(listed.body[0]).toMatchObject({ id, what: 'shop', name: 'Our shop', madeBy: person().name });
    const secret = path.split('/').at(-1)!.replace('.ics', '');
    expect(JSON.stringify(listed.body)).not.toContain(secret);
    const [rows] = await shop.db.sequelize.query('select * from calendar');
    expect(JSON.stringify(rows)).not.toContain(secret);
    await shop.technician.call.post(`/api/plan/calendars/${id}/revoke`).expect(200);
    await shop.anyone().get(path).expect(404);
    await shop.technician.call.post(`/api/plan/calendars/${id}/revoke`).expect(404);
    await shop.anyone().get('/api/calendars/guess.ics').expect(404);
    await shop.anyone().get('/api/plan/calendars').expect(401);
  });
});

describe('files of the plan', () => {
  const parse = (text: string) =>
    Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });

  it('bookings and what is due go out as CSV that no spreadsheet takes for a formula', async () => {
    const { text } = await shop.technician.call
      .get(`/api/plan/bookings.csv?from=${inDays(0, 0)}&until=${inDays(20, 0)}`)
      .expect(200);
    const { data, errors } = parse(text);
    expect(errors).toEqual([]);
    expect(data.map((r) => [r['bay'], r['unit'], r['people']])).toEqual([
      ['Bay 1', 'Tern, 40', person().name],
      ['Bay 2', "'=Tern 41", ''],
    ]);
    const due = await shop.technician.call.get('/api/plan/due.csv?state=unknown').expect(200);
    expect(due.headers['content-disposition']).toMatch(/due.csv/);
    expect(parse(due.text).errors).toEqual([]);
    await shop.anyone().get('/api/plan/due.csv').expect(401);
  });

  it('a week goes onto paper', async () => {
    const { body, headers } = await shop.technician.call
      .get(`/api/plan/week/${inDays(2, 0).slice(0, 10)}.pdf`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (part: Buffer) => parts.push(part));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect(headers['content-type']).toBe('application/pdf');
    const pdf = await getDocument({ data: new Uint8Array(body as Buffer), verbosity: 0 }).promise;
    const content = await (await pdf.getPage(1)).getTextContent();
    const words = content.items
      .map((i) => ('str' in i ? i.str : ''))
      .join(' ')
      .replace(/ +/g, ' ');
    expect(words).toMatch(/Week of .* Bay 1 Tern, 40, Tern & Hollow Haulage/);
    expect(words).toMatch(/Nothing is booked/);
    await shop.technician.call.get('/api/plan/week/2027-13-45.pdf').expect(422);
  });
});
