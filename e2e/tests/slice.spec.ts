import { expect } from '@playwright/test';
import { axe, hand } from '../hands/axe.ts';
import { adjustA, afterVerify, beforeAdjust, browserOf, doStep, measure, test } from '../hands/shop.ts';

test('from a new unit to a signed record by keyboard, a second browser watching live', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const page = await browserOf(browser, 'D. Achterberg');
  const watcher = await browserOf(browser, 'I. Okonedo');

  await test.step('add a unit', async () => {
    await page.getByRole('link', { name: 'Add a unit' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Add a unit' })).toBeVisible();
    await page.getByLabel('Owner').fill('Tern & Hollow Haulage');
    await page.getByLabel('Name').fill('Tern 900');
    await page.getByLabel('Distance on the meter').fill('1,234 km');
    await page.getByRole('button', { name: /Three axles, two dual drives/ }).press('Enter');
    await page.getByRole('button', { name: 'Add Tern 900' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Tern 900', level: 1 })).toBeVisible();
  });

  await test.step('open a job', async () => {
    await page.getByRole('button', { name: 'Open a job' }).press('Enter');
    await page.getByRole('checkbox', { name: '2L' }).press('Space');
    await page.getByLabel('What was noticed').fill('Seal weep');
    await page.getByLabel('Meter').fill('1,300 km');
    await page.getByRole('button', { name: 'Open the job on 2L' }).press('Enter');
    await expect(page.getByRole('heading', { name: /Tern 900, seal weep/ })).toBeVisible();
  });

  await watcher.keyboard.press('/');
  await watcher.getByLabel('Find a unit, a job or a calculation').fill('Tern 900');
  await watcher.getByRole('option', { name: /Job/ }).first().click();
  await expect(watcher.getByRole('heading', { name: 'Rock the wheel' })).toBeVisible();

  await test.step('everything before Adjust, then Adjust', async () => {
    for (const title of [...beforeAdjust, ...adjustA]) await doStep(page, title, 'key');
    await expect(watcher.getByRole('heading', { name: 'Measure end play' })).toBeVisible();
  });

  await test.step('loose: told which way and how far, goes back, keeps the readings', async () => {
    await measure(page, [
      ['0', '8.5 thou'],
      ['0', '0.0081'],
      ['0', '0,2108 mm'],
    ]);
    await expect(page.getByText('Loose by 0.0033')).toBeVisible();
    await expect(watcher.getByText('Loose by 0.0033')).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Tighten by 1/16 turn, half a place' })).toBeVisible();
    await page.keyboard.press('Enter');
    for (const title of ['Jam nut and washer off', 'Turn the adjusting nut', 'Locking washer on', 'Jam nut'])
      await doStep(page, title, 'key');
    await measure(page, [
      ['0', '0.0044'],
      ['0', '0.0042'],
      ['0', '0.0043'],
    ]);
    await expect(page.getByText('In band', { exact: true })).toBeVisible();
    await page.keyboard.press('Enter');
  });

  await test.step('lock, wheel on; the technician cannot release', async () => {
    for (const title of ['Lock the nut', ...afterVerify]) await doStep(page, title, 'key');
    await expect(page.getByText('A supervisor releases 2L')).toBeVisible();
  });

  await test.step('the supervisor releases; both see it; the retorque is open', async () => {
    await watcher.getByRole('button', { name: 'Release 2L' }).press('Enter');
    await expect(watcher.getByText(/Released by I\. Okonedo/)).toBeVisible();
    await expect(page.getByText(/Released by I\. Okonedo/)).toBeVisible();
    await expect(page.getByText(/Retorque due between 1,380 km and 1,460 km/)).toBeVisible();
    await page.getByRole('button', { name: 'Verify, 2L: done' }).click();
    await expect(page.getByText('Round 1 push 0.0000 in, pull 8.5 thou')).toBeVisible();
    await axe(page, 'Verify, looked back on', hand);
    await axe(watcher, 'Released', hand);
    await page.getByRole('button', { name: 'Back to the step at hand' }).click();
    await page.getByRole('link', { name: 'Tern 900' }).press('Enter');
    await expect(page.getByRole('heading', { name: /2L, in band/ })).toBeVisible();
    await expect(page.getByText('Retorque 2L')).toBeVisible();
    await page.getByRole('button', { name: /All \d+ lines/ }).press('Enter');
    await expect(page.getByText(/back to Adjust, to tighten 1\/16 turn/)).toBeVisible();
    await expect(page.getByText(/cycle: push 0.0000 in, pull 8.5 thou/)).toBeVisible();
  });
});
