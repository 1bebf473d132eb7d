import { expect, type Page } from '@playwright/test';
import type { Found } from '@lanternwright/contract/fleet';
import { browserOf, shopUrl, signedIn, test } from '../helpers/shop.ts';
import { workbook } from '../../web/src/testing/workbook.ts';

async function plateOf(page: Page, unit: string): Promise<string> {
  const answer = await page.request.get(`${shopUrl()}/api/find`, { params: { text: unit } });
  return ((await answer.json()) as Found).units.find((u) => u.name === unit)!.plate;
}

test('the fleet is filtered by owner, kind and state, and found with /', async ({ browser }) => {
  const page = await browserOf(browser, 'I. Okonedo');
  await page.getByRole('button', { name: /in a job$/ }).click();
  await expect(page.getByRole('link', { name: /Tern 418/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Valley 12/ })).toBeHidden();
  await page.getByRole('button', { name: /in a job$/ }).click();
  await page.getByLabel('Kind').selectOption('Bus');
  await expect(page.getByRole('link', { name: /Valley 12/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Tern 401/ })).toBeHidden();
  await page.getByLabel('State').selectOption('being worked on');
  await expect(page.getByRole('link', { name: /Valley/ })).toHaveCount(1);
  await page.reload();
  await expect(page.getByRole('link', { name: /Valley 27/ })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByLabel('Find a unit, a job, a part or a calculation')).toBeFocused();
  await page.keyboard.type('drift 11');
  await page.keyboard.press('ArrowDown');
  await page.getByRole('option', { name: /^Drift 11/ }).click();
  await expect(page.getByRole('heading', { name: 'Drift 11', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: /^2R/ }).press('Enter');
  const done = page.getByRole('region', { name: 'What was done on 2R' });
  await expect(done.getByRole('heading')).toBeVisible();
  // What was done two years ago: in two steps from Find.
  await done.getByLabel('Search its visits').fill('bearings renew');
  await expect(done.getByText(/^Bearings, renew/).first()).toBeVisible();
  await done.getByRole('button', { name: 'Every record' }).last().press('Enter');
  await expect(done.getByText(/opened the job on/)).toBeVisible();
});

test('a fleet file is previewed, brought in and exported again', async ({ browser }) => {
  const page = await browserOf(browser, 'R. Thistlewood');
  await page.getByRole('link', { name: 'Import a fleet' }).click();
  await page.getByRole('link', { name: 'A file with a line per axle' }).click();
  const csv = [
    'owner,unit,kind,plate,distance,hours,axle,role,wheels,brake,sheet',
    'Saltmarsh Drainage Board,Sluice 90,work-machine,,,1200 h,1,steer,single,disc,a-steer-double',
    'Saltmarsh Drainage Board,Sluice 91,hovercraft,,,,1,steer,single,disc,a-steer-double',
  ].join('\n');
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'fleet.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByRole('heading', { name: '1 good unit' })).toBeVisible();
  await expect(page.getByText('line 3')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 1 unit, leave 1 row out' }).click();
  await expect(page.getByText('1 units are in.')).toBeVisible();
  const exported = await (await page.request.get(`${shopUrl()}/api/exchange/fleet.csv`)).text();
  expect(exported).toContain('Saltmarsh Drainage Board,Sluice 90,work-machine');
});

test('readings of a file are looked at, brought in as one record, and known the second time', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'I. Okonedo');
  await page.goto(`${shopUrl()}/fleet`);
  await page.getByRole('link', { name: 'Readings' }).click();
  const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
  const lines = [3, 2, 1].map((ago) => `Heather 33,${day(ago)},${12 - ago}`);
  const buffer = Buffer.from(['unit,date,km', ...lines, 'No such unit,2026-01-02,7', ''].join('\n'));
  const choose = () =>
    page.locator('input[type=file]').setInputFiles({ name: 'week.csv', mimeType: 'text/csv', buffer });
  await choose();
  await expect(page.getByText('no unit is called No such unit')).toBeVisible();
  // The page is left and come back to: the file waits.
  await page.reload();
  await page.getByRole('button', { name: /^Bring in 3 readings/ }).click();
  await expect(page.getByText(/3 readings of 1 unit are in, as one record/)).toBeVisible();
  await page.getByRole('button', { name: 'Another file' }).click();
  await choose();
  await expect(page.getByRole('button', { name: 'Put it away' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Bring in/ })).toHaveCount(0);
});

test('a bad unit form says what is wrong beside the field and keeps what was typed', async ({ browser }) => {
  const page = await browserOf(browser, 'D. Achterberg');
  await page.goto(`${shopUrl()}/fleet/new`);
  await page.getByLabel('Owner').fill('Marrow Valley Buses');
  await page.getByLabel('Distance on the meter').fill('a lot');
  await page.getByRole('button', { name: /Two axles, dual drive/ }).click();
  await page.getByRole('button', { name: 'Add the unit' }).click();
  await expect(page.getByText('Give the unit a name')).toBeVisible();
  await expect(page.getByText('"a lot" is not a figure')).toBeVisible();
  await page.getByLabel('Distance on the meter').fill('12,000 mi');
  await page.getByLabel('Name').fill('Valley 12');
  await page.getByRole('button', { name: 'Add Valley 12' }).click();
  await expect(page.getByText('Marrow Valley Buses has a unit named Valley 12 already')).toBeVisible();
  await expect(page.getByLabel('Owner')).toHaveValue('Marrow Valley Buses');
});

test('thou and mm, day and night are switched by key and kept', async ({ browser }) => {
  // Units go with the person: this one is of no other test.
  const login = `reader${test.info().retry}`;
  const supervisor = await signedIn(browser, 'R. Thistlewood');
  const person = { name: 'U. Reader', login, role: 'technician', owners: [] };
  const added = await supervisor.request.post(`${shopUrl()}/api/people`, { data: person });
  const { code } = (await added.json()) as { code: string };
  const page = await signedIn(browser, 'M. Pellow');
  const entered = await page.request.post(`${shopUrl()}/api/people/session/code`, {
    data: { login, code, password: 'four wet bearings' },
  });
  expect(entered.ok(), await entered.text()).toBe(true);
  await page.goto(`${shopUrl()}/fleet?state=in-band`);
  await expect(page.getByText(/^0\.0\d\d\d in$/).first()).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByText(/^0\.\d\d\d mm$/).first()).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect(page.getByText(/^0\.\d\d\d mm$/).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Fleet', level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
});

test('two supervisors change the axles of one unit: the second is told, and a history stays with its axle', async ({
  browser,
}) => {
  const [first, second] = [await signedIn(browser, 'I. Okonedo'), await signedIn(browser, 'R. Thistlewood')];
  const { units } = (await (await first.request.get(`${shopUrl()}/api/fleet/units`)).json()) as {
    units: {
      id: string;
      name: string;
      axles: unknown[];
      openJobId: string | null;
      wheelEnds: { position: string; endPlayMm: number | null }[];
    }[];
  };
  const unit = units.find(
    (u) => u.axles.length === 3 && !u.openJobId && u.wheelEnds.find((w) => w.position === '2L')?.endPlayMm,
  )!;
  for (const page of [first, second]) {
    await page.goto(`${shopUrl()}/fleet/${unit.id}/axles`);
    await page.getByRole('button', { name: 'Take axle 2 out' }).click();
  }
  await second.getByRole('button', { name: 'Put another axle in place 2' }).click();
  await first.getByRole('button', { name: 'Keep these axles' }).click();
  await expect(first.getByRole('heading', { name: 'Axles taken out' })).toBeVisible();
  await expect(first.getByText(/^Axle 2, .*2L last/)).toBeVisible();
  await expect(first.getByRole('button', { name: /^3L,/ })).toBeVisible();
  await expect(first.getByRole('button', { name: /^2L,/ })).toBeHidden();

  await second.getByRole('button', { name: 'Keep these axles' }).click();
  await expect(second.getByText(/changed since you opened it/)).toBeVisible();
  await second.reload();
  await second.getByRole('button', { name: 'Put another axle in place 2' }).click();
  await second.getByRole('button', { name: 'Keep these axles' }).click();
  await expect(second.getByRole('button', { name: /^2L, not measured/ })).toBeVisible();
  // What was measured before stands with the old axle, not with the new one.
  await second.goto(`${shopUrl()}/fleet/${unit.id}?at=2L`);
  await expect(second.getByText('Nothing was done on 2L yet.')).toBeVisible();
});

test('an office’s own list, a workbook of 40 rows with bad ones, becomes units', async ({ browser }) => {
  const page = await browserOf(browser, 'R. Thistlewood');
  const owner = test.info().retry === 0 ? 'Kestrel Freight' : 'Kestrel Freight, once more';
  const head = ['Fleet No', 'Make', 'Model', 'Year', 'Registration', 'Odometer', 'Type', 'Axles', 'Customer'];
  const trucks = Array.from({ length: 24 }, (_, i) => [
    ...[`KF ${101 + i}`, 'Harrow', 'HX 400', 2019, `KFT ${101 + i}-${owner.length}`, 300_000 + 1_000 * i],
    ...['Tractor unit', i % 2 ? '6x4' : '4x2', owner],
  ]);
  const trailers = Array.from({ length: 12 }, (_, i) => [
    ...[`KF ${201 + i}`, '', '', 2015, `KFS ${201 + i}-${owner.length}`, '', 'Curtainsider', '', owner],
  ]);
  const bad = [
    ['KF 101', 'Harrow', 'HX 400', 2019, '', '', 'Tractor unit', '4x2', owner],
    ['KF 301', 'Valley', 'Loop', 2014, '', '1.200', 'Coach', 2, owner],
    ['', '', '', '', '', '', 'Coach', 2, owner],
    // A unit of the demo has this plate.
    ['KF 302', 'Valley', 'Loop', 2014, await plateOf(page, 'Tern 418'), '', 'Tractor unit', 2, owner],
  ];
  await page.getByRole('link', { name: 'Import a fleet' }).click();
  await page.getByLabel('Choose a list').setInputFiles({
    name: 'fleet.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(workbook({ Fleet: [head, ...trucks, ...trailers, ...bad] })),
  });
  await expect(page.getByLabel('Registration', { exact: true })).toHaveValue('plate');
  await expect(page.getByText('Choose one: it holds for the whole column')).toBeVisible();
  await page.getByLabel('Odometer: “1.200” is').selectOption('1,200 km');
  await page
    .getByRole('region', { name: 'Plan of Semi-trailer' })
    .getByRole('button', { name: /three axles/ })
    .click();
  await page
    .getByRole('region', { name: /^Plan of Bus/ })
    .getByRole('button', { name: /Bus, two axles/ })
    .click();
  await expect(page.getByRole('heading', { name: '38 units' })).toBeVisible();
  await page.getByRole('button', { name: 'Check 38 units against the fleet' }).click();
  await expect(page.getByText(/Tern 418, .* has the plate/)).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 37 units, leave 3 rows out' }).click();
  await expect(page.getByText('37 units are in.')).toBeVisible();
  await page.goto(`${shopUrl()}/fleet?search=KF+212`);
  await page.getByRole('link', { name: /KF 212/ }).click();
  await expect(page.getByRole('button', { name: /^3R/ })).toBeVisible();
});
