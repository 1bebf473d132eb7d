import type { Session } from '@lanternwright/contract/people';
import { test as base, expect, type Browser, type BrowserContextOptions, type Page } from '@playwright/test';

export const shopUrl = () => process.env['SHOP_URL']!;

/** A test after which every context it opened is closed: each keeps a live stream and would slow the next. */
export const test = base.extend<{ tidy: void }>({
  tidy: [
    async ({ browser }, use) => {
      await use();
      await Promise.all(browser.contexts().map((context) => context.close()));
    },
    { auto: true },
  ],
});

/** A browser of its own, signed in as one of the demo people. */
export async function browserOf(
  browser: Browser,
  person: string,
  options: BrowserContextOptions = {},
): Promise<Page> {
  const context = await browser.newContext({ reducedMotion: 'reduce', ...options });
  const page = await context.newPage();
  await page.goto(shopUrl());
  await page.getByRole('button', { name: new RegExp(person) }).click();
  await expect(page.getByRole('heading', { name: 'Fleet', level: 1 })).toBeVisible();
  return page;
}

/** A browser of its own in which one of the demo people is signed in already; nothing is opened yet. */
export async function signedIn(
  browser: Browser,
  person: string,
  options: BrowserContextOptions = {},
): Promise<Page> {
  const context = await browser.newContext({ reducedMotion: 'reduce', ...options });
  const session = `${shopUrl()}/api/people/session`;
  const { demoPeople } = (await (await context.request.get(session)).json()) as Session;
  const personId = demoPeople.find((p) => p.name === person)?.id;
  const answer = await context.request.post(`${session}/demo`, { data: { personId } });
  expect(answer.ok(), await answer.text()).toBe(true);
  return context.newPage();
}

/** Adds a unit from a common plan through the API of the signed-in page and opens a job on it. */
export async function newJob(
  page: Page,
  name: string,
  layoutId: string,
  positions: string[],
): Promise<string> {
  const { layouts } = await import('@lanternwright/core/axle-plan');
  const axles = layouts.find((l) => l.id === layoutId)!.axles;
  const added = await page.request.post(`${shopUrl()}/api/fleet/units`, {
    data: {
      owner: 'Marrowbank Recovery',
      name,
      kind: 'rigid',
      axles,
      meter: { distance: { value: 81_000, unit: 'km' } },
    },
  });
  expect(added.ok(), await added.text()).toBe(true);
  const { id: unitId } = (await added.json()) as { id: string };
  const opened = await page.request.post(`${shopUrl()}/api/jobs`, {
    data: {
      unitId,
      title: 'Hubs for the test',
      complaint: '',
      reportedBy: '',
      meter: { distance: { value: 81_100, unit: 'km' } },
      positions,
    },
  });
  expect(opened.ok(), await opened.text()).toBe(true);
  return ((await opened.json()) as { id: string }).id;
}

export type Touch = 'key' | 'tap';

/** Picks a choice by its label: touched, or with the space bar. */
async function pick(page: Page, label: string, how: Touch): Promise<void> {
  const choice = page.getByLabel(label, { exact: true });
  await (how === 'tap' ? choice.tap() : choice.press('Space'));
}

async function press(page: Page, name: string | RegExp, how: Touch): Promise<void> {
  const button = page.getByRole('region', { name: 'Step at hand' }).getByRole('button', { name }).first();
  await expect(button).toBeVisible();
  if (how === 'tap') return button.tap();
  await button.press('Enter');
}

/** Three cycles of push and pull, typed as at the bench: figure, Enter, figure, Enter. */
export async function measure(page: Page, cycles: readonly [string, string][]): Promise<void> {
  for (const [i, [push, pull]] of cycles.entries()) {
    await expect(page.getByText(`Cycle ${i + 1}`, { exact: true }).last()).toBeVisible();
    await page.getByLabel(/^Pushed in/).fill(push);
    await page.keyboard.press('Enter');
    await page.getByLabel(/^Pulled out/).fill(pull);
    await page.keyboard.press('Enter');
  }
}

export const inBand: readonly [string, string][] = [
  ['0', '0.0031'],
  ['0.0002', '0.0033'],
  ['0', '0.0032'],
];

/** The first wrench of the list that is in calibration and able to do it. */
export async function chooseTool(page: Page): Promise<void> {
  await page
    .getByRole('group', { name: /^Torque wrench: those/ })
    .getByRole('button')
    .first()
    .press('Enter');
}

/** Does the step whose title is given, as a person would; the next step's title must come up. */
export async function doStep(page: Page, title: string, how: Touch): Promise<void> {
  const hand = page.getByRole('region', { name: 'Step at hand' });
  await expect(hand.getByRole('heading', { name: title, level: 2 })).toBeVisible();
  switch (title.replace(/, second round$/, '')) {
    case 'End play as found':
    case 'Measure end play':
      await measure(page, inBand);
      return press(page, /^Accept/, how);
    case 'Rock the wheel':
      return press(page, 'Nothing moves', how);
    case 'Tools, parts and lubricant at hand':
      await press(page, 'Everything is at hand', how);
      return press(page, 'Ready', how);
    case 'Judge the parts':
      await press(page, 'Every part is sound', how);
      return press(page, 'Record what was found', how);
    case 'Brakes back':
      await page.getByLabel('Inner lining, mm').fill('12');
      await page.getByLabel('Outer lining, mm').fill('11.5');
      return press(page, 'Record the brake', how);
    case 'Hub heat after the road':
      await page.getByLabel(/^This hub/).fill('48');
      await page.getByLabel(/^The other side/).fill('46 °C');
      return press(page, 'Record the temperatures', how);
    case 'Cups home':
    case 'Final look':
      return press(page, 'Yes', how);
    case 'What looked wrong':
      return press(page, 'Nothing looked wrong', how);
    case 'New beside old':
      return press(page, 'Every new part is as the old', how);
    case 'Pack the bearings':
      return press(page, /^Bearings (packed|oiled)/, how);
    case 'Seal in':
      await pick(page, 'Outside dry', how);
      return press(page, 'Seal is in', how);
    case 'Rotate the wheel':
      return press(page, /^Turned/, how);
    case 'Back off one full turn':
    case 'Final back-off':
    case 'Turn the adjusting nut':
      return press(page, /^(Backed off|Tightened)/, how);
    case 'Locking washer on':
    case 'To the slot that takes the pin':
      return press(page, 'Lined up', how);
    case 'Seat the bearings, third round':
    case 'Rotate the wheel, third round':
      return press(page, 'Leave this one out', how);
    case 'Seat the bearings':
    case 'Set torque':
    case 'Jam nut':
    case 'Wheel nuts': {
      const reached = page.getByLabel(/^Reached/);
      if (title === 'Jam nut') await reached.fill('250');
      if (title === 'Wheel nuts' && (await reached.inputValue()) === '') await reached.fill('85');
      await chooseTool(page);
      return press(page, 'Record the torque', how);
    }
    case 'Lock the nut':
      await pick(page, 'Two tangs bent', how);
      await page.getByLabel('Checked by').fill('S. Varga');
      return press(page, 'Record the lock', how);
    case 'New cotter in':
      await pick(page, 'New cotter, legs round the nut', how);
      await page.getByLabel('Checked by').fill('S. Varga');
      return press(page, 'Record the lock', how);
    case 'Fill and close':
      await pick(page, 'Gasket', how);
      return press(page, 'Filled and closed', how);
    case 'Which way to set it':
      return press(page, 'Torque, then back off', how);
    default:
      return press(page, 'Done', how);
  }
}

export const beforeAdjust = [
  'Rock the wheel',
  'End play as found',
  'Tools, parts and lubricant at hand',
  'Wheel and hub off',
  'What looked wrong',
  'Judge the parts',
  'New beside old',
  'Cups home',
  'Pack the bearings',
  'Seal in',
  'Hub on',
];
export const adjustA = [
  'Lubricate the bearings',
  'Seat the bearings',
  'Rotate the wheel',
  'Seat the bearings, second round',
  'Rotate the wheel, second round',
  'Seat the bearings, third round',
  'Rotate the wheel, third round',
  'Back off one full turn',
  'Set torque',
  'Final back-off',
  'Locking washer on',
  'Jam nut',
];
export const afterVerify = [
  'Fill and close',
  'Brakes back',
  'Wheel nuts',
  'Hub heat after the road',
  'Final look',
];
