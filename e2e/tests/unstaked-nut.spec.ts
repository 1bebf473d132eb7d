import { expect } from '@playwright/test';
import { doStep, measure, shopUrl, signedIn, test } from '../hands/shop.ts';
import { fetchJob, newFamilyJob, openFamilyJob, recordWhile, stepAt } from '../hands/work-through.ts';

/**
 * The nut was never staked: the release is refused, a supervisor sends it out all the same, and the next visit
 * finds by the trend that it has walked (common practice, no source).
 */
test('the unstaked nut: release refused, found at the next visit by trend', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'D. Achterberg');
  const chief = await signedIn(browser, 'I. Okonedo');
  const { unitId, jobId } = await newFamilyJob(page, 'Valley 77', 'e-torque');

  await test.step('the stake is left out, with a reason', async () => {
    await recordWhile(page, jobId, (step) => step.kind !== 'lock');
    await page.goto(`${shopUrl()}/jobs/${jobId}`);
    await page.getByRole('button', { name: 'Skip this step' }).click();
    await page.getByLabel('Why it is skipped').fill('No new nut on the shelf');
    await page.getByRole('button', { name: 'Skip it' }).click();
    await expect.poll(() => stepAt(page, jobId)).toBe('Fill and close');
    await recordWhile(page, jobId, () => true);
    await expect(page.getByText('Not fit for release:')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Release 1L/ })).toBeHidden();
  });

  await test.step('the release is refused without a written reason, by the server as well', async () => {
    const command = { kind: 'wheel-end-released', position: '1L' };
    const asked = await chief.request.post(`${shopUrl()}/api/jobs/${jobId}/events`, {
      data: { id: crypto.randomUUID(), seenVersion: 999, command },
    });
    expect(asked.status()).toBe(422);
    expect(((await asked.json()) as { detail: string }).detail).toMatch(/“Stake the nut” was skipped/);
    await chief.goto(`${shopUrl()}/jobs/${jobId}`);
    const grave = chief.getByRole('button', { name: 'Release 1L in spite of this' });
    await expect(grave).toBeDisabled();
    await chief.getByLabel(/Your reason/).fill('Needed for the morning run');
    await grave.click();
    await expect(chief.getByText('Reason: Needed for the morning run')).toBeVisible();
    await expect
      .poll(async () => (await fetchJob(page, jobId)).events.at(-1)?.body.kind)
      .toBe('wheel-end-released');
  });

  await test.step('the next visit measures it as found: it has walked, and the record says why', async () => {
    const next = await openFamilyJob(page, unitId, 161_000);
    await page.goto(`${shopUrl()}/jobs/${next}`);
    await doStep(page, 'Rock the wheel', 'key');
    await measure(page, [
      ['0', '0.0085'],
      ['0', '0.0086'],
      ['0', '0.0084'],
    ]);
    const hand = page.getByRole('region', { name: 'Step at hand' });
    await expect(hand.getByText('It has walked since it was set.')).toBeVisible();
    await expect(hand.getByText(/Left at 0\.0030 in .*found at 0\.0085 in, 80,000 km later/)).toBeVisible();
    await expect(
      hand.getByText(/released by I\. Okonedo in spite of: .*No new nut on the shelf/),
    ).toBeVisible();
    await hand.getByRole('button', { name: /^Accept/ }).click();
    await expect.poll(() => stepAt(page, next)).toBe('Tools, parts and lubricant at hand');
    await recordWhile(page, next, (step) => step.kind !== 'found');
    await page.getByRole('button', { name: /^Nut not locked/ }).click();
    await page.getByRole('button', { name: 'Record what looked wrong' }).click();
    await expect.poll(() => stepAt(page, next)).toBe('Judge the parts');
    await recordWhile(page, next, () => true);
    await chief.goto(`${shopUrl()}/jobs/${next}`);
    await chief.getByRole('button', { name: 'Release 1L', exact: true }).click();
    await expect(chief.getByText(/Released by I\. Okonedo/)).toBeVisible();
    const found = (await fetchJob(page, next)).wheelEnds[0]!.records.find((r) => r.data?.kind === 'found');
    expect(found?.data).toMatchObject({ signs: ['not-locked'] });
  });
});
