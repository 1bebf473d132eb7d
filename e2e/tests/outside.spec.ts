import { expect } from '@playwright/test';
import { layouts } from '@lanternwright/core/axle-plan';
import { addUnit, shopUrl, signedIn, test } from '../helpers/shop.ts';

const tell = async (path: string, data: object) => {
  const answer = await fetch(`${process.env['FEED_URL']!}${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(data),
  });
  expect(answer.ok).toBe(true);
};

test('the units’ own feed is read, a stranger is named, an outage is told and made up for', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'I. Okonedo');
  const unit = await addUnit(page, 'Telematics 1', layouts.find((l) => l.id === 'tractor-2')!.axles);
  await tell('/drive', { days: 1 });
  await page.goto(`${shopUrl()}/fleet/meters`);
  const feed = page.getByRole('region', { name: 'The units’ own feed' });
  await feed.getByRole('button', { name: 'Ask it now' }).click();
  await expect(feed.getByText(/It spoke last/)).toBeVisible();
  await expect(feed.getByText('Stranger 7')).toBeVisible();
  await expect(feed.getByText(/[1-9]\d* readings kept/)).toBeVisible();

  await tell('/fault', { fault: 'outage' });
  await feed.getByRole('button', { name: 'Ask it now' }).click();
  await expect(feed.getByText(/What it has is asked for again/)).toBeVisible();
  await tell('/drive', { days: 1 });
  await tell('/fault', { fault: null });
  await feed.getByRole('button', { name: 'Ask it now' }).click();
  await expect(feed.getByText(/What it has is asked for again/)).toBeHidden();

  await page.goto(`${shopUrl()}/fleet/${unit}`);
  await expect(page.getByText(/82,\d{3} km/).first()).toBeVisible();
});

test('the morning goes to the mailbox; an address that is none is named and the rest stays', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/settings`);
  const mail = page.getByRole('region', { name: 'The morning by mail' });
  const to = mail.getByLabel(/^Addresses, one per line/);
  await to.fill('okonedo@marrowbank.example\nthistlewood at marrowbank');
  await mail.getByRole('button', { name: 'Save who gets it' }).click();
  await expect(mail.getByText(/is no mail address/)).toBeVisible();
  await expect(to).toHaveValue(/thistlewood at marrowbank/);
  await to.fill('okonedo@marrowbank.example; thistlewood@marrowbank.example');
  await mail.getByRole('button', { name: 'Save who gets it' }).click();
  await expect(mail.getByText('Saved.')).toBeVisible();
  await mail.getByRole('button', { name: 'Send it now' }).click();
  await expect(mail.getByText(/^Sent to whom/)).toBeVisible();
  const box = await (await fetch(process.env['MAILBOX_URL']!)).text();
  expect(box).toMatch(/To okonedo@marrowbank\.example, thistlewood@marrowbank\.example/);
  expect(box).toMatch(/Subject: .+/);
  // Nobody gets it any more.
  await to.fill('');
  await mail.getByRole('button', { name: 'Save who gets it' }).click();
  await expect(mail.getByText('Saved.', { exact: true })).toBeVisible();
  await expect(mail.getByText(/^Sent to whom/)).toBeHidden();
});
