import type { Session } from '@lanternwright/contract/people';
import type { Work } from '@lanternwright/core/stack';
import {
  test as base,
  expect,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Locator,
  type Page,
} from '@playwright/test';

export const shopUrl = () => process.env['SHOP_URL']!;

/** Faults that pages of this test wrote to their console, or threw. */
let faults: string[] = [];

/** A request that is refused, or cut by a test, stands in the console as well; a test says itself what it expects of it. */
const ofTheNetwork = /Failed to load resource|net::ERR_|WebSocket|EventSource/;

/** Notes every fault of every page that a context opens. */
export function watched(context: BrowserContext): BrowserContext {
  context.on('page', (page) => {
    page.on('pageerror', (error) => faults.push(`${page.url()} threw ${error.message}`));
    page.on('console', (message) => {
      if (message.type() === 'error' && !ofTheNetwork.test(message.text()))
        faults.push(`${page.url()} said ${message.text()}`);
    });
  });
  return context;
}

/**
 * A test after which every context it opened is closed: each keeps a live stream and would slow the next. A fault in a
 * page's console is a fault of the test.
 */
export const test = base.extend<{ tidy: void }>({
  tidy: [
    async ({ browser }, use) => {
      faults = [];
      await use();
      await Promise.all(browser.contexts().map((context) => context.close()));
      expect(faults, 'faults in the console').toEqual([]);
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
  const context = watched(
    await browser.newContext({ reducedMotion: 'reduce', serviceWorkers: 'block', ...options }),
  );
  const page = await context.newPage();
  await page.goto(shopUrl());
  await page.getByRole('button', { name: new RegExp(person) }).click();
  await expect(page.getByRole('heading', { name: /, .* bays?$/, level: 1 })).toBeVisible();
  await page.goto(`${shopUrl()}/fleet`);
  await expect(page.getByRole('heading', { name: 'Fleet', level: 1 })).toBeVisible();
  return page;
}

/** A browser of its own in which one of the demo people is signed in already; nothing is opened yet. */
export async function signedIn(
  browser: Browser,
  person: string,
  options: BrowserContextOptions = {},
): Promise<Page> {
  const context = watched(
    await browser.newContext({ reducedMotion: 'reduce', serviceWorkers: 'block', ...options }),
  );
  const session = `${shopUrl()}/api/people/session`;
  const { demoPeople } = (await (await context.request.get(session)).json()) as Session;
  const personId = demoPeople.find((p) => p.name === person)?.id;
  const answer = await context.request.post(`${session}/demo`, { data: { personId } });
  expect(answer.ok(), await answer.text()).toBe(true);
  return context.newPage();
}

/** Adds a unit through the API of the signed-in page. */
export async function addUnit(page: Page, name: string, axles: readonly unknown[]): Promise<string> {
  const added = await page.request.post(`${shopUrl()}/api/fleet/units`, {
    data: {
      // At a second try the shop has the unit of the first.
      owner: test.info().retry === 0 ? 'Marrowbank Recovery' : 'Marrowbank Recovery, once more',
      name,
      kind: 'rigid',
      axles,
      meter: { distance: { value: 81_000, unit: 'km' } },
    },
  });
  expect(added.ok(), await added.text()).toBe(true);
  return ((await added.json()) as { id: string }).id;
}

/** Adds a unit from a common plan and opens a job on it. */
export async function newJob(
  page: Page,
  name: string,
  layoutId: string,
  positions: string[],
  works: Work[] = ['seal'],
): Promise<string> {
  const { layouts } = await import('@lanternwright/core/axle-plan');
  const unitId = await addUnit(page, name, layouts.find((l) => l.id === layoutId)!.axles);
  const opened = await page.request.post(`${shopUrl()}/api/jobs`, {
    data: {
      unitId,
      title: 'Hubs for the test',
      complaint: '',
      reportedBy: '',
      meter: { distance: { value: 81_100, unit: 'km' } },
      wheelEnds: positions.map((position) => ({ position, works })),
    },
  });
  expect(opened.ok(), await opened.text()).toBe(true);
  return ((await opened.json()) as { id: string }).id;
}

export type Touch = 'key' | 'tap';

/** Longest time between the two taps of a double tap, which the page takes for one. */
const DOUBLE_TAP_MS = 500;

/** Acts on a choice or a button, as soon as it can be: a key pressed on one that waits would be lost. */
async function act(target: Locator, how: Touch, key: 'Enter' | 'Space'): Promise<void> {
  await expect(target).toBeEnabled();
  if (how === 'key') return target.press(key);
  await target.page().waitForTimeout(DOUBLE_TAP_MS);
  await target.tap();
}

/** Picks a choice by its label: touched, or with the space bar. */
const pick = (page: Page, label: string, how: Touch): Promise<void> =>
  act(page.getByLabel(label, { exact: true }), how, 'Space');

const press = (page: Page, name: string | RegExp, how: Touch): Promise<void> =>
  act(stepAtHand(page).getByRole('button', { name }).first(), how, 'Enter');

/** Three cycles of push and pull, each typed with a space between and one Enter. */
export async function measure(page: Page, cycles: readonly [string, string][]): Promise<void> {
  for (const [i, [push, pull]] of cycles.entries()) {
    await expect(page.getByText(`Cycle ${i + 1}`, { exact: true }).last()).toBeVisible();
    await page.getByLabel(/^Pushed in/).fill(`${push} ${pull}`);
    await page.keyboard.press('Enter');
  }
}

export const inBand: readonly [string, string][] = [
  ['0', '0.0031'],
  ['0.0002', '0.0033'],
  ['0', '0.0032'],
];

/** The first wrench of the list that is in calibration and able to do it. */
async function chooseTool(page: Page): Promise<void> {
  await page
    .getByRole('group', { name: /^Torque wrench: those/ })
    .getByRole('button')
    .first()
    .press('Enter');
}

/** The part of the page that holds the one step at hand. */
export const stepAtHand = (page: Page): Locator => page.getByRole('region', { name: 'Step at hand' });

/** Title of the step that the page shows. */
const titleOf = (page: Page): Promise<string> =>
  stepAtHand(page).getByRole('heading', { level: 2 }).first().innerText();

async function fillTorque(page: Page): Promise<void> {
  const stepPanel = stepAtHand(page);
  const makers = page.getByLabel(/^The maker’s sheet asks for/);
  const reached = page.getByLabel(/^Reached/);
  if (await makers.isVisible()) {
    await makers.fill('60');
    await reached.fill('60');
  } else {
    const words = await stepPanel.innerText();
    const figure = /([\d.]+)(?: to ([\d.]+))? lbf·ft/.exec(words);
    await reached.fill(figure![2] ?? figure![1]!);
  }
}

/** Buttons that answer a step by themselves, in the order they are looked for. */
const answers = [
  'Nothing moves',
  'Nothing looked wrong',
  'Every new part is as the old',
  'Bearings oiled',
  'Yes',
  'Done',
  /^Turned /,
  /^(Backed off|Tightened)/,
  'No movement felt, spins freely',
  'Light, even drag all the way round',
  'Lined up',
  'Gasket',
  'Torque, then back off',
  'Both tyres deflated, cores out',
  'Caged',
  'Rim sound, tyre stays up',
];

/** Answers whatever step is shown by what it shows, as an honest technician would. */
async function answerShown(page: Page, how: Touch, tries = 4): Promise<void> {
  const stepPanel = stepAtHand(page);
  const button = (name: string | RegExp) => stepPanel.getByRole('button', { name });
  const seen = (name: string | RegExp) => button(name).first().isVisible();
  if (await seen('Record the torque')) {
    await fillTorque(page);
    const again = /^Record it, with .* again$/;
    if (await seen(again)) return press(page, again, how);
    await chooseTool(page);
    return press(page, 'Record the torque', how);
  }
  if (await page.getByLabel(/^Pushed in/).isVisible()) {
    await measure(page, inBand);
    return press(page, /^Accept/, how);
  }
  if (await seen('Record the lock')) {
    await stepPanel.getByRole('radio').first().check();
    return press(page, 'Record the lock', how);
  }
  if (await seen(/has looked: locked$/)) return press(page, /has looked: locked$/, how);
  if (await seen(/^(Ready|Start all the same)$/)) {
    await press(page, /^(Everything|The rest) is at hand$/, how);
    return press(page, 'Ready', how);
  }
  if (await seen(/(the rest is|The rest is|Every part is) sound$/)) {
    await press(page, /(the rest is|The rest is|Every part is) sound$/, how);
    return press(page, 'Record what was found', how);
  }
  if (await seen('Record the brake')) {
    const kinds = stepPanel.getByRole('group', { name: 'Which brake' });
    if (await kinds.isVisible())
      await act(kinds.getByRole('radio', { name: /^Air drum/ }).last(), how, 'Space');
    await page.getByLabel('Inner lining, mm').fill('12');
    await page.getByLabel('Outer lining, mm').fill('11.5');
    await pick(page, 'Free', how);
    return press(page, 'Record the brake', how);
  }
  if (await seen('Record the temperatures')) {
    await page.getByLabel(/^This hub/).fill('48');
    await page.getByLabel(/^The other side/).fill('46 °C');
    await page.getByLabel(/^The air/).fill('12');
    return press(page, 'Record the temperatures', how);
  }
  const asked = stepPanel
    .getByRole('group', { name: /^What goes in/ })
    .getByRole('radio')
    .first();
  if (await asked.isVisible()) await act(asked, how, 'Space');
  if (await seen('Filled and closed')) {
    await pick(page, 'Gasket', how);
    return press(page, 'Filled and closed', how);
  }
  if (await seen(/^Filled$/)) return press(page, /^Filled$/, how);
  if (await seen('Record the pull')) {
    await page.getByLabel(/^Pull at/).fill('30 N');
    const least = page.getByLabel(/^The maker asks for at least/);
    if (await least.isVisible()) {
      await least.fill('20 N');
      await page.getByLabel(/^At most/).fill('40 N');
    }
    return press(page, 'Record the pull', how);
  }
  if (await seen('Record the rolling torque')) {
    await pick(page, 'Bearings that have run', how);
    await pick(page, 'Torque gauge', how);
    await page.getByLabel(/^Torque while it turns/).fill('6 Nm');
    await page.getByLabel(/^The maker asks for at least/).fill('5 Nm');
    await page.getByLabel(/^At most/).fill('8 Nm');
    return press(page, 'Record the rolling torque', how);
  }
  if (await seen('Record the sensor')) {
    await pick(page, 'Fixed, nothing to set', how);
    return press(page, 'Record the sensor', how);
  }
  if (await seen('Record the shims')) {
    await pick(page, 'Thicker is looser', how);
    await page.getByLabel(/^Shims that are in now/).fill('1.5 mm');
    await page.getByLabel(/^End play with them/).fill('0.3 mm');
    await page.getByLabel(/^The maker asks for preload/).fill('0.02 mm');
    await page.getByLabel(/^At most/).fill('0.08 mm');
    await page.getByLabel(/^Shims that go in/).fill('1.15 mm');
    return press(page, 'Record the shims', how);
  }
  const packed = /^(Bearings|Seal) packed$/;
  if (await seen(packed)) {
    await pick(page, 'By hand', how);
    return press(page, packed, how);
  }
  if (await seen('Seal is in')) {
    await pick(page, 'Outside dry', how);
    await pick(page, 'Driven to its stop', how);
    return press(page, 'Seal is in', how);
  }
  const cast = page.getByLabel(/^Discard figure cast into it/);
  if (await cast.isVisible()) {
    const isDrum = await page.getByLabel(/^Diameter 1/).isVisible();
    await page.getByLabel(/^(Diameter|Thickness) 1/).fill(isDrum ? '420 mm' : '39 mm');
    await cast.fill(isDrum ? '424 mm' : '37 mm');
    return press(page, 'Record the measurement', how);
  }
  if (await seen('Record the stroke')) {
    await page.getByLabel(/^Face to pin, released/).fill('70 mm');
    await page.getByLabel(/^Face to pin, applied/).fill('112 mm');
    await page.getByLabel('Chamber, as marked on it').selectOption('Type 30');
    await page.getByLabel('Stroke of the chamber').selectOption('Standard stroke');
    return press(page, 'Record the stroke', how);
  }
  if (await seen('Record the measurement')) {
    await stepPanel.getByRole('textbox').nth(0).fill('0.2 mm');
    await page.getByLabel(/^At least/).fill('0.1 mm');
    await page.getByLabel(/^At most/).fill('0.3 mm');
    return press(page, 'Record the measurement', how);
  }
  for (const name of answers) if (await seen(name)) return press(page, name, how);
  // The step may have changed while its buttons were looked for.
  if (tries > 1) {
    await page.waitForTimeout(300);
    return answerShown(page, how, tries - 1);
  }
  throw new Error(`nothing to press on “${await titleOf(page)}”`);
}

/** Does the step whose title is given; it must be the one that is shown. */
export async function doStep(page: Page, title: string, how: Touch): Promise<void> {
  const stepPanel = stepAtHand(page);
  await expect(stepPanel.getByRole('heading', { name: title, level: 2, exact: true })).toBeVisible();
  await answerShown(page, how);
}

/** Does every step that is shown until one with this title comes up. */
export async function workUntil(page: Page, title: string | RegExp, how: Touch = 'key'): Promise<string[]> {
  const done: string[] = [];
  const fits = (shown: string) => (typeof title === 'string' ? shown === title : title.test(shown));
  for (let guard = 0; guard < 120; guard++) {
    const shown = await titleOf(page);
    if (fits(shown)) return done;
    await answerShown(page, how);
    done.push(shown);
    await expect(
      stepAtHand(page).getByRole('heading', { level: 2, name: shown, exact: true }),
      `after “${shown}”`,
    ).toBeHidden();
  }
  throw new Error(`“${String(title)}” does not come up`);
}
