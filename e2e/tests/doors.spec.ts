import { expect, type Browser, type Page } from '@playwright/test';
import { doStep, inBand, measure, newJob, shopUrl, signedIn, test } from '../helpers/shop.ts';
import { fetchJob, recordTo, recordWhile } from '../helpers/work-through.ts';

/** A tablet that has the program and what it needs for a day on itself. */
async function tablet(browser: Browser, person: string, jobId: string): Promise<Page> {
  const page = await signedIn(browser, person, { serviceWorkers: 'allow' });
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.evaluate(() => navigator.serviceWorker.ready);
  // The copy of this job is there: it is fetched again once the page stands.
  await expect
    .poll(
      () =>
        page.evaluate(async (url) => {
          const names = (await indexedDB.databases()).map((d) => d.name);
          if (!names.includes('lanternwright-copies')) return false;
          const db = await new Promise<IDBDatabase>((resolve, reject) => {
            const asked = indexedDB.open('lanternwright-copies');
            asked.onsuccess = () => resolve(asked.result);
            asked.onerror = () => reject(asked.error!);
          });
          const keys = await new Promise<IDBValidKey[]>((resolve, reject) => {
            const asked = db.transaction('copies').objectStore('copies').getAllKeys();
            asked.onsuccess = () => resolve(asked.result);
            asked.onerror = () => reject(asked.error!);
          });
          db.close();
          return keys.includes(url) && keys.includes('api/tools') && keys.includes('api/people/session');
        }, `api/jobs/${jobId}`),
      { timeout: 20_000 },
    )
    .toBe(true);
  return page;
}

const doneIn = async (page: Page, jobId: string) =>
  (await fetchJob(page, jobId)).events.map((e) => `${e.by.name} ${e.body.kind}`);

test('two tablets without a network open, reload and work; what does not fit is settled on one screen', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const office = await signedIn(browser, 'I. Okonedo');
  const jobId = await newJob(office, 'Beacon 96', 'tractor-2', ['2L', '2R']);
  for (const side of ['2L', '2R']) await recordWhile(office, jobId, (step) => step.id !== 'rock', side);
  const before = (await fetchJob(office, jobId)).version;
  const first = await tablet(browser, 'D. Achterberg', jobId);
  const second = await tablet(browser, 'M. Pellow', jobId);

  await first.context().setOffline(true);
  await second.context().setOffline(true);
  await first.goto(`${shopUrl()}/jobs/${jobId}?at=2L`);
  await second.goto(`${shopUrl()}/jobs/${jobId}?at=2R`);
  await expect(first.getByText(/No network\. This is what the device had/)).toBeVisible();

  // One works on its own wheel end, through a reload and in a second tab; the other does both.
  await doStep(first, 'Rock the wheel', 'key');
  await first.reload();
  await expect(first.getByRole('heading', { name: 'Rims and tyres' })).toBeVisible();
  const tab = await first.context().newPage();
  await tab.goto(`${shopUrl()}/jobs/${jobId}?at=2L`);
  await doStep(tab, 'Rims and tyres', 'key');
  await expect(first.getByRole('heading', { name: 'Rims and tyres' })).toBeHidden();
  await doStep(second, 'Rock the wheel', 'key');
  await second.goto(`${shopUrl()}/jobs/${jobId}?at=2L`);
  await doStep(second, 'Rock the wheel', 'key');
  await doStep(second, 'Rims and tyres', 'key');
  await second.goto(`${shopUrl()}/waiting`);
  await expect(second.getByText(/M\. Pellow: 2R, Rock the wheel/)).toBeVisible();
  expect((await fetchJob(office, jobId)).version).toBe(before);

  // The network is back: the first arrives whole, in order, as who made it and when.
  await first.context().setOffline(false);
  await expect
    .poll(async () => (await doneIn(office, jobId)).slice(before), { timeout: 20_000 })
    .toEqual(['D. Achterberg step-recorded', 'D. Achterberg step-recorded']);
  await second.context().setOffline(false);
  const conflict = second.getByRole('region', { name: /Beacon 96/ });
  await expect(conflict.getByText(/What you sent was not recorded/)).toBeVisible({ timeout: 20_000 });
  await expect(conflict.getByText('Recorded on this device')).toBeVisible();
  await expect(conflict.getByText(/M\. Pellow: 2L, Rims and tyres/)).toBeVisible();
  await expect(conflict.getByText(/D\. Achterberg: 2L, Rims and tyres/)).toBeVisible();
  // It outlives a reload, and goes only when somebody says so.
  await second.reload();
  await expect(conflict).toBeVisible();
  await conflict.getByRole('button', { name: 'What stands is right' }).click();
  await conflict.getByRole('button', { name: 'Put it away' }).click();
  await expect(second.getByText(/Everything recorded on this device has been sent/)).toBeVisible();
  expect((await doneIn(office, jobId)).slice(before)).toEqual([
    'D. Achterberg step-recorded',
    'D. Achterberg step-recorded',
    'M. Pellow step-recorded',
  ]);
});

test('the copy for a day without a network is fetched again when the network went in the midst of it', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'D. Achterberg');
  const jobId = await newJob(page, 'Beacon 98', 'tractor-2', ['2L']);
  let refused = 0;
  await page.route('**/assets/fetch-for-offline-*.js', async (route) => {
    refused += 1;
    await (refused === 1 ? route.abort() : route.continue());
  });
  const copied = page.waitForRequest((request) => request.url().endsWith(`/api/jobs/${jobId}`), {
    timeout: 20_000,
  });
  await page.goto(`${shopUrl()}/jobs`);
  await copied;
  expect(refused).toBeGreaterThan(1);
});

test('a page whose file did not come opens by itself when the network is back', async ({ browser }) => {
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/jobs`);
  const isAway = { now: true };
  await page.route('**/assets/stores-page-*.js', (route) => (isAway.now ? route.abort() : route.continue()));
  await page.getByRole('link', { name: 'Stores' }).click();
  await expect(page.getByText('No network. What you asked for opens as soon as there is one.')).toBeVisible();
  isAway.now = false;
  await expect(page).toHaveURL(/stores/);
  await expect(page.getByText('No network. What you asked for opens as soon as there is one.')).toBeHidden();
});

test('a page whose file is gone with its version says so, and keeps what is typed until it is loaded again', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/fleet`);
  const search = page.getByRole('searchbox').first();
  await search.fill('Tern');
  await page.route('**/assets/stores-page-*.js', (route) => route.fulfill({ status: 404, body: '' }));
  await page.getByRole('link', { name: 'Stores' }).click();
  await expect(page.getByText(/Lanternwright was updated/)).toBeVisible();
  await expect(search).toHaveValue('Tern');
  await page.unroute('**/assets/stores-page-*.js');
  await page.getByRole('button', { name: 'Use it now' }).click();
  await expect(page.getByText(/Lanternwright was updated/)).toBeHidden();
  await page.getByRole('link', { name: 'Stores' }).click();
  await expect(page).toHaveURL(/stores/);
});

test('one person hands over to another: what waits of the first goes as the first', async ({ browser }) => {
  const page = await signedIn(browser, 'J. Brennock');
  const jobId = await newJob(page, 'Beacon 97', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'as-found');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.context().route('**/events', (route) => route.abort());
  await measure(page, inBand);
  await expect(page.getByText(/3 records wait on this device/)).toBeVisible();
  const change = async (name: RegExp) => {
    await page.getByRole('button', { name: /J\. Brennock|S\. Varga/ }).click();
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name }).click();
  };
  await change(/S\. Varga/);
  await expect(page.getByText(/3 records wait on this device that J\. Brennock made/)).toBeVisible();
  await page.context().unroute('**/events');
  await page.goto(`${shopUrl()}/waiting`);
  await expect(page.getByText(/J\. Brennock: 2L/).first()).toBeVisible();
  expect((await fetchJob(page, jobId)).events.filter((e) => e.body.kind === 'reading-taken')).toEqual([]);
  await change(/J\. Brennock/);
  await expect
    .poll(
      async () =>
        (await fetchJob(page, jobId)).events
          .filter((e) => e.body.kind === 'reading-taken')
          .map((e) => e.by.name),
      { timeout: 15_000 },
    )
    .toEqual(['J. Brennock', 'J. Brennock', 'J. Brennock']);
});

test('an owner answers an estimate on a phone, line by line, and the work goes by it', async ({
  browser,
}) => {
  const office = await signedIn(browser, 'I. Okonedo');
  const { layouts } = await import('@lanternwright/core/axle-plan');
  const added = await office.request.post(`${shopUrl()}/api/fleet/units`, {
    data: {
      owner: 'Tern & Hollow Haulage',
      name: `Beacon 98${test.info().retry || ''}`,
      kind: 'tractor',
      axles: layouts.find((l) => l.id === 'tractor-2')!.axles,
    },
  });
  const { id: unitId } = (await added.json()) as { id: string };
  const opened = await office.request.post(`${shopUrl()}/api/jobs`, {
    data: {
      unitId,
      title: 'Seals and bearings',
      complaint: '',
      reportedBy: '',
      meter: {},
      wheelEnds: [{ position: '2L', works: ['seal', 'bearings'] }],
    },
  });
  const { id: jobId } = (await opened.json()) as { id: string };
  await office.goto(`${shopUrl()}/jobs/${jobId}`);
  // The estimate begins with the planned hours at the shop's rate, and the parts at their price.
  await office.getByRole('button', { name: 'Estimate and bill' }).click();
  await office.getByRole('button', { name: 'Write the estimate' }).click();
  await expect(office.getByLabel('Each').first()).toHaveValue('78.00');
  for (const each of await office.getByLabel('Each').all())
    if ((await each.inputValue()) === '') await each.fill('10');
  await office.getByRole('button', { name: 'Save the estimate' }).click();
  const whole = await office.getByRole('region', { name: 'Estimate' }).getByRole('row').last().innerText();
  const total = /[\d.,]+ GBP/.exec(whole)![0];

  const phone = await signedIn(browser, 'E. Tern', { viewport: { width: 390, height: 844 }, hasTouch: true });
  await phone.goto(shopUrl());
  await expect(phone).toHaveURL(/\/overview$/);
  const asks = phone.getByRole('region', { name: 'Waiting for your answer' });
  const asked = asks.getByRole('link', { name: /Beacon 98/ });
  await expect(asked).toContainText(total);
  await asked.tap();
  const approved = phone.getByRole('status');
  await expect(approved).toHaveText(`You approve 0.00 GBP of ${total}`);
  const line = (name: RegExp) => phone.getByRole('group', { name });
  await line(/2L: .*seal/i)
    .getByText('Do it now')
    .tap();
  await phone.getByRole('button', { name: 'Give this answer' }).tap();
  await expect(phone.getByText(/Not answered yet: 2L: .*bearing/i)).toBeVisible();
  await line(/2L: .*bearing/i)
    .getByText('Decline it')
    .tap();
  await expect(approved).toHaveText(/^You approve [1-9]/);
  await expect(approved).not.toHaveText(`You approve ${total} of ${total}`);
  await phone.getByLabel(/^Message to the shop/).fill('Keep the old seal for me');
  await phone.getByRole('button', { name: 'Give this answer' }).tap();
  await expect(phone.getByText(/E\. Tern: do it now/)).toBeVisible();
  await expect(office.getByText(/“Keep the old seal for me”/).first()).toBeVisible();

  // In the shop it is on record as theirs, and the declined work is off the route.
  await expect
    .poll(async () => {
      const job = await fetchJob(office, jobId);
      const { plan } = job.wheelEnds[0]!;
      return [job.money.answer?.by.role, plan.works];
    })
    .toEqual(['owner-contact', ['seal']]);
  // They reach nothing of another owner, by any address.
  const mine = await phone.request.get(`${shopUrl()}/api/jobs`);
  const theirs = await office.request.get(`${shopUrl()}/api/jobs`);
  const ids = async (r: typeof mine) =>
    (await r.json()) as { id: string; unit: { owner: { name: string } } }[];
  expect(new Set((await ids(mine)).map((j) => j.unit.owner.name))).toEqual(
    new Set(['Tern & Hollow Haulage']),
  );
  const other = (await ids(theirs)).find((j) => j.unit.owner.name !== 'Tern & Hollow Haulage')!;
  await phone.goto(`${shopUrl()}/jobs/${other.id}`);
  await expect(phone.getByText('There is no such job')).toBeVisible();
  // What is the shop's own is not there at all.
  for (const place of ['settings', 'people', 'stores', 'plan', 'floor', 'fleet/tools']) {
    await phone.goto(`${shopUrl()}/${place}`);
    await expect(phone.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  }
});

test('a person is added, chooses a password, and is switched off while working', async ({ browser }) => {
  const office = await signedIn(browser, 'R. Thistlewood');
  await office.goto(`${shopUrl()}/people`);
  const login = `new${Date.now()}`;
  await office.getByLabel('Name', { exact: true }).fill('N. Comer');
  await office.getByLabel('User name').fill(login);
  await office.getByRole('button', { name: 'Add N. Comer' }).click();
  await expect(office.getByText('Choose what they do here')).toBeVisible();
  await office.getByLabel('Role').selectOption('technician');
  await office.getByRole('button', { name: 'Add N. Comer' }).click();
  const card = office.getByRole('region', { name: 'Code of N. Comer' });
  const code = /\d{4}-\d{4}/.exec(await card.innerText())![0];

  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(shopUrl());
  await page.getByText('I have a code').click();
  const form = page.locator('details[open]');
  await form.getByLabel('User name').fill(login);
  await form.getByLabel('Code').fill(code);
  await form.getByLabel('New password').fill('password12');
  await form.getByRole('button', { name: /Keep this password/ }).click();
  await expect(form.getByText(/too easy to guess/)).toBeVisible();
  await form.getByLabel('New password').fill('four wet bearings');
  await form.getByRole('button', { name: /Keep this password/ }).click();
  await expect(page.getByRole('heading', { name: /, .* bays?$/, level: 1 })).toBeVisible();
  await page.goto(`${shopUrl()}/jobs`);
  await expect(page.getByRole('heading', { name: 'Jobs', level: 1 })).toBeVisible();

  const row = office.getByRole('listitem').filter({ hasText: login });
  await row.getByRole('button', { name: 'Switch off' }).click();
  await row.getByRole('button', { name: 'Switch N. Comer off' }).click();
  await expect(row.getByText(/switched off/)).toBeVisible();
  // Without a touch of theirs: the stream ends, and the door is shown.
  await expect(page.getByRole('heading', { name: 'Who are you today' })).toBeVisible({ timeout: 15_000 });
});
