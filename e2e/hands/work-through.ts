import { expect, type Page } from '@playwright/test';
import type { JobDetail } from '@lanternwright/contract/jobs';
import { familySheet, stageOrder, type Step } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import {
  currentRound,
  fold,
  readingRound,
  stepAtHand,
  type Command,
  type Job,
} from '@lanternwright/core/traveller';
import { answer } from '../../core/src/traveller/testing/work.ts';
import { chooseTool, doStep, inBand, measure, shopUrl } from './shop.ts';

const POSITION = '1L';

/** The job as the server has it. */
export async function fetchJob(page: Page, jobId: string): Promise<Job> {
  const detail = (await (await page.request.get(`${shopUrl()}/api/jobs/${jobId}`)).json()) as JobDetail;
  return fold(detail.events);
}

/** A new unit whose only axle has this family sheet, and a job on its left side. */
export async function newFamilyJob(
  page: Page,
  name: string,
  sheetId: string,
): Promise<{ unitId: string; jobId: string }> {
  const axle = { role: 'fixed', wheels: 'single', brake: 'drum', sheet: familySheet(sheetId) };
  const meter = { distance: { value: 81_000, unit: 'km' } };
  const added = await page.request.post(`${shopUrl()}/api/fleet/units`, {
    data: { owner: 'Marrowbank Recovery', name, kind: 'rigid', axles: [axle], meter },
  });
  expect(added.ok(), await added.text()).toBe(true);
  const { id: unitId } = (await added.json()) as { id: string };
  return { unitId, jobId: await openFamilyJob(page, unitId, 81_000) };
}

/** A job on the left side of the first axle. */
export async function openFamilyJob(page: Page, unitId: string, km: number): Promise<string> {
  const meter = { distance: { value: km, unit: 'km' } };
  const opened = await page.request.post(`${shopUrl()}/api/jobs`, {
    data: { unitId, title: 'Hubs', complaint: '', reportedBy: '', meter, positions: [POSITION] },
  });
  expect(opened.ok(), await opened.text()).toBe(true);
  return ((await opened.json()) as { id: string }).id;
}

/** Titles of the steps that every family shares at the end. */
const sharedEnd = ['Fill and close', 'Brakes back', 'Wheel nuts', 'Hub heat after the road', 'Final look'];

/** Records the steps at hand through the API while they are of a kind, so that a test drives its own part. */
export async function recordWhile(page: Page, jobId: string, goOn: (step: Step) => boolean): Promise<void> {
  const send = async (command: Command) => {
    const data = { id: crypto.randomUUID(), seenVersion: 999, command };
    const sent = await page.request.post(`${shopUrl()}/api/jobs/${jobId}/events`, { data });
    expect(sent.ok(), await sent.text()).toBe(true);
  };
  for (;;) {
    const w = (await fetchJob(page, jobId)).wheelEnds[0]!;
    const step = stepAtHand(w);
    if (!step || !goOn(step)) return;
    const { position } = w;
    if (step.kind === 'measure' && w.sheet.band) {
      const cycle = { push: quantity(0, 'in'), pull: quantity(0.003, 'in'), source: 'typed' } as const;
      for (let i = 0; i < 3; i++)
        await send({ kind: 'reading-taken', position, round: readingRound(w, step), ...cycle });
    }
    const { stage, id: stepId } = step;
    const round = currentRound(w).number;
    await send({ kind: 'step-recorded', position, stage, stepId, round, data: answer(w, step) });
  }
}

/** Title of the step at hand on the server, for the first wheel end of a job. */
export async function stepAt(page: Page, jobId: string): Promise<string | undefined> {
  return stepAtHand((await fetchJob(page, jobId)).wheelEnds[0]!)?.title;
}

/** Everything before Tear down, where a family begins. */
export const recordBeginning = (page: Page, jobId: string) =>
  recordWhile(page, jobId, (step) => stageOrder(step.stage) < stageOrder('tear-down'));

/** Everything after a family's own last step. */
export async function recordEnd(page: Page, jobId: string): Promise<void> {
  await expect.poll(async () => sharedEnd.includes((await stepAt(page, jobId)) ?? '')).toBe(true);
  await recordWhile(page, jobId, () => true);
}

const known = new Set([
  'What looked wrong',
  'Judge the parts',
  'New beside old',
  'Pack the bearings',
  'Seal in',
]);

/** Answers whatever step is at hand by what it shows, until the family's own steps are done. */
export async function workThrough(page: Page): Promise<void> {
  const hand = page.getByRole('region', { name: 'Step at hand' });
  const button = (name: string | RegExp) => hand.getByRole('button', { name });
  for (let guard = 0; guard < 60; guard++) {
    const heading = hand.getByRole('heading', { level: 2 }).first();
    const title = await heading.innerText();
    if (sharedEnd.includes(title)) return;
    if (known.has(title)) await doStep(page, title, 'key');
    else if (await button('Record the torque').isVisible()) {
      const makers = page.getByLabel(/^The maker’s sheet asks for/);
      if (await makers.isVisible()) await makers.fill('60');
      const reached = page.getByLabel(/^Reached/);
      const words = await hand.innerText();
      const range = /(\d+) to (\d+) lbf·ft/.exec(words);
      if (await makers.isVisible()) await reached.fill('60');
      else if (range && (await reached.inputValue()) === '') await reached.fill(range[2]!);
      await chooseTool(page);
      await button('Record the torque').press('Enter');
    } else if (await page.getByLabel(/^Pushed in/).isVisible()) {
      await measure(page, inBand);
      await button(/^Accept/).press('Enter');
    } else if (await button('Record the lock').isVisible()) {
      await hand.getByRole('radio').first().check();
      await page.getByLabel('Checked by').fill('S. Varga');
      await button('Record the lock').press('Enter');
    } else {
      const names = [
        'Yes',
        'Done',
        /^Turned /,
        /^(Backed off|Tightened)/,
        'No movement felt, spins freely',
        'Light, even drag all the way round',
        'Lined up',
        'Gasket',
      ];
      let pressed = false;
      for (const name of names) {
        if (!(await button(name).first().isVisible())) continue;
        await button(name).first().press('Enter');
        pressed = true;
        break;
      }
      expect(pressed, `nothing to press on “${title}”`).toBe(true);
    }
    await expect(hand.getByRole('heading', { level: 2, name: title, exact: true })).toBeHidden();
  }
  throw new Error('The family’s steps do not come to an end');
}
