import { expect, type Page } from '@playwright/test';
import { axe } from '../helpers/axe.ts';
import { addUnit, browserOf, shopUrl, test } from '../helpers/shop.ts';

/** A Monday some weeks on, by this machine's clock, as the demo shop's is. */
function mondayIn(weeks: number): Date {
  const now = new Date();
  return new Date(now.getFullYear(), now.getMonth(), now.getDate() - ((now.getDay() + 6) % 7) + 7 * weeks);
}
const at = (monday: Date, day: number, hour: number) =>
  new Date(monday.getFullYear(), monday.getMonth(), monday.getDate() + day, hour).toISOString();
const dayOf = (date: Date) =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

async function personId(page: Page, name: string): Promise<string> {
  const floor = await (await page.request.get(`${shopUrl()}/api/plan/floor`)).json();
  return (floor.people as { id: string; name: string }[]).find((p) => p.name === name)!.id;
}

async function book(page: Page, name: string, booking: object): Promise<void> {
  const { layouts } = await import('@lanternwright/core/axle-plan');
  const unitId = await addUnit(page, name, layouts.find((l) => l.id === 'tractor-2')!.axles);
  const answer = await page.request.post(`${shopUrl()}/api/plan/bookings`, {
    data: { unitId, jobId: null, people: [], ...booking },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

const block = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}, `) });
const bay = (page: Page, name: string) => page.getByRole('listitem', { name, exact: true });

/** Picks up and puts down with the hand that a mouse is. */
async function drag(page: Page, name: string, dx: number, dy: number): Promise<void> {
  const box = (await block(page, name).boundingBox())!;
  const [x, y] = [box.x + 12, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
  await page.mouse.move(x + dx, y + dy, { steps: 4 });
  await page.mouse.up();
}

test('a time is found for work on a unit by touch, with what decides it, and nothing is booked before somebody says so', async ({
  browser,
}) => {
  const { layouts } = await import('@lanternwright/core/axle-plan');
  const page = await browserOf(browser, 'I. Okonedo');
  const unitId = await addUnit(page, 'Swift 19', layouts.find((l) => l.id === 'tractor-2')!.axles);
  await page.goto(`${shopUrl()}/fleet/${unitId}`);
  await page.getByRole('link', { name: 'Find a time' }).click();
  await page.getByRole('button', { name: '2L', exact: true }).click();
  await page.getByRole('button', { name: 'Seal, renew' }).click();
  await page.getByRole('button', { name: '2R', exact: true }).click();
  await axe(page, 'find a time');
  await page.getByRole('button', { name: 'Find a time' }).click();
  await expect(page.getByRole('heading', { name: 'A time that can be promised' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Book Swift 19' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/^Finished .* No other booking moves\.$/)).toBeVisible();
  await expect(page.getByText('Renew seals 2L, 2R')).toBeVisible();
  await axe(page, 'promise');
  const span = `from=${new Date().toISOString()}&until=${mondayIn(5).toISOString()}`;
  const booked = await (await page.request.get(`${shopUrl()}/api/plan/bookings?${span}`)).json();
  expect((booked as { unitId: string }[]).some((b) => b.unitId === unitId)).toBe(false);
});

test('the plan of four weeks is proposed, explained, accepted in part, and stands in the bays', async ({
  browser,
}) => {
  const page = await browserOf(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/plan`);
  await page.getByRole('button', { name: 'Propose four weeks' }).click();
  await expect(page.getByRole('heading', { name: 'A plan for what is due' })).toBeVisible();
  const waits = page.getByRole('button', { name: 'Choose what to accept' });
  await expect(waits).toBeVisible({ timeout: 60_000 });
  await expect(waits).toBeDisabled();
  await axe(page, 'proposal');
  const row = page
    .getByRole('listitem')
    .filter({ hasText: /Bay \d, / })
    .first();
  const unit = (await row.locator('.font-semibold').first().innerText()).trim();
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Book one unit' }).click();
  await expect(page).toHaveURL(/plan\/week/);
  const span = `from=${new Date().toISOString()}&until=${new Date(Date.now() + 40 * 86_400_000).toISOString()}`;
  const bookings = await (await page.request.get(`${shopUrl()}/api/plan/bookings?${span}`)).json();
  const booked = (bookings as { from: string; unit: { name: string } }[]).find((b) => b.unit.name === unit)!;
  await page.goto(`${shopUrl()}/plan/week?from=${dayOf(new Date(booked.from))}`);
  await expect(block(page, unit)).toBeVisible();
  await axe(page, 'week');
  await page.getByRole('link', { name: 'Load' }).click();
  await expect(page.getByRole('table')).toBeVisible();
  await axe(page, 'load');
});

test('a booking is dragged and moved by keyboard; a clash is refused in words; a bad morning is mended', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await browserOf(browser, 'I. Okonedo');
  const monday = mondayIn(5);
  const pellow = await personId(page, 'M. Pellow');
  await book(page, 'Plover 1', {
    bayId: 'bay-1',
    people: [pellow],
    from: at(monday, 1, 9),
    until: at(monday, 1, 11),
  });
  await book(page, 'Plover 2', { bayId: 'bay-3', from: at(monday, 1, 9), until: at(monday, 1, 11) });
  await page.goto(`${shopUrl()}/plan/week?from=${dayOf(monday)}`);
  await expect(block(page, 'Plover 1')).toBeVisible();

  await drag(page, 'Plover 1', 0, 76);
  await expect(bay(page, 'Bay 2').getByRole('button', { name: /^Plover 1, .*09:00 to 11:00/ })).toBeVisible();
  await block(page, 'Plover 1').focus();
  for (const key of ['Space', 'ArrowRight', 'ArrowRight', 'Space'])
    await page.keyboard.press(key, { delay: 60 });
  await expect(bay(page, 'Bay 2').getByRole('button', { name: /^Plover 1, .*10:00 to 12:00/ })).toBeVisible();
  await drag(page, 'Plover 1', 0, 76);
  await expect(
    page.getByText(/^Bay 3 has Plover 2 .* from .* to |^Bay 3 has Plover 2 from .* to /),
  ).toBeVisible();
  await expect(bay(page, 'Bay 2').getByRole('button', { name: /^Plover 1, / })).toBeVisible();

  await page.getByRole('button', { name: 'Add an absence' }).click();
  await page.getByLabel('Who or what').selectOption('M. Pellow');
  const tuesday = dayOf(new Date(monday.getFullYear(), monday.getMonth(), monday.getDate() + 1));
  await page.getByLabel('First day').fill(tuesday);
  await page.getByLabel('Last day').fill(tuesday);
  await page.getByLabel('Why').fill('Ill');
  await page.getByRole('button', { name: 'Record the absence' }).click();
  await expect(page.getByRole('region', { name: 'Away' }).getByText('M. Pellow')).toBeVisible();
  await page.getByRole('button', { name: 'Replan' }).click();
  const rowOf = (name: string) =>
    page.getByRole('listitem').filter({ hasText: name, has: page.getByRole('checkbox') });
  const row = rowOf('Plover 1');
  await expect(row.getByText('The technician is away or on another unit.')).toBeVisible({
    timeout: 60_000,
  });
  await expect(rowOf('Plover 2')).toHaveCount(0);
  // The same bay at the same time, with somebody else.
  await expect(row.getByText(/Bay 2, .*10:00 to 12:00, (?!M. Pellow)/)).toBeVisible();
  // It is seen in the bays, what stays beside it, and accepted there.
  const bays = page.getByRole('region', { name: 'In the bays' });
  await expect(bays.getByTitle(/^Plover 1, before: /)).toBeVisible();
  await expect(bays.getByTitle(/^Plover 2, booked: /)).toBeVisible();
  await bays.getByRole('button', { name: /^Plover 1, / }).click();
  await expect(row.getByRole('checkbox')).toBeChecked();
  await page.getByRole('button', { name: 'Move one booking' }).click();
  await page.goto(`${shopUrl()}/plan/week?from=${dayOf(monday)}`);
  await expect(bay(page, 'Bay 2').getByText(/Plover 1/)).toBeVisible();
  await expect(bay(page, 'Bay 2').getByText('M. Pellow')).toHaveCount(0);
});
