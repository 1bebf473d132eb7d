import { expect } from '@playwright/test';
import { axe, stepPart } from '../helpers/axe.ts';
import { doStep, newJob, shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';
import { fetchJob, recordTo, recordWhile, stepAt } from '../helpers/work-through.ts';

test('the blamed kingpin: two indicators lead to the bearing; a doubtful part goes to the supervisor and back', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'D. Achterberg');
  const chief = await signedIn(browser, 'I. Okonedo');
  const jobId = await newJob(page, 'Beacon 70', 'tractor-2', ['1L']);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);

  await test.step('ready: a line missing asks for a reason', async () => {
    await page.getByRole('button', { name: 'Everything is at hand' }).click();
    await page.getByRole('radiogroup', { name: 'Hub seal' }).getByRole('radio', { name: 'Missing' }).click();
    await page.getByRole('button', { name: 'Start all the same' }).click();
    await expect(page.getByText('Enter a reason, or wait for it')).toBeVisible();
    await axe(page, 'Ready', stepPart);
    await page.getByLabel(/why the work starts all the same/i).fill('Comes with the noon delivery');
    await page.getByRole('button', { name: 'Start all the same' }).click();
    await expect(page.getByText('Hub seal: not here yet')).toBeVisible();
    await page.getByRole('button', { name: 'It has come' }).click();
    await expect(page.getByText('Hub seal: not here yet')).toBeHidden();
    await workUntil(page, 'Rock the wheel');
  });

  await test.step('diagnose', async () => {
    await page.getByRole('button', { name: 'Moves at 12 and 6' }).click();
    await page.getByLabel(/^Axle to knuckle/).fill('0.0012 in');
    await page.getByLabel(/^Knuckle to hub/).fill('0.30 mm');
    await page.getByLabel(/^Allowed at the kingpin/).fill('0.010');
    // Beside millimetres and inches a bare figure could be either.
    await expect(page.getByText(/^Add a unit: /)).toBeVisible();
    await page.getByLabel(/^Allowed at the kingpin/).fill('0.010 in');
    await page.getByLabel('Square on the end of the hub').check();
    await expect(page.getByText(/The bearing is loose, the kingpin is sound\. 91 %/)).toBeVisible();
    await axe(page, 'Diagnose', stepPart);
    await page.getByRole('button', { name: 'Record the movement' }).click();
    await workUntil(page, 'Judge the parts');
  });

  await test.step('estimate: written, answered, kept', async () => {
    await chief.goto(`${shopUrl()}/jobs/${jobId}`);
    await chief.getByRole('button', { name: 'Estimate and bill' }).click();
    await chief.getByRole('button', { name: 'Write the estimate' }).click();
    // It begins with the planned hours at the shop's rate, and its supplies and taxes.
    await expect(chief.getByLabel('Each').first()).toHaveValue('78.00');
    for (const each of await chief.getByLabel('Each').all()) await each.fill('0');
    await chief.getByLabel('How many').first().fill('1');
    await chief.getByLabel('Each').first().fill('300');
    await chief.getByRole('button', { name: 'Remove tax 1' }).click();
    await chief.getByLabel(/^Supplies/).fill('0');
    await chief.getByRole('button', { name: 'Add a tax' }).click();
    await chief.getByLabel('Tax', { exact: true }).fill('VAT');
    await chief.getByLabel('Tax, %').fill('20');
    await chief.getByLabel('labour', { exact: true }).check();
    await expect(chief.getByText('360.00 GBP')).toBeVisible();
    await axe(chief, 'Estimate', 'main');
    await chief.getByRole('button', { name: 'Save the estimate' }).click();
    await chief.getByLabel('The owner’s answer').selectOption('defer');
    await chief.getByLabel('Who answered').fill('Q. Fenmoor');
    await chief.getByRole('button', { name: 'Record the answer' }).click();
    await expect(chief.getByText('Deferred needs a date and the risk in words')).toBeVisible();
    await chief.getByLabel('The owner’s answer').selectOption('do-now');
    await chief.getByRole('button', { name: 'Record the answer' }).click();
    await expect(chief.getByText(/Q\. Fenmoor: do it now/)).toBeVisible();
  });

  await test.step('inspect: what could go either way is asked', async () => {
    await page.getByText('Add a photo').click();
    await page.getByLabel('Of which part').selectOption('Spindle shoulder');
    await page.getByLabel('What it shows').fill('Step on the shoulder');
    const picture = { name: 'shoulder.png', mimeType: 'image/png', buffer: await page.screenshot() };
    await page.getByLabel('Take or choose a photo').setInputFiles(picture);
    await expect(page.getByRole('img', { name: 'Step on the shoulder' })).toBeVisible();
    await expect(page.getByText(/^Spindle shoulder\. Step on the shoulder\./)).toBeVisible();
    const text = { name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') };
    await page.getByLabel('Take or choose a photo').setInputFiles(text);
    await expect(page.getByText('This file is no picture. Nothing was kept.')).toBeVisible();
    await page.getByRole('button', { name: 'Every part is sound' }).click();
    await page.getByRole('radio', { name: /^Bent, cracked/ }).check();
    await page.getByRole('radio', { name: /^A small step/ }).check();
    await expect(page.getByText('Replace as a set, cone and cup together')).toBeVisible();
    await axe(page, 'Inspect', stepPart);
    await page.getByRole('button', { name: 'Record and ask the supervisor' }).click();
    await expect(page.getByText('Waits for the supervisor: spindle shoulder of 1L')).toBeVisible();
    // The new cage is asked for before anything goes back together.
    await page.getByRole('radiogroup', { name: 'Cage' }).getByRole('radio', { name: 'Have it' }).click();
    await page.getByRole('button', { name: 'Ready', exact: true }).click();
    await doStep(page, 'New beside old', 'key');
    await page.getByRole('button', { name: 'Yes' }).click();
    await expect(
      page.getByText('The supervisor has to decide about spindle shoulder first').first(),
    ).toBeVisible();
  });

  await test.step('the supervisor finds it under Decide and answers; the technician goes on at once', async () => {
    await chief.goto(`${shopUrl()}/jobs`);
    await chief
      .getByRole('region', { name: 'Decide' })
      .getByRole('link', { name: /Beacon 70, 1L/ })
      .click();
    await chief.getByLabel('Your reason').fill('A hair, and it is back in a month');
    await axe(chief, 'Decide', 'main');
    await chief.getByRole('button', { name: 'Reuse', exact: true }).click();
    await expect(page.getByText(/Waits for the supervisor/)).toBeHidden();
    for (const title of ['Cups home', 'Oil the bearings', 'Seal in', 'Hub on'])
      await doStep(page, title, 'key');
  });

  await test.step('held and resumed', async () => {
    await page.getByRole('button', { name: 'Hold the job' }).click();
    await page.getByLabel('What it waits for').fill('Seal comes at noon');
    await page.getByRole('button', { name: 'Hold it' }).click();
    await expect(page.getByText(/Held: Seal comes at noon/)).toBeVisible();
    await page
      .getByRole('region', { name: 'Step at hand' })
      .getByRole('button', { name: /^(Done|Yes)$/ })
      .click();
    await expect(page.getByText('The job is held: Seal comes at noon').first()).toBeVisible();
    await page.getByRole('button', { name: 'Resume the job' }).click();
    await workUntil(page, 'Seat the bearings');
  });

  await test.step('released with something to look after later', async () => {
    await expect.poll(() => stepAt(page, jobId)).toBe('Seat the bearings');
    await recordWhile(page, jobId, () => true);
    await expect(chief.getByText('Look after something later, 1 named')).toBeVisible();
    await chief.getByText('Look after something later').click();
    await chief.getByLabel('What kind').selectOption('temporary');
    await chief.getByLabel('By when').fill('2026-12-10');
    await chief.getByRole('button', { name: 'Name it' }).click();
    await axe(chief, 'Release', 'main');
    await chief.getByRole('button', { name: /^Release 1L/ }).click();
    await chief.getByRole('button', { name: 'Looked after' }).first().click();
    await expect(chief.getByText(/Looked after by I\. Okonedo/)).toBeVisible();
    const papers = chief.getByRole('region', { name: 'On paper' });
    const download = chief.waitForEvent('download');
    await papers.getByRole('link', { name: 'Service record' }).click();
    expect((await download).suggestedFilename()).toMatch(/^record-\d+\.pdf$/);
  });
});

test('Bay view at 390 px: a keypad, a gauge that types, and the simulated instruments fill the fields', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'M. Pellow', {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  const jobId = await newJob(page, 'Beacon 71', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'end-play');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  // By touch a job opens in it.
  await expect(page.getByRole('button', { name: 'Whole job' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'What holds' })).toBeHidden();
  const inSight = async () => {
    const pad = (await page.getByRole('group', { name: 'Keypad' }).boundingBox())!;
    const ends = (await page.getByRole('group', { name: 'Wheel end' }).boundingBox())!;
    const { height } = page.viewportSize()!;
    return {
      pad: pad.y >= 0 && pad.y + pad.height <= height,
      ends: ends.y >= 0 && ends.y + ends.height <= height,
    };
  };
  expect(await inSight()).toEqual({ pad: true, ends: true });
  await page.setViewportSize({ width: 768, height: 1024 });
  expect(await inSight()).toEqual({ pad: true, ends: true });
  await page.setViewportSize({ width: 390, height: 844 });
  await axe(page, 'Bay view');

  const press = async (keys: string) => {
    for (const key of keys)
      await page.getByRole('button', { name: key === '.' ? 'Point' : key, exact: true }).tap();
  };
  await press('0');
  await page.getByRole('button', { name: 'Next' }).tap();
  await press('.0031');
  await page.getByRole('group', { name: 'Keypad' }).getByRole('button', { name: 'Record' }).tap();
  await expect(page.getByText('Cycle 2', { exact: true })).toBeVisible();

  // A gauge that types goes to the field even when the focus is elsewhere.
  await page.getByRole('button', { name: 'Back', exact: true }).focus();
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await page.keyboard.type('0.0032');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Cycle 3', { exact: true })).toBeVisible();

  const knobs = process.env['KNOBS_URL']!;
  const say = (line: string) => page.request.post(`${knobs}/send`, { data: { line } });
  await expect(page.getByText(/Dial indicator connected/)).toBeVisible();
  await say('DI-04 271 Nm');
  await expect(page.getByText(/DI-04: .*Nothing was taken from it/)).toBeVisible();
  // A dial that nobody has taken fills nothing, whoever has a reading open.
  await say('DI-04 0.0021 in');
  await expect(page.getByRole('button', { name: 'Take DI-04' })).toBeVisible();
  await expect(page.getByLabel(/^Pushed in/)).toHaveValue('');
  await page.getByRole('button', { name: 'Take DI-04' }).tap();
  await expect(page.getByText(/DI-04 is yours for this step/)).toBeVisible();
  await say('DI-04 0.0000 in');
  await expect(page.getByLabel(/^Pushed in/)).toHaveValue('0 in');
  await page.request.post(`${knobs}/drop`, { data: {} });
  await page.waitForTimeout(2500);
  await say('DI-04 0.0033 in');
  await page.getByRole('button', { name: /^Accept/ }).tap();
  await expect(page.getByRole('heading', { name: 'Lock the nut' })).toBeVisible();
  await page.getByRole('button', { name: 'Whole job' }).tap();
  await expect(page.getByRole('navigation', { name: 'Traveller' })).toBeVisible();
});

test('a sheet is revised and shows what changed; a copy is a sheet of its own', async ({ browser }) => {
  const page = await signedIn(browser, 'R. Thistlewood');
  await page.goto(`${shopUrl()}/fleet/sheets`);
  await expect(page.getByRole('heading', { name: 'Sheets', level: 1 })).toBeVisible();
  await axe(page, 'Sheets');
  await page.getByRole('link', { name: /Steer axle, two nuts/ }).click();
  await page.getByRole('button', { name: 'Confirm jam torque' }).click();
  await page.getByLabel('End-play band, from').fill('0.001');
  await page.getByLabel('End-play band, to').fill('0.004');
  await page.getByLabel('What changed and why').fill('The axle maker asks for less');
  await axe(page, 'Sheet');
  await page.getByRole('button', { name: 'Keep as revision 2' }).click();
  await expect(page.getByText(/Revision 2, R\. Thistlewood/)).toBeVisible();
  await expect(page.getByRole('cell', { name: '0.001 to 0.004 in. Set by the shop' }).last()).toBeVisible();
  await page.getByLabel('Copy it as a sheet of its own, titled').fill('Marsh steer axle');
  await page.getByRole('button', { name: 'Copy the sheet' }).click();
  await expect(page.getByRole('heading', { name: /Marsh steer axle/ })).toBeVisible();
});

test('two jobs measured at once with two dials: nothing crosses, and each sees who has the other', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const [left, right] = [await signedIn(browser, 'D. Achterberg'), await signedIn(browser, 'M. Pellow')];
  const knobs = process.env['KNOBS_URL']!;
  const say = (line: string) => left.request.post(`${knobs}/send`, { data: { line } });
  const open = async (page: typeof left, name: string) => {
    const jobId = await newJob(page, name, 'tractor-2', ['2L']);
    await recordTo(page, jobId, 'end-play');
    await page.goto(`${shopUrl()}/jobs/${jobId}`);
    await expect(page.getByText(/Dial indicator connected/)).toBeVisible();
    return jobId;
  };
  const jobs = [await open(left, 'Beacon 73'), await open(right, 'Beacon 74')] as const;
  await say('DI-21 0.0010 in');
  await say('DI-22 0.0010 in');
  await left.getByRole('button', { name: 'Take DI-21' }).click();
  await expect(right.getByText('DI-21 is with D. Achterberg, 2L of Beacon 73')).toBeVisible();
  await right.getByRole('button', { name: 'Take DI-22' }).click();
  await expect(right.getByText(/DI-22 is yours/)).toBeVisible();
  for (const line of ['DI-21 0.0000 in', 'DI-22 0.0001 in', 'DI-21 0.0031 in', 'DI-22 0.0042 in'])
    await say(line);
  const cycles = async (i: 0 | 1) =>
    (await fetchJob(left, jobs[i])).wheelEnds[0]!.readings.filter((r) => r.round === 1).map((r) => [
      r.push.value,
      r.pull.value,
      r.gauge,
    ]);
  await expect.poll(() => cycles(0)).toEqual([[0, 0.0031, 'DI-21']]);
  await expect.poll(() => cycles(1)).toEqual([[0.0001, 0.0042, 'DI-22']]);
});
