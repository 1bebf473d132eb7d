import { expect } from '@playwright/test';
import { axe } from '../helpers/axe.ts';
import { doStep, inBand, measure, newJob, shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';
import { fetchJob, recordTo } from '../helpers/work-through.ts';

test('family D by touch on a phone, set by torque, locked with a cotter', async ({ browser }) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'S. Varga', {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  const jobId = await newJob(page, 'Heather 90', 'towed-1', ['1L'], ['repack']);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const done = await workUntil(page, 'Release 1L', 'tap');
  expect(done).toEqual(
    expect.arrayContaining([
      'Grease cap off',
      'Pack the bearings',
      'Back off until it turns freely',
      'To the slot that takes the pin',
      'New cotter in',
      'Wheel nuts, full torque',
    ]),
  );
  await expect(page.getByText('Nothing blocks the release of 1L.')).toBeVisible();
});

test('no slot gives the band: says so and what then; released only with a reason that stays and a date', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const jobId = await newJob(page, 'Harrow 90', 'farm-2', ['1L']);
  await recordTo(page, jobId, 'end-play');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await measure(page, [
    ['0', '0.0090'],
    ['0', '0.0091'],
    ['0', '0.0089'],
  ]);
  await expect(page.getByRole('heading', { name: 'No lock position is in band' })).toBeVisible();
  await expect(page.getByText(/the bearings are worn: stop and inspect/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Skip this step' }).click();
  await page.getByLabel('Why it is skipped').fill('Coarse slots');
  await page.getByRole('button', { name: 'Skip it' }).click();
  await workUntil(page, 'Release 1L');
  await expect(page.getByText('Not fit for release:')).toBeVisible();
  const grave = page.getByRole('button', { name: 'Release 1L in spite of this' });
  await expect(grave).toBeDisabled();
  await page.getByLabel(/Your reason/).fill('ok');
  await grave.click();
  await expect(page.getByText(/Give the reason in a sentence/)).toBeVisible();
  await page.getByLabel(/Your reason/).fill('Spins freely, looked at again next week');
  await grave.click();
  await expect(page.getByText(/In spite of: End play is loose/)).toBeVisible();
  await page.reload();
  await expect(page.getByText('Reason: Spins freely, looked at again next week')).toBeVisible();
  await expect(page.getByText('Temporary repair').first()).toBeVisible();
});

test('two people on one step: the second is told what changed, nothing is doubled', async ({ browser }) => {
  const first = await signedIn(browser, 'D. Achterberg');
  const second = await signedIn(browser, 'M. Pellow');
  const jobId = await newJob(first, 'Beacon 90', 'tractor-2', ['2L']);
  await first.goto(`${shopUrl()}/jobs/${jobId}`);
  await second.goto(`${shopUrl()}/jobs/${jobId}`);
  await recordTo(first, jobId, 'rock');
  await expect(second.getByRole('heading', { name: 'Rock the wheel' })).toBeVisible();
  await expect(first.getByRole('heading', { name: 'Rock the wheel' })).toBeVisible();
  const before = (await fetchJob(first, jobId)).version;
  // The second browser hears nothing of the first until it sends: as on a bad network.
  await second.context().setOffline(true);
  await second.getByRole('button', { name: 'Nothing moves' }).click();
  await expect(second.getByText(/1 record waits on this device/)).toBeVisible();
  await doStep(first, 'Rock the wheel', 'key');
  await expect(first.getByRole('heading', { name: 'Rims and tyres' })).toBeVisible();
  expect((await fetchJob(first, jobId)).version).toBe(before + 1);
  await second.context().setOffline(false);
  await expect(second.getByText(/D\. Achterberg was first: 2L, Rock the wheel: nothing moves/)).toBeVisible({
    timeout: 15_000,
  });
  await expect(second.getByRole('heading', { name: 'Rims and tyres' })).toBeVisible();
  expect((await fetchJob(first, jobId)).version).toBe(before + 1);
});

test('readings and photos queue while the network is gone, survive a reload and are sent once', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'J. Brennock');
  const jobId = await newJob(page, 'Beacon 91', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'as-found');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await expect(page.getByRole('heading', { name: 'End play as found' })).toBeVisible();
  await page.context().route('**/events', (route) => route.abort());
  await measure(page, inBand);
  await expect(page.getByText(/3 records wait on this device/)).toBeVisible();
  await page.context().route('**/photos', (route) => route.abort());
  await page.getByText('Add a photo').click();
  await page.getByLabel('What it shows').fill('As it came in');
  const picture = { name: 'hub.png', mimeType: 'image/png', buffer: await page.screenshot() };
  await page.getByLabel('Take or choose a photo').setInputFiles(picture);
  await expect(page.getByText(/4 records wait on this device/)).toBeVisible();
  await page.reload();
  await expect(page.getByText('End play, mean of 3')).toBeVisible();
  await page.context().unroute('**/events');
  await page.context().unroute('**/photos');
  const readings = async () => {
    const job = (await (await page.request.get(`${shopUrl()}/api/jobs/${jobId}`)).json()) as {
      events: { body: { kind: string } }[];
    };
    return job.events.filter((e) => e.body.kind === 'reading-taken').length;
  };
  await expect.poll(readings, { timeout: 15_000 }).toBe(3);
  await expect(page.getByText(/records wait/)).toBeHidden();
  await expect(page.getByRole('img', { name: 'As it came in' })).toHaveCount(1);
  await page.reload();
  await expect(page.getByRole('img', { name: 'As it came in' })).toHaveCount(1);
  await expect(page.getByText('End play, mean of 3')).toBeVisible();
  expect(await readings()).toBe(3);
});

test('cycles are pasted from a gauge, all lines or none; a slip is corrected or struck out with a reason', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'I. Okonedo', {
    permissions: ['clipboard-read', 'clipboard-write'],
  });
  const jobId = await newJob(page, 'Beacon 92', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'as-found');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const paste = async (text: string) => {
    await page.evaluate((t) => navigator.clipboard.writeText(t), text);
    await page.getByLabel(/^Pushed in/).focus();
    await page.keyboard.press('Control+V');
  };
  await paste('0.0000\t0.0031\nrubbish\n0.0001\t0.0033');
  await expect(
    page.getByText(/Line 2, “rubbish”, is not a push and a pull\. Nothing of it was recorded/),
  ).toBeVisible();
  await paste('0.0000\t0.0031\n0.0001\t0.0033\n0.0000\t0.0301');
  await expect(page.getByText('The cycles do not repeat')).toBeVisible();
  await page.getByRole('button', { name: 'Correct', exact: true }).nth(1).click();
  await page.getByLabel('Should be pulled out').fill('0.0032');
  await page.getByRole('button', { name: 'Correct this cycle' }).click();
  await expect(page.getByText('Enter a reason')).toBeVisible();
  await page.getByLabel('Why it is wrong').fill('read again');
  await page.getByRole('button', { name: 'Correct this cycle' }).click();
  await expect(page.getByText('0.0031', { exact: true })).toHaveCount(2);
  await page.getByRole('button', { name: 'Correct', exact: true }).nth(2).click();
  await page.getByLabel('Why it is wrong').fill('slipped a digit');
  await page.getByRole('button', { name: 'Strike out this cycle' }).click();
  await expect(page.getByText('1 more cycle')).toBeVisible();
  await page.getByLabel(/^Pushed in/).fill('90 mm');
  await page.keyboard.press('Enter');
  await page.getByLabel(/^Pulled out/).fill('0');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText(/not possible|between/);
});

test('the pages pass axe, by day and by night', async ({ browser }) => {
  test.setTimeout(300_000);
  for (const colorScheme of ['light', 'dark'] as const) {
    const page = await signedIn(browser, 'I. Okonedo', { colorScheme });
    const jobId = await newJob(page, `Beacon ${colorScheme}`, 'tractor-2', ['2L', '2R']);
    const everywhere = ['/fleet?kind=van', '/jobs', `/jobs/${jobId}`];
    const byDay = ['/fleet/new', '/fleet/import', '/fleet/tools', '/people'];
    for (const path of colorScheme === 'light' ? [...everywhere, ...byDay] : everywhere) {
      await page.goto(shopUrl() + path);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await axe(page, `${path} ${colorScheme}`);
    }
  }
});

test('two tabs share what waits on the device, and each record is sent once', async ({ browser }) => {
  const left = await signedIn(browser, 'J. Brennock');
  const jobId = await newJob(left, 'Beacon 95', 'tractor-2', ['2L', '2R']);
  const right = await left.context().newPage();
  await left.goto(`${shopUrl()}/jobs/${jobId}?at=2L`);
  await right.goto(`${shopUrl()}/jobs/${jobId}?at=2R`);
  await left.context().route('**/events', (route) => route.abort());
  for (const page of [left, right]) {
    await doStep(page, 'Tools, parts and lubricant at hand', 'key');
    await expect(page.getByRole('heading', { name: 'Level ground, chocks' })).toBeVisible();
  }
  for (const page of [left, right])
    await expect(page.getByText(/2 records wait on this device/)).toBeVisible();
  // The tab that recorded it is closed: the other one sends it.
  await left.close();
  await right.context().unroute('**/events');
  await expect.poll(async () => (await fetchJob(right, jobId)).version, { timeout: 15_000 }).toBe(3);
  await expect(right.getByText(/waits? on this device/)).toBeHidden();
});
