import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { quantity } from '@lanternwright/core/quantity';
import type { ListedTool, ToolRecord } from '@lanternwright/contract/tools';
import type { Tool } from '@lanternwright/core/tool';
import { compareProjections } from '../record/rebuild.ts';
import { stepAtHand, type Command } from '@lanternwright/core/traveller';
import { addUnit, confirmStep, fetchJob, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const wrench = (code: string, more: Partial<Tool> = {}): Tool =>
  ({
    id: randomUUID(),
    kind: 'torque-wrench',
    code,
    title: 'Long wrench',
    calibratedUntil: '2099-01-31',
    min: quantity(100, 'lbf-ft'),
    max: quantity(600, 'lbf-ft'),
    ...more,
  }) as Tool;

const keepOn = (seenVersion: number, tool: Tool, call = shop.supervisor.call) =>
  call.put('/api/tools').send({ seenVersion, tool });
const keep = (tool: Tool, call = shop.supervisor.call) => keepOn(0, tool, call);
const codes = async () =>
  ((await shop.technician.call.get('/api/tools').expect(200)).body as { tool: Tool }[]).map(
    (t) => t.tool.code,
  );

describe('the tool list', () => {
  it('is a supervisor’s to change and everybody’s to read; a code stands on one tool', async () => {
    const tool = wrench('TW-03');
    await keep(tool, shop.technician.call).expect(403);
    const { body } = await keep(tool).expect(200);
    expect(body).toMatchObject({
      changedBy: 'I. Okonedo',
      tool: { code: 'TW-03', max: { si: quantity(600, 'lbf-ft').si } },
    });
    const twice = await keep(wrench('tw-03')).expect(422);
    expect(twice.body).toMatchObject({ detail: 'There is a tw-03 already', issues: [{ path: 'tool.code' }] });
    await keep({ ...tool, title: 'Longer wrench' }).expect(409);
    await keepOn(1, { ...tool, title: 'Longer wrench' }).expect(200);
    expect(await codes()).toEqual(['TW-03']);
  });

  it('names the field that is wrong and keeps nothing', async () => {
    const backwards = wrench('TW-09', { max: quantity(1, 'Nm') } as Partial<Tool>);
    const { body } = await keep(backwards).expect(422);
    expect(body.issues).toMatchObject([{ path: 'tool.max.value' }]);
    expect(await codes()).not.toContain('TW-09');
  });

  it('lets a tool go; its code is free again', async () => {
    const tool = wrench('TW-11');
    await keep(tool).expect(200);
    await shop.supervisor.call.delete(`/api/tools/${tool.id}?seenVersion=1`).expect(200);
    await shop.supervisor.call.delete(`/api/tools/${tool.id}?seenVersion=1`).expect(404);
    expect(await codes()).not.toContain('TW-11');
    await keep(wrench('TW-11')).expect(200);
  });
});

/** Works 2L through the API until a step is at hand. */
async function jobAt(stepId: string): Promise<string> {
  const jobId = await openJobOn(shop, await addUnit(shop), ['2L']);
  for (;;) {
    const job = await fetchJob(shop.technician.call, jobId);
    const step = stepAtHand(job.wheelEnds[0]!)!;
    if (step.id === stepId) return jobId;
    const skipped: Command = {
      kind: 'step-skipped',
      position: '2L',
      stage: step.stage,
      stepId: step.id,
      round: 1,
      reason: 'test',
    };
    const command = step.kind === 'measure' ? skipped : confirmStep(job, '2L');
    await send(shop.technician.call, jobId, job.version, command).expect(200);
  }
}

describe('a record', () => {
  it('takes a tool only as the list has it, in calibration and able to do the torque', async () => {
    const tool = wrench('TW-21');
    await keep(tool).expect(200);
    const jobId = await jobAt('seat');
    const torque = (listed: Tool): Command => ({
      kind: 'step-recorded',
      position: '2L',
      stage: 'adjust',
      stepId: 'seat',
      round: 1,
      data: { kind: 'torque', torque: quantity(200, 'lbf-ft'), tool: listed.code, rounds: 1, listed },
    });
    const post = (listed: Tool) => send(shop.technician.call, jobId, 99, torque(listed));
    const forged = await post({ ...tool, calibratedUntil: '2999-01-01' }).expect(422);
    expect(forged.body.detail).toMatch(/not as the tool list has it/);
    const old = wrench('TW-22', { calibratedUntil: '2020-01-31' });
    await keep(old).expect(200);
    expect((await post(old).expect(422)).body.detail).toBe('TW-22 is out of calibration since 2020-01-31');
    await post(tool).expect(200);
    await shop.supervisor.call.delete(`/api/tools/${tool.id}?seenVersion=1`).expect(200);
    const job = await fetchJob(shop.technician.call, jobId);
    expect(job.wheelEnds[0]!.records.at(-1)?.data).toMatchObject({ listed: { code: 'TW-21' } });
  });
});

describe('an adapter between wrench and nut', () => {
  it('is as the list has it, and goes on the drive of the wrench', async () => {
    const drive = { drive: '3/4' } as Partial<Tool>;
    const tool = wrench('TW-61', drive);
    await keep(tool).expect(200);
    const adapter = (code: string, on: '1/2' | '3/4'): Tool => ({
      ...{ id: randomUUID(), kind: 'adapter', code, title: 'Adapter', calibratedUntil: null },
      ...{ drive: on, length: quantity(76, 'mm') },
    });
    await keep(adapter('AD-1', '3/4')).expect(200);
    await keep(adapter('AD-2', '1/2')).expect(200);
    const jobId = await jobAt('seat');
    const post = (code: string, lengthMm: number) => {
      const via = { wrenchLengthMm: 600, adapter: { lengthMm, angleDeg: 0, code } };
      const torque = quantity(200, 'lbf-ft');
      return send(shop.technician.call, jobId, 99, {
        ...{ kind: 'step-recorded', position: '2L', stage: 'adjust', stepId: 'seat', round: 1 },
        data: { kind: 'torque', torque, tool: tool.code, rounds: 1, listed: tool, via },
      } as Command);
    };
    const why = async (code: string, lengthMm: number) =>
      (await post(code, lengthMm).expect(422)).body.detail as string;
    expect(await why('AD-1', 120)).toMatch(/^AD-1 is not as the tool list has it/);
    expect(await why('AD-9', 76)).toMatch(/^AD-9 is not as the tool list has it/);
    expect(await why('AD-2', 76)).toBe('AD-2 is for a drive of 1/2 in, TW-61 has one of 3/4 in');
    await post('AD-1', 76).expect(200);
  });
});

describe('the care of a tool', () => {
  const post = (id: string, what: string, body?: object, call = shop.technician.call) =>
    call.post(`/api/tools/${id}/${what}`).send(body);

  it('one person has it at a time; of twenty at once one does', async () => {
    const tool = wrench('TW-41');
    await keep(tool).expect(200);
    const others = [shop.technician.call, shop.supervisor.call];
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) => post(tool.id, 'taken', undefined, others[i % 2]!)),
    );
    expect(answers.some((a) => a.status === 200)).toBe(true);
    const listed = (await shop.technician.call.get('/api/tools').expect(200)).body as ListedTool[];
    const holder = listed.find((t) => t.tool.id === tool.id)!.holder!;
    const loser = holder.name === 'D. Achterberg' ? shop.supervisor.call : shop.technician.call;
    const { body } = await post(tool.id, 'taken', undefined, loser).expect(422);
    expect(body.detail).toBe(`${holder.name} has TW-41`);
    await post(tool.id, 'returned', undefined, loser).expect(200);
    await post(tool.id, 'returned').expect(422);
    await post(tool.id, 'taken', undefined, loser).expect(200);
  });

  it('that nobody finds is missing for everybody, until it is found, taken or put back', async () => {
    const tool = wrench('TW-43');
    await keep(tool).expect(200);
    await post(tool.id, 'taken', undefined, shop.supervisor.call).expect(200);
    const { body } = await post(tool.id, 'missing').expect(200);
    expect(body).toMatchObject({ holder: null, missing: { by: 'D. Achterberg' } });
    const { version } = body as ListedTool;
    expect((await post(tool.id, 'missing').expect(200)).body).toMatchObject({ version });
    expect((await post(tool.id, 'found').expect(200)).body).toMatchObject({ missing: null });
    await post(tool.id, 'missing').expect(200);
    expect((await post(tool.id, 'taken').expect(200)).body).toMatchObject({
      ...{ missing: null, holder: { name: 'D. Achterberg' } },
    });
    await post(randomUUID(), 'missing').expect(404);
  });

  it('is calibrated with its certificate: the file is what it says, is kept once and can be looked at', async () => {
    const tool = wrench('TW-44', { calibratedUntil: null });
    await keep(tool).expect(200);
    const pdf = Buffer.from(`%PDF-1.4 ${'calibrated '.repeat(20)}`);
    const certificate = {
      ...{ seenVersion: 1, certificateId: randomUUID(), name: 'TW-44.pdf', type: 'application/pdf' },
      ...{ file: pdf.toString('base64'), until: '2099-01-31' },
    };
    const certify = (more: object = {}, call = shop.supervisor.call) =>
      post(tool.id, 'certificates', { ...certificate, ...more }, call);
    await certify({}, shop.technician.call).expect(403);
    expect((await certify({ type: 'image/jpeg' }).expect(422)).body.detail).toBe('This is no JPEG picture');
    await certify({ file: Buffer.alloc(1_600_000, '%PDF-').toString('base64') }).expect(422);
    await certify({ seenVersion: 0 }).expect(409);
    const count = async () =>
      Number(
        (await shop.db.sequelize.query('select count(*) from certificate'))[0].map(
          (r) => (r as { count: string }).count,
        )[0],
      );
    expect(await count()).toBe(0);
    const { body } = await certify().expect(200);
    expect(body).toMatchObject({
      tool: { calibratedUntil: '2099-01-31' },
      certificates: [{ name: 'TW-44.pdf', until: '2099-01-31', by: 'I. Okonedo' }],
    });
    // Sent again, as a browser does that got no answer.
    await certify({ seenVersion: 2 }).expect(200);
    expect(await count()).toBe(1);
    const at = `/api/tools/${tool.id}/certificates/${certificate.certificateId}`;
    const file = await shop.technician.call.get(at).buffer(true).expect(200);
    expect(file.headers['content-type']).toBe('application/pdf');
    expect(file.headers['content-security-policy']).toMatch(/^sandbox/);
    expect(Buffer.compare(file.body as Buffer, pdf)).toBe(0);
    await shop.technician.call.get(at.replace(tool.id, randomUUID())).expect(404);
    await expect(shop.db.sequelize.query('delete from certificate')).rejects.toThrow(/permission denied/);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('found out of calibration: it is offered no longer, and every record made with it since is named', async () => {
    const tool = wrench('TW-42');
    await keep(tool).expect(200);
    const jobId = await jobAt('seat');
    const job = await fetchJob(shop.technician.call, jobId);
    const step = stepAtHand(job.wheelEnds[0]!)!;
    const at = { position: '2L', stage: step.stage, stepId: step.id, round: 1 };
    const torque = quantity(200, 'lbf-ft');
    const data = { kind: 'torque', torque, tool: 'TW-42', rounds: 1, listed: tool } as const;
    await send(shop.technician.call, jobId, job.version, {
      kind: 'step-recorded',
      ...at,
      data,
    } as Command).expect(200);
    const today = shop.clock.today();
    const recalled = { seenVersion: 1, lastGood: today, reason: 'Reads 12 % high' };
    await post(tool.id, 'recalled', recalled).expect(403);
    const { body } = await post(tool.id, 'recalled', recalled, shop.supervisor.call).expect(200);
    expect(body).toMatchObject({
      tool: { calibratedUntil: null },
      recalls: [{ lastGood: today, reason: 'Reads 12 % high', by: 'I. Okonedo' }],
    });
    const since = async (day: string) =>
      (await shop.technician.call.get(`/api/tools/${tool.id}/records?since=${day}`).expect(200))
        .body as ToolRecord[];
    expect(await since(today)).toMatchObject([
      {
        jobId,
        position: '2L',
        by: 'D. Achterberg',
        released: false,
        text: expect.stringContaining('200 lbf') as string,
      },
    ]);
    expect(await since('2099-01-01')).toEqual([]);
    // As it is now it is on no list of tools that may be used.
    await send(shop.technician.call, jobId, job.version + 1, {
      kind: 'step-recorded',
      ...at,
      data,
    } as Command).expect(422);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });
});
