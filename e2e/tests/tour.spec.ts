import { expect, type Page } from '@playwright/test';
import { browserOf, measure, shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';

const job = (page: Page) => page.getByRole('region', { name: 'Step at hand' });

// The tour of ten lines of the README, in its order and by its words.
test('the tour of the README, at the bench', async ({ browser }) => {
  test.setTimeout(240_000);
  const bench = await browserOf(browser, 'D. Achterberg');

  await test.step('a unit is found by typing, with its readings and its work', async () => {
    await bench.keyboard.press('/');
    await bench.getByLabel('Find a unit, a job, a part or a calculation').fill('tern 418');
    await expect(bench.getByRole('option', { name: /^Tern 418/ })).toBeVisible();
    await bench.keyboard.press('Enter');
    await expect(bench.getByRole('heading', { name: 'Tern 418', level: 1 })).toBeVisible();
  });

  await test.step('its job waits at Verify, and the reading says how far to turn the nut', async () => {
    await bench.getByRole('link', { name: 'Go to its open job' }).click();
    await expect(job(bench).getByText(/^2L, Verify/)).toBeVisible();
    await measure(bench, [
      ['0', '0.0085'],
      ['0', '0.0084'],
      ['0.0001', '0.0086'],
    ]);
    await expect(job(bench).getByText(/loose/i).first()).toBeVisible();
    await expect(
      job(bench)
        .getByText(/1\/16 turn/)
        .first(),
    ).toBeVisible();
  });

  await test.step('it is set anew, measured in its band, and locked', async () => {
    await bench.getByRole('button', { name: /^Go back to Adjust/ }).click();
    await workUntil(bench, 'Measure end play');
    await measure(bench, [
      ['0', '0.0044'],
      ['0', '0.0043'],
      ['0.0001', '0.0045'],
    ]);
    await job(bench)
      .getByRole('button', { name: /^Accept/ })
      .click();
    await workUntil(bench, /looks at the lock/);
  });

  const office = await browserOf(browser, 'I. Okonedo');
  await test.step('a supervisor sees the same job, and what its release still wants', async () => {
    await office.goto(bench.url());
    const wants = office.getByText(/^Nothing leaves before \d+ more records/);
    await expect(wants).toBeVisible();
    await wants.click();
    await expect(office.getByText(/“A second person looks at the lock/).first()).toBeVisible();
  });
});

test('the tour of the README, in the office, the stores and at home', async ({ browser }) => {
  test.setTimeout(120_000);
  const office = await signedIn(browser, 'I. Okonedo');
  await test.step('four weeks are proposed, each visit with its reason', async () => {
    await office.goto(`${shopUrl()}/plan`);
    await office.getByRole('button', { name: 'Propose four weeks' }).click();
    await expect(office.getByRole('heading', { name: 'A plan for what is due' })).toBeVisible();
  });

  await test.step('the storekeeper finds a seal by measuring the old one', async () => {
    const stores = await signedIn(browser, 'Q. Farrow');
    await stores.goto(`${shopUrl()}/stores?by=measure`);
    await stores.getByLabel('What it is').selectOption('Seal');
    await stores.getByLabel('Bore, mm').fill('114.4');
    await stores.getByLabel('Outside, mm').fill('152.3');
    await stores.getByRole('button', { name: 'Find what fits' }).click();
    await expect(
      stores.getByRole('list', { name: 'What is near it' }).getByRole('listitem').first(),
    ).toContainText('47-2210');
  });

  await test.step('an owner’s contact sees their own units', async () => {
    const owner = await signedIn(browser, 'E. Tern', { viewport: { width: 390, height: 844 } });
    await owner.goto(shopUrl());
    const asks = owner.getByRole('region', { name: 'Waiting for your answer' });
    await expect(asks.getByRole('link', { name: /Hollow 64.* GBP/ })).toBeVisible();
    const ahead = owner.getByRole('region', { name: /^Due until/ });
    await expect(ahead.getByText(/Together about .* h and .* GBP/)).toBeVisible();
    await owner.goto(`${shopUrl()}/fleet`);
    await expect(owner.getByRole('link', { name: /Tern 4\d\d/ }).first()).toBeVisible();
    await expect(owner.getByText(/Valley \d/)).toHaveCount(0);
  });

  await test.step('the sums are live', async () => {
    await office.goto(`${shopUrl()}/reckoner`);
    await expect(office.getByRole('link', { name: /Nut setting/ }).first()).toBeVisible();
  });
});
