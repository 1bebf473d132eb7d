import { expect, type Page } from '@playwright/test';
import { layouts } from '@lanternwright/core/axle-plan';
import { addUnit, browserOf, newJob, shopUrl, signedIn, test } from '../helpers/shop.ts';

const lane = (page: Page, bay: string) =>
  page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: bay, exact: true }) });

async function say(page: Page, label: string, value: string): Promise<void> {
  await page.getByRole('dialog').getByLabel(label).fill(value);
}

test('a morning: a unit goes into a bay, everybody sees it, a clash is told in words, it leaves again', async ({
  browser,
}) => {
  const supervisor = await browserOf(browser, 'I. Okonedo');
  const technician = await browserOf(browser, 'D. Achterberg');
  const job = await newJob(supervisor, 'Beacon 81', 'tractor-2', ['1L']);
  for (const page of [supervisor, technician]) {
    await page.goto(`${shopUrl()}/floor`);
    await expect(lane(page, 'Yard').getByText('Free')).toBeVisible();
  }
  await lane(supervisor, 'Yard').getByRole('button', { name: 'Assign a unit' }).click();
  await supervisor.getByRole('button', { name: 'Beacon 81' }).click();
  const today = new Date().toISOString().slice(0, 10);
  await say(supervisor, 'From, day', today);
  await say(supervisor, 'From, time', '00:00');
  await say(supervisor, 'Until, day', '2099-01-01');
  await say(supervisor, 'Until, time', '12:00');
  await supervisor.getByRole('button', { name: 'Book Beacon 81' }).click();
  await expect(supervisor.getByText('A booking is for 60 days at most')).toBeVisible();
  const week = new Date(Date.now() + 7 * 86_400_000).toISOString().slice(0, 10);
  await say(supervisor, 'Until, day', week);
  await supervisor.getByRole('button', { name: 'Book Beacon 81' }).click();
  await expect(supervisor.getByRole('dialog')).toBeHidden();
  // Nobody loads a page again.
  await expect(lane(technician, 'Yard').getByText(/^Expected since/)).toBeVisible();
  await lane(technician, 'Yard').getByRole('button', { name: 'It is here' }).click();
  for (const page of [supervisor, technician])
    await expect(lane(page, 'Yard').getByText(/^since/)).toBeVisible();
  await lane(technician, 'Yard').getByText('Beacon 81').click();
  await expect(technician).toHaveURL(new RegExp(`/jobs/${job}`));

  await lane(supervisor, 'Yard').getByRole('button', { name: 'Move' }).click();
  await supervisor.getByRole('dialog').getByLabel('Bay').selectOption('Bay 1');
  await supervisor.getByRole('button', { name: 'Move it' }).click();
  await expect(supervisor.getByText(/^Bay 1 has .* from .* to /).first()).toBeVisible();
  await supervisor.getByRole('button', { name: 'Cancel' }).click();

  await technician.goto(`${shopUrl()}/floor`);
  await lane(technician, 'Yard').getByRole('button', { name: 'Unit has left Yard' }).click();
  await expect(lane(supervisor, 'Yard').getByText('Free')).toBeVisible();
});

test('who does not come is booked again, comes, and gets the job it was booked for', async ({ browser }) => {
  const page = await browserOf(browser, 'I. Okonedo');
  const unitId = await addUnit(page, 'Beacon 83', layouts.find((l) => l.id === 'tractor-2')!.axles);
  const hour = (h: number) => new Date(Date.now() + h * 3_600_000).toISOString();
  const booked = await page.request.post(`${shopUrl()}/api/plan/bookings`, {
    data: {
      ...{ unitId, jobId: null, bayId: 'bay-4', people: [], note: '', from: hour(-40), until: hour(-39) },
      works: ['2L', '2R'].map((position) => ({ position, work: 'seal' })),
    },
  });
  expect(booked.ok(), await booked.text()).toBe(true);
  await page.goto(`${shopUrl()}/floor`);
  const bay = lane(page, 'Bay 4');
  await expect(
    bay.getByRole('link', { name: /Beacon 83.*Expected since.*Renew seals 2L, 2R/ }),
  ).toBeVisible();
  await bay.getByRole('button', { name: 'It did not come' }).click();
  const decide = page.getByRole('region', { name: 'Decide' });
  const missed = decide.getByRole('listitem').filter({ hasText: 'Did not come: Beacon 83' });
  await missed.getByRole('button', { name: 'Book again' }).click();
  await page.getByRole('dialog').getByLabel('Bay').selectOption('Bay 4');
  const [from, until] = [hour(-1), hour(1)];
  await say(page, 'From, day', from.slice(0, 10));
  await say(page, 'From, time', from.slice(11, 16));
  await say(page, 'Until, day', until.slice(0, 10));
  await say(page, 'Until, time', until.slice(11, 16));
  await page.getByRole('button', { name: 'Book Beacon 83' }).click();
  await expect(missed).toBeHidden();
  await bay.getByRole('button', { name: 'It is here' }).click();
  await bay.getByRole('link', { name: 'Open the job' }).click();
  const open = page.getByRole('button', { name: 'Open the job on 2L, 2R' });
  await open.press('Enter');
  await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}/);
  await page.goto(`${shopUrl()}/floor/yard`);
  const row = page.getByRole('row', { name: /Beacon 83.*Bay 4/ });
  await expect(row.getByRole('link', { name: /Beacon 83/ })).toHaveAttribute('href', /^\/jobs\//);
  await page.goto(`${shopUrl()}/floor`);
  await bay.getByRole('button', { name: 'Unit has left Bay 4' }).click();
  await expect(bay.getByText(/^Free/)).toBeVisible();
});

test('a meter is swapped half way: the distance is counted on, and the wall says the rest without hands', async ({
  browser,
}) => {
  const page = await browserOf(browser, 'I. Okonedo');
  await newJob(page, 'Beacon 82', 'tractor-2', ['1L']);
  await page.goto(`${shopUrl()}/fleet`);
  await page.getByLabel('Search the fleet').fill('beacon 82');
  await page.getByRole('link', { name: /Beacon 82/ }).click();
  await page.getByRole('button', { name: 'Read the meters' }).click();
  const today = new Date().toISOString().slice(0, 10);
  await page.getByLabel('Day').fill(today);
  await page.getByLabel('Odometer, optional').fill('30 km');
  await page.getByRole('button', { name: 'Keep this reading' }).click();
  await expect(page.getByText(/read 81,100 km on .* already/)).toBeVisible();
  await page.getByRole('button', { name: 'Not now' }).click();
  await page.getByRole('button', { name: 'A meter was changed' }).click();
  await page.getByText('Odometer', { exact: true }).click();
  await page.getByText('Another one was put in').click();
  await page.getByLabel('Day').fill(today);
  await page.getByLabel('The old one read at its end').fill('81,110');
  await page.getByLabel('The new one began at').fill('0');
  await page.getByRole('button', { name: 'Count on from the new one' }).click();
  await page.getByRole('button', { name: 'Read the meters' }).click();
  await page.getByLabel('Day').fill(today);
  await page.getByLabel('Odometer, optional').fill('30 km');
  await page.getByRole('button', { name: 'Keep this reading' }).click();
  await expect(page.locator('h1 + p').getByText(/· 30 km/)).toBeVisible();
  await page.getByRole('button', { name: 'All readings' }).click();
  await expect(page.getByText(/Odometer changed .*: 81,110 to 0/)).toBeVisible();
  await expect(page.getByText('does not fit')).toHaveCount(0);

  await page.setViewportSize({ width: 1920, height: 1080 });
  await page.goto(`${shopUrl()}/floor?wall`);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveCSS('font-size', '54px');
  await expect(page.getByRole('button', { name: 'Assign a unit' })).toHaveCount(0);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1920);
});

test('a retorque is done where it is seen: on the Floor, with the wrench it was done with', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'D. Achterberg');
  const office = await signedIn(browser, 'I. Okonedo');
  for (const p of [page, office]) await p.goto(`${shopUrl()}/floor`);
  const followUp = (p: Page) => p.getByRole('region', { name: 'Follow up' });
  const row = followUp(page)
    .getByRole('listitem')
    .filter({ hasText: /^Retorque, / })
    .first();
  const said = (await row.getByRole('link').innerText()).split('\n')[0]!;
  const positions = said.match(/\d[LR]/g)!;
  await row.getByRole('button', { name: 'Do it' }).click();
  const dialog = page.getByRole('dialog');
  for (const position of positions) {
    const end = dialog.getByRole('region', { name: position });
    await end.getByRole('button', { name: `Record the retorque of ${position}` }).click();
    await expect(end.getByText(/torque|number|value/i).first()).toBeVisible();
    await expect(end.getByText('Retorqued,')).toHaveCount(0);
    const figure = /To ([\d.]+)/.exec(await end.getByText(/^To \d/).innerText())![1]!;
    await end.getByLabel('Reached').fill(`${figure} lbf-ft`);
    await end.getByRole('button', { name: /^TW-0/ }).first().click();
    await end.getByRole('button', { name: `Record the retorque of ${position}` }).click();
    await expect(end.getByText(/^Retorqued, .* by D\. Achterberg/)).toBeVisible();
  }
  await dialog.getByRole('button', { name: 'Close' }).click();
  // Gone for everybody, without a reload.
  for (const p of [page, office]) await expect(followUp(p).getByText(said)).toHaveCount(0);
});

test('the first screen does not grow: under 168 kB of JavaScript as it is sent', async ({ browser }) => {
  // Nothing is kept from an earlier page.
  const page = await signedIn(browser, 'I. Okonedo');
  // A morning on which everybody came, whatever other tests do meanwhile.
  await page.route('**/api/plan/floor', async (route) => {
    const answer = await route.fetch();
    const floor = (await answer.json()) as { bookings: { cameAt: string | null }[] };
    const bookings = floor.bookings.filter((b) => b.cameAt !== null);
    await route.fulfill({ response: answer, json: { ...floor, bookings, missed: [], apart: [] } });
  });
  await page.goto(`${shopUrl()}/floor`);
  await expect(page.getByRole('heading', { level: 1, name: /bays$/ })).toBeVisible();
  // Each file once: a busy machine asks its cache for some of them again.
  const sent = new Map(
    await page.evaluate(() =>
      (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
        .filter((e) => new URL(e.name).pathname.endsWith('.js'))
        .map((e) => [new URL(e.name).pathname, e.encodedBodySize] as const),
    ),
  );
  expect(sent.size).toBeGreaterThan(3);
  expect(Math.min(...sent.values())).toBeGreaterThan(0);
  const told = [...sent].map(([name, size]) => `${name} ${size}`).join('\n');
  expect(
    [...sent.values()].reduce((a, b) => a + b, 0),
    told,
  ).toBeLessThan(168_000);
});
