import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { test, type Browser, type Page } from '@playwright/test';
import { familySheet } from '@lanternwright/core/procedure';
import { stepAtHand, workUntil } from '../helpers/shop.ts';
import { root } from '../../scripts/lib/run.mjs';

const shop = process.env['SHOP_URL'] ?? 'http://127.0.0.1:8080';
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });

async function signedIn(browser: Browser, colorScheme: 'light' | 'dark' = 'light'): Promise<Page> {
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

async function picture(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(folder, `${name}.png`) });
}

async function openJobOf(page: Page, unit: string): Promise<void> {
  await page.goto(`${shop}/jobs`);
  await page
    .getByRole('link', { name: new RegExp(unit) })
    .first()
    .click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
  await page.getByRole('heading', { level: 2 }).first().waitFor();
}

async function measure(page: Page, pulls: readonly string[]): Promise<void> {
  for (const pull of pulls) {
    await page.getByLabel(/^Pushed in/).fill('0');
    await page.keyboard.press('Enter');
    await page.getByLabel(/^Pulled out/).fill(pull);
    await page.keyboard.press('Enter');
    await page.waitForTimeout(300);
  }
}

/** A 4×4 front axle of the drainage board, with work that goes all the way in. */
async function frontAxle(page: Page): Promise<void> {
  const axle = { role: 'steer', wheels: 'single', brake: 'disc', sheet: familySheet('h-lock-nuts') };
  const meter = { hours: { value: 4118, unit: 'h' } };
  const unit = {
    owner: 'Saltmarsh Drainage Board',
    name: 'Ridge 7',
    kind: 'work-machine',
    axles: [axle],
    meter,
  };
  const added = await page.request.post(`${shop}/api/fleet/units`, { data: unit });
  const { id: unitId } = (await added.json()) as { id: string };
  const wheelEnds = ['1L', '1R'].map((position) => ({ position, works: ['bearings', 'knuckle-seal'] }));
  const job = {
    unitId,
    title: 'Front axle, knuckle seal and hub bearings',
    complaint: '',
    reportedBy: '',
    meter,
  };
  const opened = await page.request.post(`${shop}/api/jobs`, { data: { ...job, wheelEnds } });
  const { id } = (await opened.json()) as { id: string };
  await page.goto(`${shop}/jobs/${id}`);
  await page.getByRole('heading', { level: 2 }).first().waitFor();
}

/** Where an owner begins, and an estimate, on their phone. */
async function ownersPhone(browser: Browser): Promise<void> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    reducedMotion: 'reduce',
  });
  const phone = await context.newPage();
  await phone.goto(shop);
  await phone.getByRole('button', { name: /E\. Tern/ }).click();
  const asks = phone.getByRole('region', { name: 'Waiting for your answer' });
  await asks.getByRole('link', { name: /Hollow 64/ }).click();
  await phone.getByRole('group', { name: /^3L/ }).getByText('Do it now').click();
  await picture(phone, 'owner');
  await context.close();
}

/** A tablet that was away while somebody else worked on its wheel end. */
async function whatWaits(browser: Browser, office: Page): Promise<void> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
  });
  const tablet = await context.newPage();
  await tablet.goto(shop);
  await tablet.getByRole('button', { name: /M\. Pellow/ }).click();
  await tablet.getByRole('link', { name: 'Jobs' }).waitFor();
  await openJobOf(tablet, 'Ridge 7');
  const { pathname } = new URL(tablet.url());
  await tablet.goto(`${shop}${pathname}?at=1L`);
  await tablet.getByRole('heading', { level: 2 }).first().waitFor();
  await context.route('**/events', (route) => route.abort());
  const stepPanel = tablet.getByRole('region', { name: 'Step at hand' });
  const title = await stepPanel.getByRole('heading', { level: 2 }).first().innerText();
  await workUntil(tablet, new RegExp(`^(?!${title}$)`));
  await office.goto(`${shop}${pathname}?at=1L`);
  await office.getByRole('heading', { level: 2 }).first().waitFor();
  await workUntil(office, new RegExp(`^(?!${title}$)`));
  await context.unroute('**/events');
  await tablet.getByRole('link', { name: 'Settle it' }).waitFor({ timeout: 30_000 });
  await context.route('**/events', (route) => route.abort());
  await tablet.goto(`${shop}${pathname}?at=1R`);
  await tablet.getByRole('heading', { level: 2 }).first().waitFor();
  await workUntil(tablet, 'Crack the hub-lock bolts');
  await tablet.goto(`${shop}/waiting`);
  await tablet.getByText('To be sent, in this order').waitFor();
  await picture(tablet, 'what-waits');
  await context.close();
}

test('the pictures', async ({ browser }) => {
  const page = await signedIn(browser);
  await page.getByRole('button', { name: /Okonedo/ }).click();
  await page.getByText('Arriving').waitFor();
  await page
    .getByRole('button', { name: 'Plan' })
    .or(page.getByText(/No technician assigned/))
    .first()
    .waitFor();
  await picture(page, 'floor');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await page.getByRole('button', { name: 'Book' }).first().waitFor();
  await picture(page, 'plan');
  await page.getByRole('button', { name: 'Propose four weeks' }).click();
  await page.getByRole('button', { name: 'Choose what to accept' }).waitFor({ timeout: 60_000 });
  await picture(page, 'proposal');
  await page.goto(`${shop}/plan/week`);
  await page.getByRole('button', { name: 'Next week' }).click();
  await page.getByText(/, 7 booked/).waitFor();
  await picture(page, 'week');
  await page.getByRole('link', { name: 'Fleet', exact: true }).click();
  await page.getByRole('heading', { name: 'Fleet' }).waitFor();
  await picture(page, 'fleet');
  await page.goto(`${shop}/fleet?search=tern+418`);
  await page.getByRole('link', { name: /Tern 418/ }).click();
  await page.getByRole('heading', { name: 'Tern 418' }).waitFor();
  await picture(page, 'unit');
  await page.goto(`${shop}/fleet/sheets/a-steer-double`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await picture(page, 'sheet');
  await page.goto(`${shop}/fleet/tools`);
  await page.getByText('TW-01').waitFor();
  await picture(page, 'tools');
  await page.goto(`${shop}/reckoner/nut-setting`);
  await page.getByRole('button', { name: 'Copy the result' }).waitFor();
  await picture(page, 'reckoner-nut-setting');
  await page.goto(`${shop}/stores?by=measure&kind=seal&bore=114.4&outside=152.3&width=22`);
  await page.getByText('Fits:').waitFor();
  await picture(page, 'stores');
  await page.goto(`${shop}/stores?by=shortage`);
  await page.getByRole('list', { name: 'Shortages' }).waitFor();
  await picture(page, 'shortages');
  await page.goto(`${shop}/stores?by=order`);
  await page.getByRole('button', { name: 'Write this order to Quayside Bearings' }).click();
  await page.getByRole('button', { name: 'Record that it was sent' }).click();
  const day = new Date(Date.now() + 9 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel(/^Promised for/).fill(day);
  await page.getByRole('button', { name: 'It was sent', exact: true }).click();
  await page.getByText(/^On its way/).waitFor();
  await picture(page, 'order');
  await openJobOf(page, 'Tern 418');
  await measure(page, ['0.0085', '0.0081', '0.0083']);
  await picture(page, 'job-verify-loose');

  await frontAxle(page);
  await workUntil(page, 'Crack the hub-lock bolts');
  await picture(page, 'job-stack');

  await openJobOf(page, 'Drift 11');
  // Both sides of an axle are lowered together.
  for (const until of [/^(Down on its wheels|Release .*)$/, /^Release .*$/])
    for (const position of ['1L', '1R']) {
      await page.getByRole('button', { name: position, exact: true }).first().click();
      await stepAtHand(page)
        .getByText(new RegExp(`^${position}, `))
        .first()
        .waitFor();
      await workUntil(page, until);
    }
  await page.goto(`${page.url().split('?')[0]}/release`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await picture(page, 'release');

  await openJobOf(page, 'Valley 27');
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.getByRole('button', { name: 'Bay view' }).click();
  await picture(page, 'bay-view');

  await ownersPhone(browser);
  await whatWaits(browser, page);

  const night = await signedIn(browser, 'dark');
  await night.getByRole('button', { name: /Okonedo/ }).click();
  await night.goto(`${shop}/stores?text=28-0651`);
  await night.getByRole('link', { name: /28-0651/ }).click();
  await night.getByText('What happened to it').waitFor();
  await picture(night, 'part');
});
