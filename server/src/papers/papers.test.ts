import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { quantity } from '@lanternwright/core/quantity';
import type { Tool } from '@lanternwright/core/tool';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';
import { supervisor } from '../../../core/src/traveller/testing/work.ts';
import { sealsIn } from '../record/seals.ts';
import { verifyChain } from '../record/verify-chain.ts';

const seals = mkdtempSync(join(tmpdir(), 'lanternwright-paper-'));

let shop: Shop;
let jobId: string;
beforeAll(async () => {
  shop = await openShop({ SEALS: seals });
  jobId = await openJobOn(shop, await addUnit(shop, 'Tern 640'));
  const call = shop.technician.call;
  const { t, flush } = mirrored(shop, jobId, ['2L', '2R']);
  t.workTo('2L', 'as-found');
  await flush();
  for (const thou of [3, 3.1, 2.9]) {
    await send(call, jobId, 9, {
      kind: 'reading-taken',
      position: '2L',
      round: 0,
      push: quantity(0, 'thou'),
      pull: quantity(thou, 'thou'),
      source: 'gauge',
      gauge: 'DI-04',
    }).expect(200);
  }
  const listed: Tool = {
    id: randomUUID(),
    kind: 'dial-indicator',
    code: 'DI-04',
    title: 'Dial on a magnetic base',
    calibratedUntil: '2099-07-31',
    graduation: quantity(0.001, 'in'),
  };
  await shop.supervisor.call.put('/api/tools').send({ seenVersion: 0, tool: listed }).expect(200);
  const at = { position: '2L', stage: 'diagnose', stepId: 'as-found', round: 1 } as const;
  const data = { kind: 'measure', by: 'dial', listed } as const;
  await send(call, jobId, 9, { kind: 'step-recorded', ...at, data }).expect(200);
});
afterAll(async () => {
  await shop.close();
  rmSync(seals, { recursive: true, force: true });
});

async function paper(name: string, size: string, job = jobId) {
  const answer = await shop.technician.call
    .get(`/api/exchange/jobs/${job}/${name}.pdf?size=${size}`)
    .buffer(true)
    .parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (chunk: Buffer) => chunks.push(chunk));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    })
    .expect(200)
    .expect('content-type', /application\/pdf/);
  const pdf = await getDocument({ data: new Uint8Array(answer.body as Buffer), verbosity: 0 }).promise;
  const first = await pdf.getPage(1);
  let text = '';
  for (let i = 1; i <= pdf.numPages; i++) {
    const { items } = await (await pdf.getPage(i)).getTextContent();
    text += items.map((item) => ('str' in item ? item.str : '')).join(' ');
  }
  const [, , width, height] = first.view;
  return {
    text: text.replace(/\s+/g, ' '),
    size: [width, height].map((v) => Math.round(v!)),
    pages: pdf.numPages,
  };
}

describe('a job on paper', () => {
  it('the service record has every reading as typed and in mm, its revision, who, and the hash', async () => {
    const { text, size } = await paper('record', 'a4');
    expect(size).toEqual([595, 842]); // ISO 216, A4 in points
    expect(text).toContain('Service record');
    expect(text).toContain('Cycles as found, with DI-04, D. Achterberg');
    expect(text).toContain('push 0 thou, pull 3.1 thou: 0.0787 mm');
    expect(text).toContain('Tools DI-04 Dial on a magnetic base, 0.001 in, in calibration until 2099-07-31');
    expect(text).toContain('revision 1');
    expect(text).toContain('Rock the wheel: nothing moves');
    expect(text).toContain('not released. ');
    const report = await verifyChain(shop.db);
    expect(text).toContain(`SHA-256 ${report.ok ? report.lastHash : 'none'}`);
    // Sealed at a release and every hour; the paper has the seal as text and as code.
    expect(text).toContain('not sealed yet');
    await shop.seals.sealEnd(true);
    const [seal] = await sealsIn(seals);
    const sealed = (await paper('record', 'a4')).text.replace(/ /g, '');
    expect(sealed).toContain(`Signature${seal!.signature}`);
    expect(sealed).toContain(seal!.hash);
  });

  it('the traveller has every step with its figure and caution, a usual job on two pages', async () => {
    expect((await paper('traveller', 'a4')).pages).toBe(2);
    const { text, size, pages } = await paper('traveller', 'letter');
    expect(size).toEqual([612, 792]); // ANSI A in points
    expect(pages).toBe(2);
    for (const words of [
      'Seat the bearings',
      'To 200 lbf·ft (271 N·m).',
      'Caution: Never tighten to reach a hole',
      'Socket of the bearing nut (six or eight point)',
    ])
      expect(text).toContain(words);
  });

  it('the traveller of bearings and seals, nothing done yet, is two pages of either size', async () => {
    const blank = await openJobOn(shop, await addUnit(shop, 'Tern 642'), ['2L', '2R'], ['bearings', 'seal']);
    for (const size of ['a4', 'letter']) expect((await paper('traveller', size, blank)).pages).toBe(2);
  });

  it('a tag names unit and position', async () => {
    const { text } = await paper('tags', 'a4');
    for (const words of ['2L', '2R', 'Tern 640', 'Being worked on: do not move'])
      expect(text).toContain(words);
  });

  it('a job out of service says so on tag and paper, with what is off and who was told', async () => {
    const scrap = await openJobOn(shop, await addUnit(shop, 'Tern 641'));
    const { t, flush } = mirrored(shop, scrap, ['2L', '2R']);
    t.workTo('2L', 'judge-parts');
    await flush();
    const { version } = await fetchJob(shop.technician.call, scrap);
    const end = { kind: 'ended-out-of-service', reason: 'Spindle is scrap', leaves: 'stays' } as const;
    await send(shop.supervisor.call, scrap, version, { ...end, told: 'Q. Fenmoor' }).expect(200);
    const record = (await paper('record', 'a4', scrap)).text;
    const off = /2L: wheel off, .*bearing nut off, hub off\. 2R: nothing off/;
    expect(record).toMatch(off);
    for (const words of ['Out of service', 'Spindle is scrap; the unit stays', 'Told: Q. Fenmoor'])
      expect(record).toContain(words);
    const tag = (await paper('tags', 'a4', scrap)).text;
    expect(tag).toContain('Out of service: never to roll on this axle');
    for (const text of [tag, record])
      expect(text).toMatch(/Off: Wheel; .*; Hub \(D\. Achterberg, \d{4}-\d\d-\d\d\)/);
    expect(record).toMatch(/Not moved, so not known: \d of \d layers/);
  });

  it('a release that is in doubt, or for the yard only, says so on tag and record', async () => {
    const id = await openJobOn(shop, await addUnit(shop, 'Tern 648'), ['2L'], ['brakes']);
    const { t, flush } = mirrored(shop, id, ['2L'], ['brakes']);
    t.workTo('2L', 'brakes-back');
    const mm = quantity(6, 'mm');
    const thin = {
      kind: 'linings',
      brake: 'air-drum',
      inner: mm,
      outer: mm,
      set: true,
      note: 'Worn',
    } as const;
    expect(t.recordStep('2L', thin)).toBeNull();
    t.workTo('2L');
    const overrideReason = 'It only moves trailers about the yard';
    t.do({ kind: 'wheel-end-released', position: '2L', overrideReason }, supervisor);
    await flush();
    for (const name of ['tags', 'record'])
      expect((await paper(name, 'a4', id)).text).toContain('For the yard only: a lining of 6.0 mm');
    const job = await fetchJob(shop.technician.call, id);
    const nuts = job.events.find((e) => e.body.kind === 'step-recorded' && e.body.stepId === 'wheel-nuts')!;
    const strike = {
      kind: 'correction',
      corrects: nuts.id,
      reason: 'That was 2R',
      replacement: null,
    } as const;
    await send(shop.supervisor.call, id, job.version, strike).expect(200);
    expect((await paper('tags', 'a4', id)).text).toContain(
      'Release in doubt: never to roll on this axle. That was 2R',
    );
    expect((await paper('record', 'a4', id)).text).toContain('In doubt: never to roll on this axle');
  });

  it('the estimate has its lines, the owner’s answer, the bill and why it differs; there is none before it is written', async () => {
    await shop.technician.call.get(`/api/exchange/jobs/${jobId}/estimate.pdf`).expect(404);
    const lines = [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 }] as const;
    const quoted = { currency: 'USD', lines: [...lines], suppliesPercent: 0, taxes: [] };
    const actual = {
      ...quoted,
      lines: [
        { group: 'labour' as const, what: 'Hubs', per: 'hour' as const, quantity: 5.5, unitMinor: 8460 },
        { group: 'parts' as const, what: 'Seal', per: 'piece' as const, quantity: 3, unitMinor: 4185 },
      ],
      taxes: [{ name: 'Sales tax', percent: 7.5, on: ['labour' as const, 'parts' as const] }],
    };
    const call = shop.supervisor.call;
    await send(call, jobId, 9, { kind: 'bill-written', as: 'estimate', bill: quoted }).expect(200);
    const rates = { hour: null, suppliesPercent: 0, taxes: [], taxNumber: 'MSW 12 34', validDays: 30 };
    const { body: seen } = await call.get('/api/estimates/rates').expect(200);
    await call
      .put('/api/estimates/rates')
      .send({ ...rates, seen })
      .expect(200);
    const asked = (await paper('estimate', 'a4')).text;
    const last = shop.clock.sayDay(shop.clock.now().toISOString(), 30);
    for (const words of [
      'Tax number of',
      'MSW 12 34',
      `This estimate stands until ${last}.`,
      'Approved for Tern & Hollow Haulage: signature',
    ])
      expect(asked).toContain(words);
    expect(asked).toMatch(/Estimate \d+-1/);
    const answer = { answer: 'do-now', name: 'Q. Fenmoor', message: 'Keep the old parts' } as const;
    await send(call, jobId, 9, { kind: 'owner-answered', ...answer }).expect(200);
    expect((await paper('estimate', 'a4')).text).not.toContain('signature');
    await send(call, jobId, 9, { kind: 'bill-written', as: 'actual', bill: actual }).expect(200);
    const { text } = await paper('estimate', 'a4');
    for (const words of [
      'Hubs 2 wheel 215.00 USD 430.00 USD',
      'Q. Fenmoor: Do it now. “Keep the old parts”',
      '635.16 USD',
      'Seal 0.00 USD 125.55 USD',
    ])
      expect(text).toContain(words);
  });

  it('answers 404 for no job and 422 for another paper', async () => {
    await shop.technician.call.get(`/api/exchange/jobs/${crypto.randomUUID()}/record.pdf`).expect(404);
    await shop.technician.call.get(`/api/exchange/jobs/${jobId}/poem.pdf`).expect(422);
  });
});
