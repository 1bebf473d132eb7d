import { expect } from '@playwright/test';
import { axe } from '../helpers/axe.ts';
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
  await keeper.reload();
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
  await keeper.getByLabel('How many lie there').fill('1');
  await keeper.getByRole('button', { name: 'Record the count' }).click();
  await expect(keeper.getByText(/say why it is otherwise/)).toBeVisible();
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
