import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumLaunch } from './chromium.mjs';
import { root } from '../scripts/lib/run.mjs';

/** Takes the pictures of docs/screenshots from a running demo shop: SHOP_URL, or port 8080. Records on Tern 418. */
const shop = process.env['SHOP_URL'] ?? 'http://127.0.0.1:8080';
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });

const browser = await chromium.launch(chromiumLaunch);

/** @param {'light' | 'dark'} [colorScheme] */
async function signedIn(colorScheme = 'light') {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme,
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  await page.goto(shop);
  await page.getByRole('button', { name: /Okonedo/ }).waitFor();
  return page;
}

/** @param {import('@playwright/test').Page} page @param {string} name */
async function picture(page, name) {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(folder, `${name}.png`) });
}

/** @param {import('@playwright/test').Page} page @param {string} unit */
async function openJobOf(page, unit) {
  await page.goto(`${shop}/jobs`);
  await page.getByRole('link', { name: new RegExp(unit) }).click();
  await page.getByRole('heading', { level: 2 }).first().waitFor();
}

/** @param {import('@playwright/test').Page} page @param {string[]} pulls */
async function measure(page, pulls) {
  for (const pull of pulls) {
    await page.getByLabel(/^Pushed in/).fill('0');
    await page.keyboard.press('Enter');
    await page.getByLabel(/^Pulled out/).fill(pull);
    await page.keyboard.press('Enter');
    await page.waitForTimeout(300);
  }
}

const page = await signedIn();
await picture(page, 'sign-in');
await page.getByRole('button', { name: /Okonedo/ }).click();
await page.getByRole('heading', { name: 'Fleet' }).waitFor();
await picture(page, 'fleet');
await page.getByRole('link', { name: /Tern 418/ }).click();
await page.getByRole('heading', { name: 'Tern 418' }).waitFor();
await picture(page, 'unit');
await page.goto(`${shop}/fleet/sheets/a-steer-double`);
await page.getByRole('heading', { level: 1 }).waitFor();
await picture(page, 'sheet');
await page.goto(`${shop}/fleet/tools`);
await page.getByText('TW-01').waitFor();
await picture(page, 'tools');
for (const name of ['nut-setting', 'seal-seat', 'setting-life', 'shop-plan', 'tightening-sequence']) {
  await page.goto(`${shop}/reckoner/${name}`);
  await page.getByRole('button', { name: 'Copy the result' }).waitFor();
  await picture(page, `reckoner-${name}`);
}
await page.goto(`${shop}/jobs`);
await page.getByRole('heading', { name: 'Jobs' }).waitFor();
await picture(page, 'jobs');
await openJobOf(page, 'Hollow 64');
await picture(page, 'job-adjust');
await openJobOf(page, 'Tern 418');
await measure(page, ['0.0085', '0.0081', '0.0083']);
await picture(page, 'job-verify-loose');
await page.getByRole('button', { name: '2R', exact: true }).click();
await measure(page, ['0.0031', '0.0033', '0.0032']);
await picture(page, 'job-verify-in-band');

await page.goto(`${shop}/fleet`);
await page.getByRole('link', { name: /Tern 402/ }).click();
await page.getByRole('button', { name: 'Open a job' }).click();
for (const position of ['1L', '1R']) await page.getByRole('checkbox', { name: position }).check();
await page.getByText('Movement felt by hand').click();
await page.getByLabel('What was noticed').fill('Movement felt at 12 and 6');
await page.getByRole('button', { name: 'Open the job on 1L, 1R' }).click();
await page.getByRole('button', { name: 'Moves at 12 and 6' }).click();
await page.getByLabel(/^Axle to knuckle/).fill('0.0012');
await page.getByLabel(/^Knuckle to hub/).fill('0.0120');
await picture(page, 'job-diagnose');
await page.getByRole('button', { name: 'Record the movement' }).click();
await page.getByRole('button', { name: 'Leave this one out' }).click();
await page.getByRole('button', { name: 'Everything is at hand' }).click();
await page.getByRole('button', { name: 'Ready', exact: true }).click();
await page.getByRole('button', { name: 'Done', exact: true }).click();
await page.getByRole('button', { name: 'Nothing looked wrong' }).click();
await page.getByRole('button', { name: 'Every part is sound' }).click();
await page.getByRole('radio', { name: /^Bent, cracked/ }).check();
await page.getByRole('radio', { name: /^A small step/ }).check();
await page.mouse.move(600, 400);
await page.mouse.wheel(0, -5000);
await picture(page, 'job-inspect');
await openJobOf(page, 'Sluice 3');
for (const name of [
  'Everything is at hand',
  'Ready',
  'Done',
  'Nothing looked wrong',
  'Every part is sound',
  'Record what was found',
  'Every new part is as the old',
  'Yes',
  /^Bearings (packed|oiled)/,
])
  await page.getByRole('region', { name: 'Step at hand' }).getByRole('button', { name, exact: true }).click();
await page.getByText('mm', { exact: true }).first().click();
await page.getByLabel('Outside dry').check();
await page.getByLabel('Set to a measured depth').check();
await page.getByLabel(/^Sound journal/).fill('3');
await page.getByLabel('to', { exact: true }).first().fill('18');
await page.getByLabel(/^Old groove/).fill('10.5');
await page.getByLabel('to', { exact: true }).last().fill('11.5');
await page.getByLabel(/^Main lip/).fill('8');
await page.getByLabel(/^Dust lip/).fill('3');
await page.getByLabel(/^Deepest/).fill('9');
await page.getByLabel('Seal set at').fill('5.5');
await picture(page, 'job-seal');
await page.getByText('thou', { exact: true }).first().click();
await openJobOf(page, 'Drift 11');
await page.setViewportSize({ width: 1024, height: 768 });
await page.getByRole('button', { name: 'Bay view' }).click();
await picture(page, 'bay-view');

const night = await signedIn('dark');
await night.getByRole('button', { name: /Okonedo/ }).click();
await night.getByRole('heading', { name: 'Fleet' }).waitFor();
await openJobOf(night, 'Tern 418');
await picture(night, 'night-shift');
await browser.close();
