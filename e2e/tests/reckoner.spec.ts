import { axe } from '../helpers/axe.ts';
import { expect } from '@playwright/test';
import { browserOf, shopUrl, signedIn, test } from '../helpers/shop.ts';

test('a sum is live as one types, remembered, and travels by its address', async ({ browser }) => {
  const page = await browserOf(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/jobs`);
  await expect(page.getByRole('heading', { name: 'Jobs', level: 1 })).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: 'Nut setting', level: 1 })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Tighten 1/16 turn, to 0.0044 in' })).toBeVisible();
  await page.getByLabel('Measured, in').fill('0.0005');
  await expect(page.getByRole('heading', { name: 'Back off 1/16 turn, to 0.0044 in' })).toBeVisible();
  await page.keyboard.press('Escape');
  const address = page.url();
  await page.getByRole('link', { name: 'End play', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Loose by 0.0033' })).toBeVisible();
  await page.getByRole('link', { name: 'Nut setting' }).click();
  await expect(page.getByLabel('Measured, in')).toHaveValue('0.0005');
  const other = await signedIn(browser, 'M. Pellow');
  await other.goto(address);
  await expect(other.getByRole('heading', { name: 'Back off 1/16 turn, to 0.0044 in' })).toBeVisible();
});

test('a result goes into the record of an open job, with its input', async ({ browser }) => {
  const page = await signedIn(browser, 'D. Achterberg');
  await page.goto(`${shopUrl()}/jobs`);
  await page
    .getByRole('link', { name: /Tern 418/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Torque setting' }).click();
  await expect(page.getByRole('heading', { name: 'Set 500 lbf·ft' })).toBeVisible();
  await page.getByLabel('Note, if any').fill('No adapter on this one');
  await page.getByRole('button', { name: 'Put it into the record of 2L' }).click();
  await page.getByRole('link', { name: 'Open the job' }).click();
  const holds = page.getByRole('complementary', { name: 'What holds' });
  await expect(holds.getByText('No adapter on this one')).toBeVisible();
  await expect(holds.getByText(/setting 500 lbf·ft/)).toBeVisible();
});

test('bad input is named at its field and nothing is lost; long sums run off the page’s thread', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'D. Achterberg');
  await page.goto(`${shopUrl()}/reckoner/seal-speed`);
  await page.getByLabel('Rolling circumference, in').fill('0.1');
  await expect(page.getByRole('alert')).toContainText('rollingCircumferenceMm');
  await expect(page.getByLabel('Rolling circumference, in')).toHaveValue('0.1');
  await page.goto(`${shopUrl()}/reckoner/shop-plan`);
  await expect(page.getByRole('heading', { name: /in time|late/ })).toBeVisible();
  await page.goto(`${shopUrl()}/reckoner/setting-life`);
  await expect(page.getByText('It is never a reason to change a band.')).toBeVisible();
});

test('every sum shows its example without a fault, and the drawn ones pass axe', async ({ browser }) => {
  test.setTimeout(240_000);
  const page = await signedIn(browser, 'I. Okonedo');
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  page.on('console', (message) => message.type() === 'error' && faults.push(message.text()));
  const sums = (await (await page.request.get(`${shopUrl()}/api/reckon`)).json()) as {
    name: string;
    title: string;
  }[];
  await page.goto(`${shopUrl()}/reckoner`);
  const list = page.getByRole('navigation', { name: 'Calculations' });
  for (const { title } of sums) {
    await list.getByRole('link', { name: title, exact: true }).click();
    await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Copy the result' })).toBeVisible();
  }
  for (const name of ['nut-setting', 'shop-plan', 'due']) {
    await page.goto(`${shopUrl()}/reckoner/${name}`);
    await expect(page.getByRole('button', { name: 'Copy the result' })).toBeVisible();
    await axe(page, name, 'main');
  }
  expect(faults).toEqual([]);
});

test('the HTTP door gives the command line’s answers and errors to whoever is signed in', async ({
  browser,
  request,
}) => {
  const page = await signedIn(browser, 'L. Osei');
  const post = (name: string, data: unknown) =>
    page.request.post(`${shopUrl()}/api/reckon/${name}`, { data });
  expect((await request.post(`${shopUrl()}/api/reckon/nut-travel`, { data: {} })).status()).toBe(401);
  expect(await (await post('nut-travel', { thread: { pitchMm: 1.5 }, turns: 2 })).json()).toEqual({
    travelMm: 3,
  });
  const bad = await post('nut-travel', { thread: { pitchMm: -1 }, turns: 2 });
  expect(bad.status()).toBe(422);
  expect(await bad.json()).toMatchObject({ error: { issues: [{ path: 'thread.pitchMm' }] } });
  expect((await post('astrology', {})).status()).toBe(404);
});
