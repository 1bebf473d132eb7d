import { expect, type Page } from '@playwright/test';
import { axe } from '../helpers/axe.ts';
import { openShop, withEmptyShop } from '../helpers/empty-shop.ts';
import { test, watched, workUntil } from '../helpers/shop.ts';
import { workbook } from '../../web/src/testing/workbook.ts';

const CODE = '4711-0815';

/** An office's list of 40 rows: 24 trucks, 12 trailers, four that are bad. */
function list(): Buffer {
  const head = ['Fleet No', 'Make', 'Model', 'Year', 'Registration', 'Odometer', 'Type', 'Axles', 'Customer'];
  const owner = 'Kestrel Freight';
  const trucks = Array.from({ length: 24 }, (_, i) => [
    ...[`KF ${101 + i}`, 'Harrow', 'HX 400', 2019, `KFT ${101 + i}`, 300_000 + 1_000 * i],
    ...['Tractor unit', '4x2', owner],
  ]);
  const trailers = Array.from({ length: 12 }, (_, i) => [
    ...[`KF ${201 + i}`, '', '', 2015, `KFS ${201 + i}`, '', 'Curtainsider', '', owner],
  ]);
  const bad = [
    ['KF 101', 'Harrow', 'HX 400', 2019, '', '', 'Tractor unit', '4x2', owner],
    ['KF 301', 'Valley', 'Loop', 2014, '', '1.200', 'Coach', 2, owner],
    ['', '', '', '', '', '', 'Coach', 2, owner],
    ['KF 302', 'Valley', 'Loop', 2014, 'KFT 101', '', 'Tractor unit', '4x2', owner],
  ];
  return Buffer.from(workbook({ Fleet: [head, ...trucks, ...trailers, ...bad] }));
}

/** Follows the bar that leads through the first hour: what it says is next is a link. */
async function follow(page: Page, title: string): Promise<void> {
  await page.getByRole('region', { name: 'Setting up the shop' }).getByRole('link', { name: title }).click();
}

test('an empty shop is led from its first person to its first released job, with the fleet from a workbook', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  await withEmptyShop(CODE, async (url) => {
    const plain = { reducedMotion: 'reduce', serviceWorkers: 'block' } as const;
    const context = watched(await browser.newContext(plain));
    const page = await context.newPage();
    await openShop(page, url, CODE);

    await follow(page, 'The shop');
    await page.getByLabel('Name of the shop').fill('Kestrel Works');
    await page.getByLabel('Address', { exact: true }).fill('1 Quarry Road');
    await page.getByLabel('Time zone of the shop').selectOption('Europe/Dublin');
    await page.getByLabel('Distances').selectOption('Miles');
    await page.getByRole('button', { name: 'Add hours on Monday' }).click();
    await page.getByLabel('Monday, from').fill('07:30');
    await page.getByLabel('Monday, until').fill('16:00');
    await page.getByRole('button', { name: 'As Monday' }).first().click();
    await page.getByRole('button', { name: 'Save the settings' }).click();

    await follow(page, 'People');
    await page.getByLabel('Name', { exact: true }).fill('N. Comer');
    await page.getByLabel('User name').fill('comer');
    await page.getByLabel('Role').selectOption('technician');
    await page.getByRole('button', { name: 'Add N. Comer' }).click();
    const card = page.getByRole('region', { name: 'Code of N. Comer' });
    const code = /\d{4}-\d{4}/.exec(await card.innerText())![0];
    await card.getByRole('button', { name: 'Handed over' }).click();

    await follow(page, 'Bays');
    await page.getByRole('button', { name: 'Add a bay' }).click();
    await page.getByLabel('Name of bay 1').fill('Pit');
    await page.getByRole('button', { name: 'Save the settings' }).click();

    await follow(page, 'Tools');
    const tool = async (kind: string, of: string, fields: Record<string, string>) => {
      await page.getByRole('button', { name: 'Add a tool' }).click();
      await page.getByLabel('Kind').selectOption(kind);
      await page.getByLabel('Code on it').fill(of);
      await page.getByLabel('What it is').fill(`Our ${of}`);
      await page.getByLabel('In calibration until').fill('2099-12-31');
      for (const [label, text] of Object.entries(fields))
        await page.getByLabel(label, { exact: true }).fill(text);
      await page.getByRole('button', { name: `Add ${of}` }).click();
      await expect(page.getByText(`Our ${of}`)).toBeVisible();
    };
    await tool('torque-wrench', 'TW-1', { 'From, N·m or lbf·ft': '100 lbf·ft', To: '600 lbf·ft' });
    await tool('torque-wrench', 'TW-2', { 'From, N·m or lbf·ft': '10 lbf·ft', To: '120 lbf·ft' });
    await tool('dial-indicator', 'DI-1', { Graduation: '0.001 in' });

    await follow(page, 'Units');
    await page.getByLabel('Choose a list').setInputFiles({
      ...{ name: 'fleet.xlsx', buffer: list() },
      mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    });
    await page.getByLabel('Odometer: “1.200” is').selectOption('1,200 km');
    await page
      .getByRole('region', { name: 'Plan of Semi-trailer' })
      .getByRole('button', { name: /three axles/ })
      .click();
    await page
      .getByRole('region', { name: /^Plan of Bus/ })
      .getByRole('button', { name: /Bus, two axles/ })
      .click();
    await page.getByRole('button', { name: /^Check \d+ units against the fleet/ }).click();
    await page.getByRole('button', { name: /^Bring in 37 units, leave 3 rows out/ }).click();
    await expect(page.getByText('37 units are in.')).toBeVisible();

    await follow(page, 'First job');
    await page.getByRole('link', { name: /KF 104/ }).click();
    await expect(page.getByRole('heading', { name: 'KF 104', level: 1 })).toBeVisible();
    // 303,000 km of the list, in the miles of this shop.
    await expect(page.getByText(/188,275 mi/).first()).toBeVisible();
    await axe(page, 'Unit of a new shop');
    await page.getByRole('button', { name: 'Open a job' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('checkbox', { name: '2L' }).check();
    await dialog
      .getByRole('button', { name: /^Bearings, clean/ })
      .first()
      .click();
    await dialog.getByLabel('What was noticed').fill('Annual');
    await dialog.getByRole('button', { name: 'Open the job on 2L' }).click();

    // The technician chooses a password with the code, and works.
    const bench = await watched(await browser.newContext(plain)).newPage();
    await bench.goto(url);
    await bench.getByText('I have a code').click();
    const codeForm = bench.locator('form').filter({ has: bench.getByLabel('Code') });
    await codeForm.getByLabel('User name').fill('comer');
    await codeForm.getByLabel('Code').fill(code);
    await codeForm.getByLabel('New password').fill('five dry bearings');
    await codeForm.getByRole('button').click();
    await expect(page.getByRole('region', { name: 'Step at hand' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Setting up the shop' })).toBeHidden();
    await bench.getByRole('link', { name: 'Jobs', exact: true }).click();
    await bench.getByRole('heading', { name: 'Jobs', level: 1 }).waitFor();
    await bench.getByRole('link', { name: /KF 104/ }).click();
    await workUntil(bench, /A second person looks|^Release 2L$/);
    await page.reload();
    await workUntil(page, /^(?!A second person).*$/);
    await workUntil(bench, 'Release 2L');

    await page.reload();
    await page.getByRole('button', { name: 'Release 2L' }).click();
    await expect(page.getByText(/Released by A\. Founder/).first()).toBeVisible();
  });
});
