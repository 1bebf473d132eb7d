import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect } from '@playwright/test';
import { quantity } from '@lanternwright/core/quantity';
import type { PartsPage } from '@lanternwright/contract/stores';
import { chromiumLaunch } from '../chromium.mjs';
import { axe } from '../helpers/axe.ts';
import { pdfPicture } from '../helpers/pdf-picture.ts';
import { newJob, shopUrl, signedIn, test } from '../helpers/shop.ts';

test('a seal is found by measuring an old one, used on a job, and stands on its bill; what was taken is off the shelf', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const keeper = await signedIn(browser, 'Q. Farrow');
  const technician = await signedIn(browser, 'D. Achterberg');
  const supervisor = await signedIn(browser, 'I. Okonedo');
  const jobId = await newJob(technician, 'Beacon 120', 'tractor-2', ['2L']);

  // The number is worn off: a caliper reads it.
  await technician.goto(`${shopUrl()}/stores?by=measure`);
  await technician.getByLabel('What it is').selectOption('Seal');
  await technician.getByLabel('Bore, mm').fill('4.504 in');
  await technician.getByLabel('Outside, mm').fill('152,3');
  await technician.getByLabel('Width, mm').fill('22');
  await technician.getByRole('button', { name: 'Find what fits' }).click();
  const near = technician.getByRole('list', { name: 'What is near it' });
  await expect(near.getByRole('listitem').first()).toContainText('47-2210');
  await expect(near.getByRole('listitem').first()).toContainText('Fits:');
  await expect(near.getByRole('listitem').nth(1)).not.toContainText('Fits:');
  await axe(technician, 'By measuring');
  await near.getByRole('link', { name: /47-2210/ }).click();
  await expect(technician.getByRole('heading', { name: '47-2210' })).toBeVisible();
  const here = async () =>
    Number(/^(\d+) here/.exec(await keeper.getByRole('heading', { level: 2 }).first().innerText())![1]);
  await keeper.goto(technician.url());
  await expect(keeper.getByRole('heading', { level: 2, name: /here/ })).toBeVisible();
  const before = await here();

  await technician.goto(`${shopUrl()}/jobs/${jobId}?parts=`);
  const parts = technician.getByRole('region', { name: 'Parts of 2L' });
  await parts.getByRole('button', { name: 'Use one 47-2210 from A3' }).click();
  await expect(parts.getByText('Used: 1 × 47-2210')).toBeVisible();
  await axe(technician, 'Parts of a job');
  // The storekeeper's page follows by itself.
  await expect(keeper.getByText(/Used on a job, A3, job \d+, 2L/).first()).toBeVisible();
  expect(await here()).toBe(before - 1);

  await supervisor.goto(`${shopUrl()}/jobs/${jobId}?money=`);
  await supervisor.getByRole('button', { name: 'Write the bill' }).click();
  const prices = () =>
    supervisor.getByLabel('Each').evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value));
  await expect.poll(prices).toContain('41.85');
});

test('parts come, are counted with why they are fewer, and are kept for a job', async ({ browser }) => {
  const keeper = await signedIn(browser, 'Q. Farrow');
  await keeper.goto(`${shopUrl()}/stores?text=fg+8-1?0`);
  await keeper.getByRole('link', { name: /FG 8-140/ }).click();
  await keeper.getByRole('button', { name: 'Receive' }).click();
  await keeper.getByLabel('How many').fill('3');
  await keeper.getByRole('button', { name: 'Put them on the shelf' }).click();
  await expect(keeper.getByText('+3').first()).toBeVisible();
  await keeper.getByRole('button', { name: 'Count' }).click();
  await keeper.getByLabel('Quantity on hand').fill('1');
  await keeper.getByRole('button', { name: 'Record the count' }).click();
  await expect(keeper.getByText(/Enter a reason for the difference/)).toBeVisible();
  await keeper.getByLabel(/Why it is otherwise/).fill('The box was wet');
  await keeper.getByRole('button', { name: 'Record the count' }).click();
  await expect(keeper.getByRole('heading', { level: 2, name: '1 here' })).toBeVisible();
  await expect(keeper.getByText(/Counted: 1 at C3: The box was wet/)).toBeVisible();

  const technician = await signedIn(browser, 'M. Pellow');
  const jobId = await newJob(technician, 'Beacon 121', 'tractor-2', ['2L', '2R']);
  await technician.goto(`${shopUrl()}/jobs/${jobId}?parts=`);
  for (const position of ['2L', '2R']) {
    const parts = technician.getByRole('region', { name: `Parts of ${position}` });
    await parts.getByRole('button', { name: 'Keep one FG 8-140' }).click();
    await expect(parts.getByText('Kept: 1 × FG 8-140')).toBeVisible();
  }
  // Two are wanted and one is there: it is known before the wheel is off.
  await keeper.reload();
  await expect(
    keeper.getByRole('heading', { name: '1 here, 1 short of what is kept for jobs' }),
  ).toBeVisible();
});

test('the storekeeper’s morning: what comes today is received with its note, some of it damaged, and what is late stands out', async ({
  browser,
}) => {
  const keeper = await signedIn(browser, 'Q. Farrow');
  await keeper.goto(`${shopUrl()}/stores`);
  await keeper.getByRole('link', { name: 'Today' }).click();
  await expect(keeper.getByRole('heading', { name: 'To lay out for today' })).toBeVisible();
  await expect(keeper.getByRole('link', { name: /^Order 2, .*Promised for today/ })).toBeVisible();
  await axe(keeper, 'The storekeeper’s day');
  await keeper.getByRole('link', { name: /^Order 1, .*Late since/ }).click();
  await keeper.getByRole('button', { name: 'Something came' }).click();
  await keeper.getByRole('button', { name: 'All of it came' }).click();
  await expect(keeper.getByLabel('BL 4515: how many came')).toHaveValue('4');
  await keeper.getByLabel('BL 4515: how many came').fill('3');
  await keeper.getByLabel('BL 4515: damaged').fill('1');
  await keeper.getByLabel('BL 4515: batch, optional').fill('L 4711');
  await keeper.getByLabel('Delivery note number, optional').fill('DN 118');
  await keeper.getByRole('button', { name: 'Record what came' }).click();
  await expect(keeper.getByText('3 came, 1 damaged, 1 to come')).toBeVisible();
  await keeper.getByRole('link', { name: /BL 4515/ }).click();
  await expect(keeper.getByText(/L 4711/).first()).toBeVisible();
});

test('a shortage is seen ahead, ordered, comes in two parts and late; a reader of labels opens the part', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const keeper = await signedIn(browser, 'Q. Farrow');
  await keeper.goto(`${shopUrl()}/stores?by=shortage`);
  const short = keeper
    .getByRole('list', { name: 'Shortages' })
    .getByRole('listitem')
    .filter({ hasText: 'JS 80-13' });
  // How many are short depends on which visits fall into the weeks ahead.
  await expect(short).toContainText(/\d+ short from/);
  const many = Number(/(\d+) short from/.exec((await short.textContent())!)![1]);
  expect(many).toBeGreaterThan(1);
  await expect(short).toContainText(/Order by .*: 21 days to come/);

  await keeper.getByRole('link', { name: 'Orders', exact: true }).click();
  await keeper.getByRole('button', { name: 'Write this order to Quayside Bearings' }).click();
  await expect(keeper.getByRole('heading', { name: /^Order \d+, Quayside Bearings$/ })).toBeVisible();
  await keeper.getByRole('button', { name: 'Record that it was sent' }).click();
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  await keeper.getByLabel(/^Promised for/).fill(day(10));
  await keeper.getByRole('button', { name: 'It was sent', exact: true }).click();
  await expect(keeper.getByText(/On its way, promised for/)).toBeVisible();
  await axe(keeper, 'An order');
  const order = keeper.url();

  // What is on its way in time is short no longer; what is late is again.
  await keeper.goto(`${shopUrl()}/stores?by=shortage`);
  await expect(keeper.getByText(/JS 80-13|Nothing will be short|28-0651/).first()).toBeVisible();
  await expect(short).toBeHidden();
  await keeper.goto(order);
  await keeper.getByRole('button', { name: 'Another day' }).click();
  await keeper.getByLabel('Promised for').fill(day(-1));
  await keeper.getByRole('button', { name: 'Record the day' }).click();
  await expect(keeper.getByText(/Late: promised for/)).toBeVisible();
  const supervisor = await signedIn(browser, 'I. Okonedo');
  await supervisor.goto(`${shopUrl()}/floor`);
  // The Floor names those first that are wanted first, and leads to all of them.
  await supervisor
    .getByRole('region', { name: 'Parts short' })
    .getByRole('link', { name: /^(what for|all \d+)$/ })
    .click();
  const again = supervisor.getByRole('list', { name: 'Shortages' }).getByRole('listitem');
  await expect(again.filter({ hasText: 'JS 80-13' })).toContainText(`${many} short from`);

  const comes = async (many: string) => {
    await keeper.getByRole('button', { name: 'Something came' }).click();
    await keeper.getByLabel('JS 80-13: how many came').fill(many);
    await keeper.getByLabel('JS 80-13: put at').fill('A6');
    await keeper.getByRole('button', { name: 'Record what came' }).click();
  };
  await comes('1');
  await expect(keeper.getByText(`1 came, ${many - 1} to come`)).toBeVisible();
  await comes(String(many));
  await expect(keeper.getByText(new RegExp(`${many - 1} of JS 80-13 (is|are) still to come`))).toBeVisible();
  await keeper.getByLabel('JS 80-13: how many came').fill(String(many - 1));
  await keeper.getByRole('button', { name: 'Record what came' }).click();
  await expect(keeper.getByText(`${many} came`)).toBeVisible();

  await keeper.goto(`${shopUrl()}/stores`);
  await expect(keeper.getByRole('list', { name: 'Parts' })).toBeVisible();
  await keeper.keyboard.type('js8013\n');
  await expect(keeper.getByRole('heading', { name: 'JS 80-13' })).toBeVisible();
  await expect(keeper.getByRole('heading', { level: 2, name: `${many} here` })).toBeVisible();
});

test('a part is ordered online, costs more and is late: its job waits for a decision until one is taken for it', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const keeper = await signedIn(browser, 'Q. Farrow');
  const technician = await signedIn(browser, 'D. Achterberg');
  const supervisor = await signedIn(browser, 'I. Okonedo');
  const jobId = await newJob(technician, 'Beacon 122', 'tractor-2', ['2L']);
  const found = await (await technician.request.get(`${shopUrl()}/api/stores/parts?text=LW+318`)).json();
  const part = (found as PartsPage).parts[0]!;
  // The job keeps one more than there are.
  const reservation = {
    ...{ id: crypto.randomUUID(), jobId, position: '2L', line: 'part:lock-washer' },
    quantity: part.onHand + 1,
  };
  await technician.request.post(`${shopUrl()}/api/stores/parts/${part.id}/reservations`, {
    data: { reservation },
  });

  await keeper.goto(`${shopUrl()}/stores?by=order`);
  await keeper.getByRole('button', { name: 'Write this order to Hollow Lane Fasteners' }).click();
  await keeper.getByRole('button', { name: 'Send it to Hollow Lane Fasteners' }).click();
  await keeper.getByRole('button', { name: 'Send it now' }).click();
  await expect(keeper.getByText(/On its way, promised for .*their number S-7\d+/)).toBeVisible();
  const washers = keeper.getByRole('list', { name: 'Parts of this order' }).getByRole('listitem').filter({
    hasText: 'LW 318',
  });
  await expect(washers).toContainText(/6\.90 GBP.*not 6\.20 GBP/);
  await axe(keeper, 'An order online');

  // The supplier says that it is late, and what of it left the house.
  await keeper.getByRole('button', { name: 'Another day' }).click();
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  await keeper.getByLabel('Promised for').fill(yesterday);
  await keeper.getByRole('button', { name: 'Record the day' }).click();
  await expect(keeper.getByText(/Late: promised for/)).toBeVisible();
  await supervisor.goto(`${shopUrl()}/floor`);
  const late = supervisor
    .getByRole('region', { name: 'Decide' })
    .getByRole('link', { name: /Late part, Beacon 122/ });
  await expect(late).toContainText(/LW 318 of order \d+ was promised for/);
  await late.click();
  await expect(supervisor.getByRole('region', { name: 'Parts of 2L' })).toContainText('LW 318');

  const supplier = process.env['SUPPLIER_PAGE']!;
  await keeper.request.post(`${supplier}/days`, { data: { days: 4 } });
  await keeper.getByRole('link', { name: 'Stores', exact: true }).click();
  await keeper.getByRole('link', { name: 'Orders', exact: true }).click();
  await keeper.getByRole('button', { name: 'Ask Hollow Lane Fasteners now' }).click();
  await expect(keeper.getByText(/It answered last/)).toBeVisible();
  await keeper.getByRole('link', { name: /^Order \d+, Hollow Lane Fasteners/ }).click();
  await expect(washers).toContainText(/dispatched/);
  await keeper.getByRole('button', { name: 'Something came' }).click();
  await keeper.getByLabel('LW 318: how many came').fill('1');
  await keeper.getByRole('button', { name: 'Record what came' }).click();
  await expect(washers).toContainText('1 came');
  await supervisor.goto(`${shopUrl()}/floor`);
  await expect(supervisor.getByRole('heading', { name: 'Decide' })).toBeVisible();
  await expect(late).toBeHidden();
  // What was paid stands with the part.
  await washers.getByRole('link').click();
  await expect(keeper.getByRole('heading', { name: 'Paid for one' })).toBeVisible();
  await expect(keeper.getByText(/6\.90 GBP.*\+11\.3 %/)).toBeVisible();
});

test('what lies there is counted from label to label with a reader that types', async ({ browser }) => {
  const keeper = await signedIn(browser, 'Q. Farrow');
  await keeper.goto(`${shopUrl()}/stores`);
  await expect(keeper.getByRole('list', { name: 'Parts' })).toBeVisible();
  for (const [label, lies] of [
    ['BL 4515', '7'],
    ['CG 6-114', '16'],
  ] as const) {
    await keeper.keyboard.type(`${label}\n`);
    await expect(keeper.getByRole('heading', { name: label })).toBeVisible();
    await keeper.getByRole('button', { name: 'Count' }).click();
    await keeper.keyboard.type(lies);
    const why = keeper.getByLabel(/Why it is otherwise/);
    if (lies === '7') await why.fill('One stood on the bench');
    await why.press('Enter');
    await expect(keeper.getByText(new RegExp(`Counted: ${lies} at`)).first()).toBeVisible();
    await keeper.getByRole('link', { name: 'Stores', exact: true }).click();
    await expect(keeper.getByRole('list', { name: 'Parts' })).toBeVisible();
  }
});

test('a wrench found out of calibration is offered no longer, names what was done with it, and is good again with its certificate', async ({
  browser,
}) => {
  const supervisor = await signedIn(browser, 'I. Okonedo');
  await supervisor.goto(`${shopUrl()}/fleet/tools`);
  // One of its own: a tool of the demo is at work in other tests.
  const tool = {
    ...{ id: crypto.randomUUID(), kind: 'torque-wrench', code: 'TW-77', title: 'Spare wrench' },
    ...{ calibratedUntil: '2099-01-31', min: quantity(100, 'Nm'), max: quantity(700, 'Nm') },
  };
  await supervisor.request.put(`${shopUrl()}/api/tools`, { data: { seenVersion: 0, tool } });
  await supervisor.getByRole('button', { name: 'TW-77 was found out of calibration' }).click();
  await supervisor.getByLabel('Last found good on').fill('2026-01-31');
  await supervisor.getByLabel('What was found').fill('Reads 12 % high');
  await supervisor.getByRole('button', { name: 'Recall TW-77' }).click();
  const made = supervisor.getByRole('region', { name: 'Made with TW-77' });
  await expect(made).toContainText('Nothing was recorded with it since');
  const row = supervisor.getByRole('listitem').filter({ hasText: 'Spare wrench' });
  await expect(row).toContainText('no calibration on record');
  await supervisor.getByRole('button', { name: 'TW-77 was calibrated' }).click();
  await supervisor.getByLabel(/^Certificate, a PDF/).setInputFiles({
    ...{ name: 'TW-77.pdf', mimeType: 'application/pdf' },
    buffer: Buffer.from(`%PDF-1.4 ${'calibrated '.repeat(20)}`),
  });
  await supervisor.getByLabel('Holds until').fill('2099-06-30');
  await supervisor.getByRole('button', { name: 'Record the calibration of TW-77' }).click();
  await expect(row).toContainText('in calibration until 30 Jun 2099');
  await axe(supervisor, 'Tools');
  const href = await row.getByRole('link', { name: 'TW-77.pdf' }).getAttribute('href');
  const file = await supervisor.request.get(`${shopUrl()}${href!}`);
  expect(file.headers()['content-type']).toBe('application/pdf');
  expect((await file.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('a label that was printed is read with the camera, and opens its part', async ({ browser }) => {
  const keeper = await signedIn(browser, 'Q. Farrow');
  const found = await (await keeper.request.get(`${shopUrl()}/api/stores/parts?text=FG+8-140`)).json();
  const { id } = (found as PartsPage).parts[0]!;
  const labels = await keeper.request.get(`${shopUrl()}/api/stores/parts/${id}/labels.pdf?copies=1`);
  // A film of one frame, as a camera would have it that is held before the paper.
  const folder = mkdtempSync(join(tmpdir(), 'lanternwright-camera-'));
  const film = join(folder, 'label.mjpeg');
  writeFileSync(film, await pdfPicture(browser, await labels.body()));
  const seeing = await chromium.launch({
    ...chromiumLaunch,
    args: [
      ...chromiumLaunch.args,
      ...['--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'],
      `--use-file-for-fake-video-capture=${film}`,
    ],
  });
  const page = await signedIn(seeing, 'Q. Farrow');
  await page.goto(`${shopUrl()}/stores`);
  await page.getByRole('button', { name: 'Read a label' }).click();
  await expect(page.getByRole('heading', { name: 'FG 8-140' })).toBeVisible();
  await seeing.close();
  rmSync(folder, { recursive: true, force: true });
});
