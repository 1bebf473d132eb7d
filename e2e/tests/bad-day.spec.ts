import { expect, type Page } from '@playwright/test';
import { axe, stepPart } from '../helpers/axe.ts';
import { shopUrl, signedIn, test } from '../helpers/shop.ts';
import { fetchJob, newFamilyJob, recordTo, recordWhile } from '../helpers/work-through.ts';
import { stepAtHand } from '../../core/src/traveller/index.ts';

const stepPanel = (page: Page) => page.getByRole('region', { name: 'Step at hand' });
const version = async (page: Page, jobId: string) => (await fetchJob(page, jobId)).version;

/** A job on one wheel end, recorded up to a step, its page open. */
async function openAt(page: Page, name: string, sheetId: string, stepId: string): Promise<string> {
  const { jobId } = await newFamilyJob(page, name, sheetId);
  await recordTo(page, jobId, stepId);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await stepPanel(page).getByRole('heading', { level: 2 }).waitFor();
  return jobId;
}

test('a reload in the middle of every kind of step loses nothing and doubles nothing; each passes axe', async ({
  browser,
}) => {
  test.setTimeout(480_000);
  const page = await signedIn(browser, 'J. Brennock');
  const { jobId } = await newFamilyJob(page, 'Marsh 70', 'a-drive-dowel');
  const seen = new Set<string>();
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  for (;;) {
    const job = await fetchJob(page, jobId);
    const step = stepAtHand(job.wheelEnds[0]!);
    if (!step) break;
    if (seen.has(step.kind)) {
      await recordWhile(page, jobId, (s) => seen.has(s.kind));
      continue;
    }
    seen.add(step.kind);
    await test.step(step.title, async () => {
      const heading = stepPanel(page).getByRole('heading', { level: 2, name: step.title, exact: true });
      await expect(heading).toBeVisible();
      const field = stepPanel(page).locator('input:not([type]):visible').first();
      const typed = (await field.count()) > 0;
      if (typed) await field.fill('12,5 half typed');
      await page.reload();
      await expect(heading).toBeVisible();
      if (typed) await expect(field).toHaveValue('12,5 half typed');
      expect(await version(page, jobId)).toBe(job.version);
      await axe(page, step.title, stepPart);
    });
  }
  expect(seen.size).toBeGreaterThan(15);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Release 1L' })).toBeVisible();
  await openAt(page, 'Marsh 71', 'h-lock-nuts', 'drag');
  await axe(page, 'Check the drag', stepPart);
});

test('what cannot be is refused in words beside its field, and stays there to be put right', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'S. Varga');

  await test.step('readings', async () => {
    const jobId = await openAt(page, 'Marsh 72', 'a-drive-dowel', 'end-play');
    const before = await version(page, jobId);
    for (const [pulled, says] of [
      ['three', /is not a figure/],
      ['5 Nm', /is not one of/],
      ['1e9', /is not one of/],
      ['0.7', /is not possible/],
      ['-0.7', /is not possible/],
      ['0.003.1', /is not a figure/],
    ] as const) {
      await page.getByLabel(/^Pushed in/).fill('0');
      await page.getByLabel(/^Pulled out/).fill(pulled);
      await page.getByLabel(/^Pulled out/).press('Enter');
      await expect(stepPanel(page).getByText(says).last()).toBeVisible();
      await expect(page.getByLabel(/^Pulled out/)).toHaveValue(pulled);
    }
    expect(await version(page, jobId)).toBe(before);
    await page.getByLabel(/^Pulled out/).fill('0.0031');
    await page.getByLabel(/^Pulled out/).press('Enter');
    await expect.poll(() => version(page, jobId)).toBe(before + 1);
  });

  await test.step('torque', async () => {
    const jobId = await openAt(page, 'Marsh 73', 'a-drive-dowel', 'seat');
    const before = await version(page, jobId);
    await stepPanel(page)
      .getByRole('button', { name: /^TW-01/ })
      .click();
    for (const reached of ['-200', '99999', '200 mm', 'NaN', '']) {
      await page.getByLabel(/^Reached/).fill(reached);
      await stepPanel(page).getByRole('button', { name: 'Record the torque' }).click();
      await expect(page.getByLabel(/^Reached/)).toHaveValue(reached);
      await expect(stepPanel(page).getByRole('heading', { name: 'Seat the bearings' })).toBeVisible();
    }
    expect(await version(page, jobId)).toBe(before);
  });

  await test.step('linings and temperatures', async () => {
    const jobId = await openAt(page, 'Marsh 74', 'a-drive-dowel', 'brakes-back');
    const before = await version(page, jobId);
    await page.getByLabel('Inner lining, mm').fill('-3');
    await page.getByLabel('Outer lining, mm').fill('12 km');
    await stepPanel(page).getByRole('button', { name: 'Record the brake' }).click();
    await expect(page.getByLabel('Outer lining, mm')).toHaveValue('12 km');
    expect(await version(page, jobId)).toBe(before);
  });
});

test('a double tap, a held Enter and the back button do a step once', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'M. Pellow', { hasTouch: true });
  const titleIs = (name: string) =>
    expect(stepPanel(page).getByRole('heading', { level: 2, name, exact: true })).toBeVisible();

  // Steps in a row whose one button stands in the same place.
  const { jobId } = await newFamilyJob(page, 'Marsh 75', 'g-c-clip', { role: 'drive' });
  await recordTo(page, jobId, 'wheel-off');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const before = await version(page, jobId);
  await titleIs('Wheel off');
  await stepPanel(page).getByRole('button', { name: 'Done' }).dblclick();
  await titleIs('Adjuster backed off, drum off');
  await page.waitForTimeout(300);
  expect(await version(page, jobId)).toBe(before + 1);

  const done = (await stepPanel(page).getByRole('button', { name: 'Done' }).boundingBox())!;
  const [x, y] = [done.x + done.width / 2, done.y + done.height / 2];
  await page.touchscreen.tap(x, y);
  await page.touchscreen.tap(x, y);
  await titleIs('Axle drained, cover off');
  await page.waitForTimeout(300);
  expect(await version(page, jobId)).toBe(before + 2);

  await stepPanel(page).getByRole('button', { name: 'Done' }).focus();
  for (let i = 0; i < 6; i++) await page.keyboard.down('Enter');
  await page.keyboard.up('Enter');
  await titleIs('Pin bolt, pin and clip out');
  await page.waitForTimeout(300);
  expect(await version(page, jobId)).toBe(before + 3);

  await page.getByRole('link', { name: 'Fleet', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Fleet', level: 1 })).toBeVisible();
  await page.goBack();
  await titleIs('Pin bolt, pin and clip out');
  expect(await version(page, jobId)).toBe(before + 3);
});
