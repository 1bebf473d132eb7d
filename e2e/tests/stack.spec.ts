import { expect } from '@playwright/test';
import { countEffort, tellEffort } from '../helpers/effort.ts';
import { doStep, measure, newJob, shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';
import {
  fetchJob,
  newFamilyJob,
  openFamilyJob,
  recordTo,
  recordWhile,
  stepAt,
} from '../helpers/work-through.ts';

test('a brake job on a drive axle finds a leaking seal, goes deeper, and ends released', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const jobId = await newJob(page, 'Beacon 60', 'tractor-2', ['2L'], ['brakes']);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const before = await workUntil(page, 'Judge the parts');
  expect(before).toContain('End play as found');
  expect(before).not.toContain('Hub off');
  await page.getByRole('button', { name: 'Add work found' }).click();
  await page.getByRole('button', { name: 'Seal, renew' }).click();
  await page.getByLabel('What was found').fill('Oil on the inside of the lining');
  await page.getByRole('button', { name: 'Add: seal, renew' }).click();
  // What the seal needs is asked for first, then only what is not yet off comes off.
  const after = await workUntil(page, 'Release 2L');
  expect(after[0]).toBe('Tools, parts and lubricant at hand');
  expect(after).toEqual(
    expect.arrayContaining([
      'Crack the flange nuts',
      'Flange off, shaft drawn',
      'Hub off',
      'Seal in',
      'Lock the nut',
      'Flange nuts',
    ]),
  );
  expect(after).not.toContain('Wheel off');
  await page.getByRole('button', { name: 'Release 2L', exact: true }).click();
  await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});

test('a supervisor who tries to override a missing lock is refused, by the page and by the server', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'I. Okonedo');
  const { jobId } = await newFamilyJob(page, 'Hollow 70', 'a-trailer', { role: 'trailer' });
  await recordTo(page, jobId, 'lock');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await expect(page.getByRole('heading', { name: 'Lock the nut' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Skip this step' })).toHaveCount(0);
  const tried = async (command: object) => {
    const data = { id: crypto.randomUUID(), seenVersion: 999, command };
    const answer = await page.request.post(`${shopUrl()}/api/jobs/${jobId}/events`, { data });
    return { status: answer.status(), detail: ((await answer.json()) as { detail: string }).detail };
  };
  const at = { position: '1L', stage: 'lock-and-fill', stepId: 'lock', round: 1 };
  expect(await tried({ kind: 'step-skipped', ...at, reason: 'No washer on the shelf' })).toMatchObject({
    status: 422,
  });
  const released = await tried({
    kind: 'wheel-end-released',
    position: '1L',
    overrideReason: 'It has to be back on the road this evening, whatever it takes',
  });
  expect(released.status).toBe(422);
  expect(released.detail).toMatch(/^1L cannot be released: .*The lock is not recorded/);
});

test('a jam nut redone after Verify must be measured again, and locked again', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'D. Achterberg');
  const jobId = await newJob(page, 'Beacon 61', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'lock-looked-at');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'Adjust, 2L: done' }).click();
  const line = page.getByRole('listitem').filter({ hasText: 'Jam nut' });
  await line.getByRole('button', { name: 'Do it again' }).click();
  await page.getByLabel(/^Reached/).fill('360');
  await page
    .getByRole('group', { name: /^Torque wrench: those/ })
    .getByRole('button')
    .first()
    .click();
  await page.getByRole('button', { name: 'Record the torque' }).click();
  await expect(page.getByRole('heading', { name: 'Measure end play' })).toBeVisible();
  await expect(page.getByText('Cycle 1', { exact: true })).toBeVisible();
  await workUntil(page, 'A second person looks at the lock');
  const kinds = (await fetchJob(page, jobId)).events.flatMap((e) =>
    e.body.kind === 'step-recorded' ? [e.body.stepId] : [],
  );
  expect(kinds.filter((k) => k === 'lock')).toHaveLength(2);
});

test('a spacer found half way: the sheet is changed, settings go, the work done stays', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'I. Okonedo');
  const jobId = await newJob(page, 'Beacon 62', 'tractor-2', ['2L']);
  await recordTo(page, jobId, 'set');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'Different construction' }).click();
  await page.getByLabel('The sheet that fits').selectOption('Pre-set hub with a bearing spacer');
  await page.getByLabel('How it is seen').fill('A spacer stood between the bearings');
  await page.getByRole('button', { name: 'Change the sheet of this wheel end' }).click();
  await expect(page.getByRole('heading', { name: 'Nut to its torque' })).toBeVisible();
  await expect(page.getByText('Nut, bearing spacer').first()).toBeVisible();
  const w = (await fetchJob(page, jobId)).wheelEnds[0]!;
  expect(w.sheet.sheetId).toBe('c-preset');
  expect(w.records.some((r) => r.stepId === 'hub-on')).toBe(true);
});

test('an adjustment with the wheel on opens the nut and nothing else', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const jobId = await newJob(page, 'Hollow 71', 'semi-2', ['1R'], ['adjust']);
  await countEffort(page);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  const done = await workUntil(page, 'Release 1R');
  await tellEffort(page, 'short adjustment', (await fetchJob(page, jobId)).events.length - 1);
  expect(done).toEqual(
    expect.arrayContaining([
      'Oil cap off',
      'Lock opened',
      'Brake freed',
      'Brake working again',
      'Lock the nut',
    ]),
  );
  for (const title of ['Wheel off', 'Hub off', 'Wheel nuts, full torque', 'Linings'])
    expect(done).not.toContain(title);
  await page.getByRole('button', { name: 'Release 1R', exact: true }).click();
  await expect(page.getByText('The wheel was not off: nothing is torqued again.')).toBeVisible();
});

test('a C-clip axle is done on both sides with one cover, closed when neither side needs it', async ({
  browser,
}) => {
  test.setTimeout(150_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const jobId = await newJob(page, 'Beacon van 60', 'van-2', ['2L', '2R']);
  await recordWhile(page, jobId, (step) => step.id !== 'axle-cover-joint', '2L');
  await page.goto(`${shopUrl()}/jobs/${jobId}?at=2L`);
  await expect(page.getByRole('heading', { name: 'Cover joint' })).toBeVisible();
  await page.getByRole('button', { name: 'Gasket' }).click();
  await expect(
    page.getByText('Put the shaft of 2R back first: the axle is closed once').first(),
  ).toBeVisible();
  await recordWhile(page, jobId, (step) => step.id !== 'axle-cover-joint', '2R');
  await page.getByRole('button', { name: 'Gasket' }).click();
  await expect(page.getByRole('heading', { name: 'Cover bolts, first stage' })).toBeVisible();
  // Both sides are lowered together.
  await recordWhile(page, jobId, (step) => step.id !== 'down', '2L');
  await expect(page.getByRole('heading', { name: 'Down on its wheels' })).toBeVisible();
  await page.getByRole('region', { name: 'Step at hand' }).getByRole('button', { name: 'Done' }).click();
  await expect(
    page.getByText('Put the wheel of 2R on first: both sides of an axle are lowered together').first(),
  ).toBeVisible();
  await recordWhile(page, jobId, (step) => step.id !== 'down', '2R');
  await workUntil(page, 'Release 2L');
  await recordWhile(page, jobId, () => true, '2R');
  const recorded = (await fetchJob(page, jobId)).events.flatMap((e) =>
    e.body.kind === 'step-recorded' ? [e.body.stepId] : [],
  );
  for (const id of ['axle-opened', 'axle-cover-3', 'axle-oil'])
    expect(recorded.filter((r) => r === id)).toHaveLength(1);
  expect(recorded.filter((r) => r === 'pin-bolt')).toHaveLength(2);
  await page.getByRole('button', { name: /^Release 2L and 2R together/ }).click();
  await expect
    .poll(async () => (await fetchJob(page, jobId)).wheelEnds.every((w) => w.release !== null))
    .toBe(true);
});

test('a hub that arrives in pieces is put back without being taken off', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const { unitId, jobId: first } = await newFamilyJob(page, 'Marsh 60', 'a-trailer', {
    role: 'trailer',
    works: ['check'],
  });
  await recordTo(page, first);
  await page.request.post(`${shopUrl()}/api/jobs/${first}/events`, {
    data: {
      id: crypto.randomUUID(),
      seenVersion: 999,
      command: { kind: 'wheel-end-released', position: '1L' },
    },
  });
  await page.goto(`${shopUrl()}/fleet/${unitId}`);
  await page.getByRole('button', { name: 'Open a job' }).click();
  await page.getByRole('checkbox', { name: '1L' }).check();
  await page.getByRole('button', { name: 'Bearings, renew' }).click();
  await page.getByText('Already apart, or').click();
  for (const layer of ['Wheel', 'Cap, flange or hub lock', 'Brake, outer', 'Bearing nut', 'Hub'])
    await page.getByRole('button', { name: `${layer} is off`, exact: true }).click();
  await page.getByRole('button', { name: 'Open the job on 1L' }).click();
  const done = await workUntil(page, 'Release 1L');
  for (const title of ['Wheel off', 'Hub off', 'Crack the wheel nuts']) expect(done).not.toContain(title);
  expect(done).toEqual(
    expect.arrayContaining(['Cups home', 'Hub on', 'Lock the nut', 'Linings', 'Wheel nuts, full torque']),
  );
});

test('a job ends out of service and is taken up again by a later one', async ({ browser }) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'I. Okonedo');
  const { unitId, jobId } = await newFamilyJob(page, 'Marsh 61', 'a-trailer', { role: 'trailer' });
  await recordTo(page, jobId, 'judge-parts');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.getByRole('button', { name: 'End out of service' }).click();
  await expect(page.getByText(/1L: wheel off, .*hub off/)).toBeVisible();
  await page.getByRole('button', { name: 'End it out of service' }).click();
  await expect(page.getByText('Enter the reason, how it leaves, and who was informed')).toBeVisible();
  await page.getByLabel('Why it ends without a release').fill('Spindle is scrap, a new one in three weeks');
  await page.getByLabel('Leaves on a bed').check();
  await page.getByLabel('Who was informed').fill('Q. Fenmoor');
  await page.getByRole('button', { name: 'End it out of service' }).click();
  await expect(page.getByText(/Out of service: Spindle is scrap/)).toBeVisible();
  await page.goto(`${shopUrl()}/fleet/${unitId}`);
  await expect(page.getByText(/out of service/i).first()).toBeVisible();
  const next = await openFamilyJob(page, unitId, 82_000, ['bearings']);
  expect(await stepAt(page, next)).toBe('Tools, parts and lubricant at hand');
});

test('a brake that stays on a wheel-off job prompts the bearing check; a loose bearing leads on', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'R. Thistlewood');
  const jobId = await newJob(page, 'Hollow 72', 'semi-2', ['2L'], ['wheel-off']);
  await recordTo(page, jobId, 'as-found');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await measure(page, [
    ['0', '0.0125'],
    ['0', '0.0126'],
    ['0', '0.0124'],
  ]);
  await page.getByRole('button', { name: /^Accept/ }).press('Enter');
  await workUntil(page, 'Release 2L');
  await expect(page.getByText(/End play was found loose by 0\.0075 in: adjust now/)).toBeVisible();
  await expect(page.getByText(/2L cannot be released/)).toBeVisible();
  await page.getByRole('button', { name: 'Add work found' }).click();
  await page.getByRole('button', { name: 'Adjust the bearings' }).click();
  await page.getByLabel('What was found').fill('Loose with the wheel off');
  await page.getByRole('button', { name: 'Add: adjust the bearings' }).click();
  await doStep(page, 'Tools, parts and lubricant at hand', 'key');
  await workUntil(page, 'Release 2L');
  await page.getByRole('button', { name: 'Release 2L', exact: true }).click();
  await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
});

test('an owner declines one line: it comes off the route, and everybody in the job sees it', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const chief = await signedIn(browser, 'I. Okonedo');
  const page = await signedIn(browser, 'D. Achterberg');
  const jobId = await newJob(page, 'Beacon 63', 'tractor-2', ['2L'], ['brakes', 'studs']);
  await recordTo(page, jobId, 'rims');
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await chief.goto(`${shopUrl()}/jobs/${jobId}`);
  await chief.getByRole('button', { name: 'Estimate and bill' }).click();
  await chief.getByRole('button', { name: 'Write the estimate' }).click();
  await expect(chief.getByLabel('Each').first()).toBeVisible();
  for (const each of await chief.getByLabel('Each').all()) await each.fill('215');
  await chief.getByRole('button', { name: 'Save the estimate' }).click();
  const unanswered = 'The owner has not answered the estimate yet';
  await expect(page.getByRole('region', { name: 'What waits' })).toContainText(unanswered);
  await page.getByRole('button', { name: 'Both tyres deflated' }).click();
  await expect(page.getByRole('alert')).toHaveText(unanswered);
  await chief.getByLabel('The owner’s answer').selectOption('Do it now');
  await chief.getByLabel('Who answered').fill('Q. Fenmoor');
  await chief.getByLabel('2L, studs, renew').selectOption('Decline it');
  await chief.getByRole('button', { name: 'Record the answer' }).click();
  await expect(page.getByText(/Studs, renew\. Declined by Q\. Fenmoor/)).toBeVisible();
  const done = await workUntil(page, 'Release 2L');
  expect(done).toContain('Linings');
  expect(done).not.toContain('Hub off');
});

test('records of two people wait on one tablet: each stays with who made it, whoever sends it', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const page = await signedIn(browser, 'S. Varga');
  const jobId = await newJob(page, 'Beacon 64', 'tractor-2', ['2L'], ['check']);
  await page.goto(`${shopUrl()}/jobs/${jobId}`);
  await page.context().route('**/events', (route) => route.abort());
  await doStep(page, 'Level ground, chocks', 'key');
  await expect(page.getByText(/1 record waits on this device/)).toBeVisible();
  const signInAs = async (name: string) => {
    await page.goto(`${shopUrl()}/fleet`);
    const session = `${shopUrl()}/api/people/session`;
    const { demoPeople } = (await (await page.request.get(session)).json()) as {
      demoPeople: { id: string; name: string }[];
    };
    await page.request.post(`${session}/demo`, {
      data: { personId: demoPeople.find((p) => p.name === name)!.id },
    });
    await page.goto(`${shopUrl()}/jobs/${jobId}`);
  };
  await signInAs('I. Okonedo');
  await page.context().unroute('**/events');
  await expect(page.getByText(/1 record waits on this device that S\. Varga made/)).toBeVisible();
  expect((await fetchJob(page, jobId)).version).toBe(1);
  await signInAs('S. Varga');
  const madeBy = async (nth: number) => (await fetchJob(page, jobId)).events[nth]?.by;
  await expect.poll(() => madeBy(1), { timeout: 15_000 }).toMatchObject({ name: 'S. Varga' });
  expect(await madeBy(1)).not.toHaveProperty('sentBy');

  // The next one waits while its maker is gone: a supervisor sends it on after a question that names both.
  await page.context().route('**/events', (route) => route.abort());
  await doStep(page, 'Lift and support', 'key');
  await expect(page.getByText(/1 record waits on this device/)).toBeVisible();
  await signInAs('I. Okonedo');
  await page.context().unroute('**/events');
  await page.getByRole('button', { name: 'Send them now' }).click();
  await expect(
    page.getByText(/They stay records of S\. Varga, and say that I\. Okonedo sent them/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Send them for S. Varga' }).click();
  await expect
    .poll(() => madeBy(2), { timeout: 15_000 })
    .toMatchObject({ name: 'S. Varga', sentBy: { name: 'I. Okonedo' } });
  await page.getByRole('button', { name: 'Tear down' }).first().click();
  await expect(page.getByText(/S\. Varga, sent by I\. Okonedo/).first()).toBeVisible();
});
