import { expect } from '@playwright/test';
import { fetchJob, newFamilyJob, openFamilyJob, recordTo } from '../helpers/work-through.ts';
import { shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';

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
  const finding = page.getByRole('listitem').filter({ hasText: 'The job before ended out of service' });
  await finding.getByText('Put right', { exact: true }).first().click();
  await finding.getByLabel('How it was put right').fill('The new spindle came and is in');
  await finding.getByRole('button', { name: 'Answer this finding on 1L' }).press('Enter');
  await expect(page.getByText('Nothing blocks the release of 1L.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Release 1L', exact: true }).first().press('Enter');
  await expect(page.getByText(/Released by R\. Thistlewood/).first()).toBeVisible();
});

test('a unit bought used: lock, play and nuts are proved here, and the nut of another workshop is named', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const { jobId } = await newFamilyJob(page, 'Bought used 1', 'a-trailer', {
    works: ['check'],
    role: 'trailer',
  });
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'Others worked on it' }).press('Enter');
  for (const layer of ['Wheel', 'Two nuts, locking washer', 'Hub, oil'])
    await page.getByLabel(layer, { exact: true }).selectOption('On: others put it on');
  await page.getByLabel('Who did it').fill('Not known');
  await page.getByLabel('How that is known').fill('Bought used, no papers with it');
  await page.getByRole('button', { name: /^Record: / }).press('Enter');
  await expect.poll(async () => (await fetchJob(page, jobId)).events.at(-1)?.body.kind).toBe('as-it-stands');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const done = await workUntil(page, 'Release 1L');
  expect(done).toEqual(expect.arrayContaining(['Wheel nuts, full torque']));
  for (const layer of ['Wheel', 'Bearing nut', 'Hub'])
    await expect(page.getByText(new RegExp(`${layer}: put on by Not known`)).first()).toBeVisible();
  await page.getByLabel(/reason/i).fill('Played in band and locked, the last owner is not to be found');
  await page.getByRole('button', { name: /^Release 1L/ }).press('Enter');
  await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});

test('a slip typed three steps ago is corrected by whoever made it; what was done after it still counts', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'I. Okonedo');
  const { jobId } = await newFamilyJob(page, 'Slip 1', 'a-trailer', { works: ['adjust'], role: 'trailer' });
  await recordTo(page, jobId, 'seat');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await expect(page.getByRole('heading', { name: 'Seat the bearings' })).toBeVisible();
  const figures = async () =>
    (await fetchJob(page, jobId)).wheelEnds[0]!.records.flatMap(({ stepId, data }) =>
      stepId === 'seat' && data?.kind === 'torque' ? [data.torque.value] : [],
    );
  const wrench = page
    .getByRole('group', { name: /^Torque wrench: those/ })
    .getByRole('button')
    .first();
  await page.getByLabel(/^Reached/).fill('195');
  await wrench.press('Enter');
  await page.getByRole('button', { name: 'Record the torque' }).press('Enter');
  await workUntil(page, /Set the nut|Torque again|Lock/);
  const before = (await fetchJob(page, jobId)).wheelEnds[0]!;
  await page.getByRole('button', { name: 'Correct a record' }).press('Enter');
  const line = page.getByRole('listitem').filter({ hasText: 'Seat the bearings' }).first();
  await line.getByRole('button', { name: 'Correct', exact: true }).press('Enter');
  await line.getByLabel(/^Reached/).fill('200');
  await line
    .getByRole('group', { name: /^Torque wrench: those/ })
    .getByRole('button')
    .first()
    .press('Enter');
  await line.getByRole('button', { name: 'Record the torque' }).press('Enter');
  await expect(line.getByText('Enter a reason')).toBeVisible();
  await line.getByLabel('Why the first entry is wrong').fill('Read the scale of the wrench wrong');
  await line.getByRole('button', { name: 'Record the torque' }).press('Enter');
  await expect(line.getByText(/Corrected by I\. Okonedo: Read the scale/)).toBeVisible();
  await expect.poll(figures).toEqual([200]);
  const after = (await fetchJob(page, jobId)).wheelEnds[0]!;
  expect(after.records.map((r) => [r.stepId, after.notCounted[r.eventId]])).toEqual(
    before.records.map((r) => [r.stepId, before.notCounted[r.eventId]]),
  );
  await recordTo(page, jobId);
  const supervisor = await signedIn(browser, 'R. Thistlewood');
  await supervisor.goto(`${shopUrl()}/jobs/${jobId}`);
  await supervisor.getByRole('button', { name: 'Release 1L', exact: true }).press('Enter');
  await expect(supervisor.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});

test('a seal takes a week: the old one goes back in so that the unit stands in the yard, and comes out again', async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const { jobId } = await newFamilyJob(page, 'Week 1', 'a-trailer', { role: 'trailer' });
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'Everything is at hand' }).press('Enter');
  const seal = page.getByRole('radiogroup', { name: 'Hub seal' });
  await seal.getByRole('radio', { name: 'Ordered' }).press('Enter');
  await page.getByLabel('Arrives').fill('2030-01-11');
  await page.getByLabel(/^Not here: Hub seal/).fill('The seal comes in a week');
  await page.getByRole('button', { name: 'Start all the same' }).press('Enter');
  await expect(page.getByText('Hub seal: not here yet, due 2030-01-11')).toBeVisible();
  await recordTo(page, jobId, 'pack');
  await page.getByRole('button', { name: 'The old one goes in again' }).press('Enter');
  await recordTo(page, jobId);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await expect(page.getByText('Hub seal: the old one is in, a new one has to come')).toBeVisible();
  await expect(page.getByText(/Hub seal: the old one went in again, and it is not used twice/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Release 1L/ })).toBeHidden();
  await page.getByRole('button', { name: 'Hold the job' }).press('Enter');
  await page.getByLabel('What it waits for').fill('Waits for the hub seal, in the yard');
  await page.getByRole('button', { name: 'Hold it' }).press('Enter');
  await page.getByRole('button', { name: 'Resume the job' }).press('Enter');
  await page.getByRole('button', { name: 'It has come' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Lift and support' })).toBeVisible();
  const done = await workUntil(page, 'Release 1L');
  expect(done).toEqual(expect.arrayContaining(['Hub off', 'Seal in', 'Hub on', 'Lock the nut']));
  await page.getByRole('button', { name: 'Release 1L', exact: true }).press('Enter');
  await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});
