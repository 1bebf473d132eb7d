import { expect, type Page } from '@playwright/test';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Session } from '@lanternwright/contract/people';
import type { ListedTool } from '@lanternwright/contract/tools';
import { familySheet, type Step } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import { answerStep, measuredBy, plainTechnician, wrenchFor } from '@lanternwright/core/rig';
import type { Work } from '@lanternwright/core/stack';
import {
  currentRound,
  fold,
  readingRound,
  stepAtHand,
  type Command,
  type Job,
} from '@lanternwright/core/traveller';
import { addUnit, shopUrl } from './shop.ts';

const POSITION = '1L';

/** How many records a page shows as done and has not sent yet. */
const waiting = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const held = await indexedDB.databases();
    if (!held.some((d) => d.name === 'keyval-store')) return 0;
    const read = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result);
        request.onerror = () => reject(request.error ?? new Error('the browser’s database cannot be read'));
      });
    const db = await read(indexedDB.open('keyval-store'));
    const list = await read<unknown>(
      db.transaction('keyval').objectStore('keyval').get('lanternwright.outbox'),
    );
    db.close();
    return Array.isArray(list) ? list.length : 0;
  });

/** A page shows a record at once and sends it a moment later; where the network is gone it stays, and we go on. */
async function untilSent(page: Page): Promise<void> {
  if (!page.url().startsWith(shopUrl())) return;
  for (let i = 0; i < 40 && (await waiting(page)) > 0; i++) await page.waitForTimeout(100);
}

/** The job as the server has it. */
export async function fetchJob(page: Page, jobId: string): Promise<Job> {
  await untilSent(page);
  const detail = (await (await page.request.get(`${shopUrl()}/api/jobs/${jobId}`)).json()) as JobDetail;
  return fold(detail.events);
}

/** A new unit whose only axle has this family sheet, and a job on its left side. */
export async function newFamilyJob(
  page: Page,
  name: string,
  sheetId: string,
  {
    works = ['seal'],
    role = 'fixed',
    brake = 'drum',
  }: { works?: Work[]; role?: string; brake?: string } = {},
): Promise<{ unitId: string; jobId: string }> {
  const unitId = await addUnit(page, name, [{ role, wheels: 'single', brake, sheet: familySheet(sheetId) }]);
  return { unitId, jobId: await openFamilyJob(page, unitId, 81_000, works) };
}

/** A job on the left side of the first axle. */
export async function openFamilyJob(
  page: Page,
  unitId: string,
  km: number,
  works: Work[] = ['seal'],
): Promise<string> {
  const meter = { distance: { value: km, unit: 'km' } };
  const opened = await page.request.post(`${shopUrl()}/api/jobs`, {
    data: {
      unitId,
      title: 'Hubs',
      complaint: '',
      reportedBy: '',
      meter,
      wheelEnds: [{ position: POSITION, works }],
    },
  });
  expect(opened.ok(), await opened.text()).toBe(true);
  return ((await opened.json()) as { id: string }).id;
}

/** Records the steps at hand through the API while they are of a kind, so that a test drives its own part. */
export async function recordWhile(
  page: Page,
  jobId: string,
  goOn: (step: Step) => boolean,
  position?: string,
): Promise<void> {
  const url = `${shopUrl()}/api/jobs/${jobId}`;
  const { person, demoPeople } = (await (
    await page.request.get(`${shopUrl()}/api/people/session`)
  ).json()) as Session;
  const other = demoPeople.find((p) => p.id !== person!.id && p.role === 'technician')!;
  const send = async (command: Command, second = false) => {
    const data = { id: crypto.randomUUID(), seenVersion: 999, command };
    const sent = second
      ? await page.request.post(`${url}/second-person`, { data: { ...data, person: { demoId: other.id } } })
      : await page.request.post(`${url}/events`, { data });
    expect(sent.ok(), await sent.text()).toBe(true);
  };
  const tools = (await (await page.request.get(`${shopUrl()}/api/tools`)).json()) as ListedTool[];
  const today = new Date().toISOString().slice(0, 10);
  const wrench = (nm: number) =>
    wrenchFor(
      tools.map((t) => t.tool),
      nm,
      today,
    );
  for (;;) {
    const { wheelEnds } = await fetchJob(page, jobId);
    const w = wheelEnds.find((x) => x.position === position) ?? wheelEnds[0]!;
    const step = stepAtHand(w);
    if (!step || !goOn(step)) return;
    const { position: at } = w;
    if (step.kind === 'measure' && measuredBy(w, step) === 'dial') {
      const cycle = { push: quantity(0, 'in'), pull: quantity(0.003, 'in'), source: 'typed' } as const;
      for (let i = 0; i < 3; i++)
        await send({ kind: 'reading-taken', position: at, round: readingRound(w, step), ...cycle });
    }
    const { stage, id: stepId } = step;
    const round = currentRound(w).number;
    const second = step.kind === 'inspect' && step.otherThan !== undefined;
    const data = answerStep(w, step, { ...plainTechnician, wrench });
    await send({ kind: 'step-recorded', position: at, stage, stepId, round, data }, second);
  }
}

/** Title of the step at hand on the server, for the first wheel end of a job. */
export async function stepAt(page: Page, jobId: string): Promise<string | undefined> {
  return stepAtHand((await fetchJob(page, jobId)).wheelEnds[0]!)?.title;
}

/** Everything of the job until a step is at hand; without one, until only the release is left. */
export const recordTo = (page: Page, jobId: string, stepId?: string) =>
  recordWhile(page, jobId, (step) => step.id !== stepId);
