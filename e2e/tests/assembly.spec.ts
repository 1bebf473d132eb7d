import { expect } from '@playwright/test';
import { fetchJob, newFamilyJob, openFamilyJob, recordTo } from '../helpers/work-through.ts';
import { shopUrl, signedIn, test } from '../helpers/shop.ts';

const REASON = 'Looked at on the ground, it is wanted back tonight';

test('a tyre shop’s visit: nuts torqued here, the rest taken on its word by name', async ({ browser }) => {
  const page = await signedIn(browser, 'R. Thistlewood');
  const { jobId } = await newFamilyJob(page, 'Tyre 1', 'a-trailer', { works: ['check'], role: 'trailer' });
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'Others worked on it' }).press('Enter');
  const record = page.getByRole('button', { name: /^(Choose what stands otherwise|Record: )/ });
  await expect(record).toBeDisabled();
  await page.getByLabel('Wheel', { exact: true }).selectOption('On: others put it on');
  await page.getByLabel('Who did it').fill('Fellside Tyres');
  await page.getByLabel('How that is known').fill('Their invoice is in the cab');
  await record.press('Enter');
  await expect.poll(async () => (await fetchJob(page, jobId)).events.at(-1)?.body.kind).toBe('as-it-stands');
  await recordTo(page, jobId);
  const done = (await fetchJob(page, jobId)).events.flatMap(({ body }) =>
    body.kind === 'step-recorded' ? [body.stepId] : [],
  );
  expect(done).toContain('wheel-nuts');
  expect(done).not.toContain('wheel-drawn');
  await page.goto(`${shopUrl()}/jobs/${jobId}/release`);
  await expect(page.getByText(/Wheel: put on by Fellside Tyres/).first()).toBeVisible();
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByLabel(/reason/i).fill(REASON);
  await page.getByRole('button', { name: /^Release 1L/ }).press('Enter');
  await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});

test('a job ended out of service with the hub off: Floor and unit say so, and another takes it up', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const { unitId, jobId } = await newFamilyJob(page, 'Apart 1', 'a-trailer', { role: 'trailer' });
  await recordTo(page, jobId, 'judge-parts');
  const seenVersion = (await fetchJob(page, jobId)).version;
  const command = {
    ...{ kind: 'ended-out-of-service', reason: 'The spindle is weeks away', leaves: 'stays' },
    told: 'M. Tern',
  };
  const data = { id: crypto.randomUUID(), seenVersion, command };
  const ended = await page.request.post(`${shopUrl()}/api/jobs/${jobId}/events`, { data });
  expect(ended.ok(), await ended.text()).toBe(true);

  await page.goto(`${shopUrl()}/floor`);
  const line = page.getByRole('link', { name: /Not to roll: Apart 1, 1L/ });
  await expect(line).toContainText('The spindle is weeks away');
  await expect(line).toContainText(/Hub: off/);
  await line.press('Enter');
  await expect(
    page.getByText(/Hub: off.*R\. Thistlewood, .*job \d+\. The next job begins with it/),
  ).toBeVisible();

  const next = await openFamilyJob(page, unitId, 81_010, ['retorque']);
  const released = { id: crypto.randomUUID(), seenVersion: 1 };
  const release = { kind: 'wheel-end-released', position: '1L', overrideReason: REASON };
  const refused = await page.request.post(`${shopUrl()}/api/jobs/${next}/events`, {
    data: { ...released, command: release },
  });
  expect(refused.status()).toBe(422);
  await page.goto(`${shopUrl()}/jobs/${next}`);
  await expect(page.getByRole('region', { name: 'Step at hand' })).toBeVisible();
  await recordTo(page, next);
  // Why the job before ended is not forgotten: a supervisor says what became of it.
  await page.goto(`${shopUrl()}/jobs/${next}/release`);
  await expect(
    page.getByText(/The job before ended out of service: The spindle is weeks away/).first(),
  ).toBeVisible();
});
