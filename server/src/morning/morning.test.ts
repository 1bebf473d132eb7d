import { simpleParser } from 'mailparser';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { ShopSettings } from '@lanternwright/contract/shop';
import { addUnit, openJobOn, openShop, type Shop } from '../testing/shop.ts';
import { startMailbox } from './mailbox.ts';
import { morningText, type Morning } from './summary.ts';

const unit = {
  id: '1',
  name: 'Tern 1',
  kind: 'tractor',
  owner: { id: '2', name: 'Tern & Hollow Haulage' },
} as const;
const quiet: Morning = {
  ...{ shop: 'Marrowbank Shared Works', day: 'Thursday 26 November 2026', bays: [], away: [], address: null },
  floor: { bookings: [], jobs: [], doubted: [] },
  followUps: { total: 0, overdue: 0, rows: [] },
  due: { overdue: 0, rows: [] },
  now: '2026-11-26T06:30:00.000Z',
  today: '2026-11-26',
  formatDay: (date) => date,
  formatClock: (iso) => iso.slice(11, 16),
};

describe('the morning in words', () => {
  it('says of each part that there is nothing', () => {
    expect(morningText(quiet)).toBe(
      [
        'Marrowbank Shared Works, Thursday 26 November 2026',
        'DECIDE\nNothing waits for a decision.',
        'IN THE BAYS\nNo bays are named yet.',
        'COMING IN, TODAY AND TOMORROW\nNothing is booked.',
        'FOLLOW UP: 0 OPEN, 0 OVERDUE\nNone is overdue.',
        'DUE AND NOT BOOKED: 0 UNITS OVERDUE\nNone.',
        'AWAY TODAY\nNobody.\n',
      ].join('\n\n'),
    );
  });

  it('tells what waits, what stands where, what comes and who is away', () => {
    const booked = (bayId: string, from: string, until: string, more: object = {}) =>
      ({ ...{ bayId, from, until, unit, names: [], job: null, jobId: null }, ...more }) as never;
    const job = {
      ...{ id: 'j', unit, estimate: 'asks', stopped: null },
      wheelEnds: [
        { position: '2L', stage: 'verify', released: false, trouble: 'loose', who: 'M. Pellow', asks: [] },
      ],
    } as never;
    const text = morningText({
      ...quiet,
      bays: ['Bay 1', 'Bay 2'].map((name, i) => ({ id: `b${i + 1}`, name })),
      floor: {
        bookings: [
          booked('b1', '2026-11-26T06:00:00.000Z', '2026-11-26T12:00:00.000Z', { jobId: 'j' }),
          booked('b2', '2026-11-26T13:00:00.000Z', '2026-11-26T15:00:00.000Z', { names: ['S. Varga'] }),
        ],
        jobs: [job],
        doubted: [{ unit, date: '2026-11-20', km: 12, hours: null }] as never,
      },
      away: [{ name: 'J. Brennock', why: 'course' }] as never,
      address: 'https://shop.example',
    });
    for (const line of [
      '- Estimate of Tern 1: Tern & Hollow Haulage has not answered',
      '- Meter of Tern 1: what it read on 2026-11-20 does not fit',
      '- Bay 1: Tern 1, 2L verify, loose (M. Pellow)',
      '- Bay 2: free until 13:00, then Tern 1',
      '- 13:00: Tern 1, no job opened. S. Varga',
      '- J. Brennock, course',
      'https://shop.example/floor',
    ])
      expect(text).toContain(`${line}\n`);
  });

  it('stays short, and says how much more there is', () => {
    const late = (name: string, position: string) => ({
      ...{ kind: 'retorque', state: 'overdue', position, unit: { ...unit, name } },
    });
    const rows = Array.from({ length: 40 }, (_, i) => [
      late(`Tern ${i}`, '2R'),
      late(`Tern ${i}`, '2L'),
    ]).flat();
    const text = morningText({ ...quiet, followUps: { total: 40, overdue: 40, rows: rows as never } });
    expect(text.match(/^- Retorque/gm)).toHaveLength(12);
    expect(text).toContain('- Retorque, Tern 0 2L 2R\n');
    expect(text).toContain('- and 28 more');
  });
});

let shop: Shop;
let mailbox: Awaited<ReturnType<typeof startMailbox>>;
const openWeek: ShopSettings['week'] = Array.from({ length: 7 }, () => [{ from: '07:00', until: '16:00' }]);
beforeAll(async () => {
  mailbox = await startMailbox({ smtp: 0, page: 0 });
  shop = await openShop({
    SMTP_URL: `smtp://127.0.0.1:${mailbox.smtpPort}`,
    MAIL_FROM: 'floor@shop.example',
  });
  await openJobOn(shop, await addUnit(shop, 'Tern 7'));
  await settings({});
});
afterAll(async () => {
  await shop.close();
  await mailbox.stop();
});
afterEach(async () => {
  mailbox.mails.length = 0;
  mailbox.refuse(false);
  await shop.db.sequelize.query('delete from morning_sent');
});

const settings = async (more: Partial<ShopSettings>) => {
  const current = {
    ...shop.settings.current(),
    name: 'Marrowbank Shared Works',
    week: openWeek,
    holidays: [],
  };
  await shop.supervisor.call
    .put('/api/shop/settings')
    .send({ ...current, ...more })
    .expect(200);
};
const put = (body: object, call = shop.supervisor.call) => call.put('/api/shop/morning').send(body);
const to = ['okonedo@shop.example', 'thistlewood@shop.example'];

describe('the mail of the morning', () => {
  it('goes out once a day, however many servers there are, to whom the shop names', async () => {
    await put({ at: '00:00', to }).expect(200);
    await Promise.all([shop.morning.run(), shop.morning.run(), shop.morning.run()]);
    await shop.morning.run();
    expect(mailbox.mails).toHaveLength(1);
    const [{ to: sentTo, from, raw }] = mailbox.mails as [(typeof mailbox.mails)[number]];
    expect({ sentTo, from }).toEqual({ sentTo: to, from: 'floor@shop.example' });
    const mail = await simpleParser(raw);
    expect(mail.subject).toMatch(/^Marrowbank Shared Works, \w+day \d+ \w+$/);
    expect(mail.text).toMatch(/DECIDE\nNothing waits[\s\S]*FOLLOW UP: 0 OPEN/);
    expect(mail.html).toBe(false);
    expect((await shop.supervisor.call.get('/api/shop/morning').expect(200)).body).toMatchObject({
      ...{ at: '00:00', to, mail: true, sentAt: expect.stringMatching(/^\d{4}-/) },
    });
  });

  it('that is not taken goes out at the next turn', async () => {
    await put({ at: '00:00', to }).expect(200);
    mailbox.refuse(true);
    await expect(shop.morning.run()).rejects.toThrow(/did not take it/);
    mailbox.refuse(false);
    await shop.morning.run();
    expect(mailbox.mails).toHaveLength(1);
  });

  it('does not go out before its time, on a closed day, on a holiday, or to nobody', async () => {
    await put({ at: '23:59', to }).expect(200);
    await shop.morning.run();
    await put({ at: '00:00', to: [] }).expect(200);
    await shop.morning.run();
    await put({ at: '00:00', to }).expect(200);
    await settings({ week: Array.from({ length: 7 }, () => []) });
    await shop.morning.run();
    await settings({ holidays: [{ date: shop.clock.today(), name: 'Stocktaking' }] });
    await shop.morning.run();
    expect(mailbox.mails).toEqual([]);
    await settings({});
    await shop.morning.run();
    expect(mailbox.mails).toHaveLength(1);
  });

  it('is sent at once when a supervisor asks, and says why it is not', async () => {
    await put({ at: '06:30', to: [] }).expect(200);
    await shop.supervisor.call.post('/api/shop/morning/send').expect(422);
    await put({ at: '06:30', to }).expect(200);
    await shop.supervisor.call.post('/api/shop/morning/send').expect(200);
    expect(mailbox.mails).toHaveLength(1);
    mailbox.refuse(true);
    const { body } = await shop.supervisor.call.post('/api/shop/morning/send').expect(502);
    expect(body.detail).toMatch(/the mailbox is full/);
    const without = await openShop();
    await without.supervisor.call.post('/api/shop/morning/send').expect(503);
    await without.close();
  }, 30_000);

  it('is a supervisor’s matter: nobody else sees an address, and what is none is refused by name', async () => {
    await put({ at: '06:30', to }).expect(200);
    await put({ at: '06:30', to }, shop.technician.call).expect(403);
    await shop.technician.call.get('/api/shop/morning').expect(403);
    const session = await shop.anyone().get('/api/people/session').expect(200);
    expect(JSON.stringify(session.body)).not.toContain('@');
    expect(
      (await put({ at: '25:00', to: ['nobody'] }).expect(422)).body.issues.map(
        (i: { path: string }) => i.path,
      ),
    ).toEqual(['at', 'to.0']);
  });
});
