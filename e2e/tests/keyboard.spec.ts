import { expect } from '@playwright/test';
import { press, tabTo, typeIn } from '../helpers/keyboard.ts';
import { shopUrl, signedIn, test } from '../helpers/shop.ts';

test('a unit is added, a job opened on it and its first steps recorded with no hand at a mouse', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/fleet`);
  await press(page.getByRole('link', { name: 'Add a unit' }));
  await expect(page.getByRole('heading', { name: 'Add a unit', level: 1 })).toBeVisible();
  await typeIn(page, [
    ['Owner', 'Marsh Keyboard Hire'],
    ['Name', 'Keyed 1'],
    ['Kind', 'Tractor unit'],
    ['Plate', 'KEY 1'],
    [/^Distance on the meter/, '120,000 km'],
  ]);
  await press(page.getByRole('button', { name: /4x2|two axles/i }).first());
  await press(page.getByRole('button', { name: 'Add Keyed 1' }));
  await expect(page.getByRole('heading', { name: 'Keyed 1', level: 1 })).toBeVisible();
  await press(page.getByRole('button', { name: 'Open a job' }));
  const dialog = page.getByRole('dialog');
  await typeIn(dialog, [['2L', '']]);
  await press(dialog.getByRole('button', { name: /^Check only|^Seal, renew/ }).first());
  await typeIn(dialog, [['What was noticed', 'Annual']]);
  await press(dialog.getByRole('button', { name: 'Open the job on 2L' }));
  await expect(page).toHaveURL(/\/jobs\//);
  const step = page.getByRole('region', { name: 'Step at hand' });
  const title = step.getByRole('heading').first();
  const first = await title.innerText();
  await press(step.getByRole('button').first());
  await expect(title).not.toHaveText(first);
});

test('a tool, a person, an absence and the shop’s settings are written with no hand at a mouse', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/fleet/tools`);
  await press(page.getByRole('button', { name: 'Add a tool' }));
  await typeIn(page, [
    ['Kind', 'Dial indicator'],
    ['Code on it', 'DI-K1'],
    ['What it is', 'Dial of the keyboard'],
    ['In calibration until', '2099-12-31'],
    ['Graduation', '0.01 mm'],
  ]);
  await press(page.getByRole('button', { name: 'Add DI-K1' }));
  await expect(page.getByText('Dial of the keyboard')).toBeVisible();

  await page.goto(`${shopUrl()}/people`);
  await typeIn(page, [
    ['Name', 'K. Board'],
    ['User name', 'kboard'],
    ['Role', 'Trainee'],
  ]);
  await press(page.getByRole('button', { name: 'Add K. Board' }));
  await press(page.getByRole('button', { name: 'Handed over' }));
  await expect(page.getByText('K. Board').first()).toBeVisible();

  await page.goto(`${shopUrl()}/plan/week`);
  await press(page.getByRole('button', { name: 'Add an absence' }));
  await typeIn(page, [
    ['Who or what', 'D. Achterberg'],
    ['First day', '2099-03-02'],
    ['Last day', '2099-03-03'],
    ['Why', 'On a course'],
  ]);
  await press(page.getByRole('button', { name: 'Record the absence' }));
  await expect(page.getByRole('button', { name: 'Record the absence' })).toBeHidden();

  await page.goto(`${shopUrl()}/settings`);
  await typeIn(page, [['Name of the shop', 'Marrowbank Shared Works']]);
  // In a long form Enter does its one main act from any field.
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved, for everybody at once.')).toBeVisible();
});

test('Find takes every letter of somebody who types at once, on a slow processor', async ({ browser }) => {
  const page = await signedIn(browser, 'M. Pellow');
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 8 });
  await page.goto(`${shopUrl()}/jobs`, { waitUntil: 'commit' });
  await expect(page.getByRole('banner')).toBeVisible();
  const theme = await page.locator('html').getAttribute('data-theme');
  await page.keyboard.type('/nut ubg 9', { delay: 15 });
  const field = page
    .getByRole('combobox', { name: /^Find/ })
    .or(page.getByRole('textbox', { name: /^Find/ }));
  await expect(field).toHaveValue('nut ubg 9');
  // No letter was a shortcut: neither the theme, nor the units, nor the page changed.
  await expect(page.locator('html')).toHaveAttribute('data-theme', theme!);
  await expect(page).toHaveURL(/\/jobs$/);
  await expect(page.getByRole('combobox', { name: /^Find/ })).toHaveValue('nut ubg 9');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('combobox', { name: /^Find/ })).toBeHidden({ timeout: 1_000 });
});

test('whoever comes back to a list finds it where they left it', async ({ browser }) => {
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/fleet`);
  await page.getByRole('button', { name: /^Tern & Hollow Haulage/ }).click();
  const unit = page.getByRole('region', { name: 'Tern & Hollow Haulage' }).getByRole('link').last();
  await unit.scrollIntoViewIfNeeded();
  const left = await page.evaluate(() => window.scrollY);
  expect(left).toBeGreaterThan(600);
  await unit.click();
  await expect(page.getByRole('button', { name: 'Open a job' })).toBeVisible();
  expect(await page.evaluate(() => window.scrollY)).toBe(0);
  await page.goBack();
  await expect(unit).toBeVisible();
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBe(left);
  await tabTo(page.getByRole('link', { name: 'Floor' }));
});
