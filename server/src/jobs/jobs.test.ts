import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { quantity } from '@lanternwright/core/quantity';
import type { Tool } from '@lanternwright/core/tool';
import type { Command } from '@lanternwright/core/traveller';
import {
  addUnit,
  asSuperuser,
  confirmStep,
  fetchJob,
  mirrored,
  openJobOn,
  openShop,
  send,
  type Shop,
} from '../testing/shop.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import { noteBreak, verifyChain } from '../record/verify-chain.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

describe('a sum put into the record', () => {
  it('is reckoned again here: another result, another name or bad input is not taken', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop, 'Tern 533'));
    const keep = (name: string, input: object, result: object) =>
      send(shop.technician.call, jobId, 1, {
        kind: 'reckoning-kept',
        position: '2L',
        name,
        title: 'Nut travel',
        summary: 'in words',
        reckoned: { input, result } as never,
      });
    const input = { thread: { pitchMm: 1.5 }, turns: 2 };
    const wrong = await keep('nut-travel', input, { travelMm: 3.1 }).expect(422);
    expect(wrong.body.issues).toMatchObject([{ path: 'command.reckoned.result' }]);
    await keep('nut-travel', { ...input, turns: 'two' }, { travelMm: 3 }).expect(422);
    await keep('astrology', input, { travelMm: 3 }).expect(422);
    const junk = { ...input, junk: 'x'.repeat(1_000), thread: { ...input.thread, more: [1, 2] } };
    const littered = await keep('nut-travel', junk, { travelMm: 3 }).expect(422);
    expect(littered.body.detail).toMatch(/there is no field "more" here|there is no field "junk" here/);
    await keep('nut-travel', input, { travelMm: 3 }).expect(200);
    const { reckonings } = (await fetchJob(shop.technician.call, jobId)).wheelEnds[0]!;
    // The words the sender gave are not taken.
    const summary = 'travel 0.11811 in';
    expect(reckonings).toMatchObject([
      { name: 'nut-travel', summary, reckoned: { input, result: { travelMm: 3 } } },
    ]);
    expect(reckonings[0]!.reckoned.input).toEqual(input);
  });
});

describe('recording', () => {
  it('opens a job with the sheets of the axles as they are, and fills the lists', async () => {
    const unitId = await addUnit(shop, 'Tern 500');
    const jobId = await openJobOn(shop, unitId);
    const job = await fetchJob(shop.technician.call, jobId);
    expect(job.wheelEnds.map((w) => [w.position, w.sheet.sheetId])).toEqual([
      ['2L', 'a-drive-tang'],
      ['2R', 'a-drive-tang'],
    ]);
    const list = (await shop.technician.call.get('/api/jobs').expect(200)).body;
    expect(list[0]).toMatchObject({
      id: jobId,
      unit: { name: 'Tern 500' },
      wheelEnds: [{ position: '2L', stage: 'ready' }, { position: '2R' }],
    });
    const unit = (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
    expect(unit).toMatchObject({ openJobId: jobId, meterKm: 611_300 });
    expect(unit.wheelEnds.filter((w: { state: string }) => w.state === 'working')).toHaveLength(2);
  });

  it('refuses a wheel end that is in another open job, or is not there', async () => {
    const unitId = await addUnit(shop);
    await openJobOn(shop, unitId);
    const again = {
      unitId,
      title: 'x',
      complaint: '',
      reportedBy: '',
      meter: {},
      wheelEnds: [{ position: '2L', works: ['seal'] }],
    };
    const busy = await shop.technician.call.post('/api/jobs').send(again).expect(422);
    expect(busy.body.detail).toMatch(
      /^Axle 2 is in open job \d+ with 2L: take the other side into that job$/,
    );
    const missing = await shop.technician.call
      .post('/api/jobs')
      .send({ ...again, wheelEnds: [{ position: '9L', works: ['seal'] }] })
      .expect(422);
    expect(missing.body.detail).toBe('The unit has no wheel end 9L');
  });

  it('stores what is sent twice once, also at the same moment', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const job = await fetchJob(shop.technician.call, jobId);
    const id = randomUUID();
    const answers = await Promise.all(
      [1, 2, 3].map(() => send(shop.technician.call, jobId, 1, confirmStep(job, '2L'), id)),
    );
    expect(answers.map((a) => a.status)).toEqual([200, 200, 200]);
    expect(new Set(answers.map((a) => a.body.version))).toEqual(new Set([2]));
    expect((await fetchJob(shop.technician.call, jobId)).version).toBe(2);
  });

  it('lets two people work side by side, and answers 409 with what changed where they meet', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const job = await fetchJob(shop.technician.call, jobId);
    await send(shop.technician.call, jobId, 1, confirmStep(job, '2L')).expect(200);
    await send(shop.supervisor.call, jobId, 1, confirmStep(job, '2R')).expect(200);
    const stale = await send(shop.supervisor.call, jobId, 1, confirmStep(job, '2L')).expect(409);
    expect(stale.headers['content-type']).toMatch(/problem\+json/);
    expect(stale.body.detail).toMatch(
      /D\. Achterberg was first: 2L, Tools, parts and lubricant at hand: everything at hand/,
    );
    expect(stale.body.job.events).toHaveLength(3);
    const fresh = await send(shop.supervisor.call, jobId, 3, confirmStep(job, '2L')).expect(422);
    expect(fresh.body.issues[0].path).toBe('command');
  });

  it.each([
    [{ id: 'no uuid' }, 'id'],
    [{ seenVersion: 0 }, 'seenVersion'],
    [{ command: { kind: 'wish' } }, 'command.kind'],
    [
      {
        command: {
          kind: 'reading-taken',
          position: '2X',
          round: 1,
          push: quantity(0, 'in'),
          pull: quantity(0, 'in'),
          source: 'typed',
        },
      },
      'command.position',
    ],
    [
      {
        command: {
          kind: 'reading-taken',
          position: '2L',
          round: 1,
          push: quantity(0, 'in'),
          pull: { value: 400, unit: 'in' },
          source: 'typed',
        },
      },
      'command.pull.value',
    ],
    [
      {
        command: {
          kind: 'reading-taken',
          position: '2L',
          round: 1,
          push: quantity(0, 'in'),
          pull: { value: 4, unit: 'Nm' },
          source: 'typed',
        },
      },
      'command.pull.unit',
    ],
  ])('answers 422 with the path of the field: %o', async (part, path) => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const whole = {
      id: randomUUID(),
      seenVersion: 1,
      command: confirmStep(await fetchJob(shop.technician.call, jobId), '2L'),
      ...part,
    };
    const answer = await shop.technician.call.post(`/api/jobs/${jobId}/events`).send(whole).expect(422);
    expect(answer.body.issues.map((i: { path: string }) => i.path)).toContain(path);
  });

  it('keeps technicians from releasing and nobody in who is not signed in', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop), ['2L']);
    const { t, flush } = mirrored(shop, jobId, ['2L']);
    t.workTo('2L');
    await flush();
    const { version } = await fetchJob(shop.technician.call, jobId);
    const release = { kind: 'wheel-end-released', position: '2L' } as const;
    expect((await send(shop.technician.call, jobId, version, release).expect(422)).body.detail).toMatch(
      /supervisor/,
    );
    await send(shop.anyone(), jobId, version, release).expect(401);
    const event = (await send(shop.supervisor.call, jobId, version, release).expect(200)).body;
    expect(event.body.followUp).toMatchObject({ fromKm: 611_380, byKm: 611_460 });
  });
});

describe('who recorded it', () => {
  it('is who is signed in, or it is not taken', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const command = confirmStep(await fetchJob(shop.technician.call, jobId), '2L');
    const body = { id: randomUUID(), seenVersion: 1, command, as: shop.supervisor.person.id };
    const other = await shop.technician.call.post(`/api/jobs/${jobId}/events`).send(body).expect(403);
    expect(other.body.detail).toMatch(/Somebody else recorded this/);
    expect((await fetchJob(shop.technician.call, jobId)).version).toBe(1);
    const event = (await shop.supervisor.call.post(`/api/jobs/${jobId}/events`).send(body).expect(200)).body;
    expect(event.by.id).toBe(shop.supervisor.person.id);
  });

  it('a second person signs with their own password or PIN at the step, and not as who made it', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop), ['2L']);
    const { t, flush } = mirrored(shop, jobId, ['2L']);
    t.workTo('2L', 'lock-looked-at');
    await flush();
    const command = confirmStep(t.job, '2L');
    const url = `/api/jobs/${jobId}/second-person`;
    const sign = (person: object) =>
      shop.technician.call.post(url).send({ id: randomUUID(), seenVersion: t.job.version, command, person });
    const signed = (login: string, password: string) => sign({ login, password });
    const withPin = (personId: string, pin: string) => sign({ personId, pin });
    await signed('okonedo', 'not the one').expect(401);
    const own = await signed('achterberg', 'correct horse battery').expect(422);
    expect(own.body.detail).toMatch(/Another person/);
    const { id } = shop.supervisor.person;
    await withPin(id, '2580').expect(401);
    const pin = { password: 'correct horse battery', pin: '2580' };
    await shop.supervisor.call.put('/api/people/me/pin').send(pin).expect(200);
    await withPin(id, '2581').expect(401);
    const trainee = await shop.signedIn({
      name: 'L. Osei',
      login: 'osei',
      role: 'trainee',
      password: pin.password,
    });
    await sign({ login: 'osei', password: pin.password }).expect(403);
    expect(trainee.viewer.owners).toBe('all');
    const event = (await withPin(id, '2580').expect(200)).body;
    expect(event.by.name).toBe('I. Okonedo');
    const demo = { id: randomUUID(), seenVersion: 1, command, person: { demoId: shop.supervisor.person.id } };
    await shop.technician.call.post(url).send(demo).expect(403);
  });
});

describe('ten records at once that name a tool', () => {
  it('are taken or refused, and none waits for a second connection', async () => {
    const listed: Tool = {
      id: randomUUID(),
      kind: 'torque-wrench',
      code: 'TW-90',
      title: 'Long wrench',
      calibratedUntil: '2099-01-31',
      min: quantity(100, 'lbf-ft'),
      max: quantity(600, 'lbf-ft'),
    };
    await shop.supervisor.call.put('/api/tools').send({ seenVersion: 0, tool: listed }).expect(200);
    const jobs = await Promise.all(
      Array.from({ length: 10 }, async () => {
        const jobId = await openJobOn(shop, await addUnit(shop), ['2L'], ['retorque']);
        return { jobId, job: await fetchJob(shop.technician.call, jobId) };
      }),
    );
    const started = Date.now();
    const answers = await Promise.all(
      jobs.map(({ jobId, job }) => {
        const command = confirmStep(job, '2L') as Extract<Command, { kind: 'step-recorded' }>;
        const data = { ...command.data, tool: 'TW-90', listed } as typeof command.data;
        return send(shop.technician.call, jobId, 1, { ...command, data });
      }),
    );
    expect(answers.map((a) => a.status)).toEqual(Array(10).fill(200));
    expect(Date.now() - started).toBeLessThan(10_000);
    // A correction may name the tool as the record has it, and no other.
    const { jobId } = jobs[0]!;
    const event = (await fetchJob(shop.technician.call, jobId)).events[1]!;
    if (event.body.kind !== 'step-recorded') throw new Error('no step');
    const correction = (tool: Tool) =>
      send(shop.technician.call, jobId, 2, {
        kind: 'correction',
        corrects: event.id,
        reason: 'Read again',
        replacement: {
          ...event.body,
          data: { ...(event.body as typeof event.body & { data: object }).data, listed: tool },
        } as never,
      });
    const forged = await correction({ ...listed, calibratedUntil: '2199-01-31' }).expect(422);
    expect(forged.body.detail).toMatch(/not as the tool list has it/);
    await correction(listed).expect(200);
  });
});

describe('projections', () => {
  it('follow the readings, the release and the retorque, and are the same when rebuilt', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L']);
    const { t, flush } = mirrored(shop, jobId, ['2L']);
    t.workTo('2L', 'end-play');
    t.readings('2L', 0.0083, 0.0083, 0.0083);
    await flush();
    const at = async () => (await fetchJob(shop.technician.call, jobId)).version;
    const unit = async () => (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
    expect((await unit()).readings.at(-1)).toMatchObject({
      round: 1,
      cycles: 3,
      verdict: 'loose',
      km: 611_300,
      final: true,
    });
    const refused = await send(shop.supervisor.call, jobId, await at(), {
      kind: 'wheel-end-released',
      position: '2L',
      overrideReason: 'It has to go to the next shop this evening',
    }).expect(422);
    expect(refused.body.detail).toMatch(/^2L cannot be released: .*End play is loose by/);
    t.do({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' });
    t.workTo('2L');
    await flush();
    await send(shop.supervisor.call, jobId, await at(), {
      kind: 'wheel-end-released',
      position: '2L',
    }).expect(200);
    expect(await unit()).toMatchObject({
      openJobId: null,
      followUps: [{ position: '2L', byKm: 611_460 }],
      jobs: [{ closedAt: expect.any(String) }],
    });
    const before = await unit();
    await rebuildProjections(shop.db);
    expect(await unit()).toEqual(before);
    await send(shop.technician.call, jobId, await at(), {
      kind: 'retorque-recorded',
      position: '2L',
      torque: quantity(450, 'lbf-ft'),
      tool: 'TW-05',
    }).expect(200);
    expect((await unit()).followUps).toEqual([]);
    const history = (
      await shop.technician.call.get(`/api/fleet/units/${unitId}/history?position=2L`).expect(200)
    ).body;
    expect(history[0].text).toBe('2L, retorque: 450 lbf·ft with TW-05');
    expect(history.at(-1).text).toBe('opened the job on 2L');
    const second = await openJobOn(shop, unitId, ['2L'], ['check']);
    const visits = async (query: object) =>
      (await shop.technician.call.get(`/api/fleet/units/${unitId}/visits`).query(query).expect(200)).body;
    expect(await visits({ position: '2L' })).toMatchObject({
      total: 2,
      rows: [
        { jobId: second, closedAt: null, works: ['check'], asLeftMm: null },
        {
          jobId,
          works: ['seal'],
          asLeftMm: before.wheelEnds.find(({ position }: { position: string }) => position === '2L')!
            .endPlayMm,
        },
      ],
    });
    expect(await visits({ position: '2L', search: 'renew' })).toMatchObject({ total: 1, rows: [{ jobId }] });
    expect(await visits({ position: '3L' })).toEqual({ total: 0, rows: [] });
    expect(await visits({ position: '2L', page: 2 })).toMatchObject({ rows: [] });
    const ofOne = `/api/fleet/units/${unitId}/history?position=2L&job=${second}`;
    expect((await shop.technician.call.get(ofOne).expect(200)).body).toMatchObject([
      { text: 'opened the job on 2L', jobId: second },
    ]);
  });
});

describe('the record', () => {
  it('refuses update, delete and truncate even in SQL', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    for (const sql of [
      `update entry set at = now() where stream_id = '${jobId}'`,
      `delete from entry where stream_id = '${jobId}'`,
      'truncate entry',
    ]) {
      await expect(shop.db.sequelize.query(sql)).rejects.toThrow(/permission denied|never changed/);
      await expect(asSuperuser(shop.databaseName, sql)).rejects.toThrow(/never changed/);
    }
  });

  it('chains every event, and finds the one that was tampered with', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
    const [rows] = await shop.db.sequelize.query(`select seq from entry where stream_id = '${jobId}'`);
    const seq = Number((rows[0] as { seq: string }).seq);
    const tamper = (change: string) =>
      asSuperuser(
        shop.databaseName,
        `alter table entry disable trigger all; update entry set ${change} where seq = ${seq}; alter table entry enable trigger all`,
      );
    await tamper(`body = jsonb_set(body, '{title}', '"Nothing to see"')`);
    expect(await verifyChain(shop.db)).toEqual({
      ok: false,
      seq,
      reason: `Record ${seq} was altered: its content does not give its hash`,
    });
    // The one repair: a note, signed by a supervisor, of just what stands there.
    const note = (login: string, reason: string) =>
      noteBreak(shop.db, shop.people, { login, password: 'correct horse battery', reason });
    await expect(note('achterberg', 'A slip of the superuser')).rejects.toThrow(/supervisor signs/);
    await expect(note('okonedo', 'short')).rejects.toThrow(/in a sentence/);
    expect(await note('okonedo', 'A slip of the superuser, seen and left')).toMatchObject({ seq });
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true, noted: 1 });
    await expect(note('okonedo', 'Nothing is broken any more')).rejects.toThrow(/nothing to note/);
    await tamper(`body = jsonb_set(body, '{title}', '"Nothing at all"')`);
    expect(await verifyChain(shop.db)).toMatchObject({ ok: false, seq });
    await expect(shop.db.sequelize.query('delete from chain_note')).rejects.toThrow(/permission denied/);

    await tamper(`body = jsonb_set(body, '{title}', '"Drive axle seals"')`);
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true, noted: 0 });
    await asSuperuser(
      shop.databaseName,
      `alter table entry disable trigger all; delete from entry where seq = 1; alter table entry enable trigger all`,
    );
    expect(await verifyChain(shop.db)).toEqual({ ok: false, seq: 1, reason: 'Record 1 is missing' });
  });
});
