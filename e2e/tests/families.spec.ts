import { expect } from '@playwright/test';
import type { JobDetail } from '@lanternwright/contract/jobs';
import { shopUrl, signedIn, test } from '../hands/shop.ts';
import { newFamilyJob, recordBeginning, recordEnd, workThrough } from '../hands/work-through.ts';

/** Families A and D have stories of their own; here is one job for each of the others. */
const families = {
  'b-drive': ['ring-in', 'seat-3', 'set-3', 'lock'],
  'c-preset': ['set', 'end-play', 'lock'],
  'e-keyed-washer': ['washer-slides', 'caliper-bolts', 'lock'],
  'e-torque': ['seat-2', 'back-off-2', 'lock'],
  'f-unitised': ['hub-bolts', 'axle-nut', 'sensor-lead'],
  'g-c-clip': ['clip-in', 'cover-joint', 'cover-bolts'],
  'h-lock-nuts': ['preload', 'drag', 'lock'],
  'j-shaft-seal': ['pack-seal', 'grub-screws', 'lock'],
  'k-spindle-needle': ['needle-in', 'shaft-order', 'lock'],
  'l-swivel': ['two-greases', 'drag', 'lock'],
  'm-swaged-studs': ['cut-swage', 'stud-in', 'lock'],
};

for (const [sheetId, steps] of Object.entries(families)) {
  test(`a whole job on ${sheetId} ends released, its steps on record`, async ({ browser }) => {
    test.setTimeout(120_000);
    const page = await signedIn(browser, 'R. Thistlewood');
    const { jobId } = await newFamilyJob(page, `Family ${sheetId}`, sheetId);
    await recordBeginning(page, jobId);
    await page.goto(`${shopUrl()}/jobs/${jobId}`);
    await workThrough(page);
    await recordEnd(page, jobId);
    await page.getByRole('button', { name: 'Release 1L', exact: true }).press('Enter');
    await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
    const stored = async () =>
      ((await (await page.request.get(`${shopUrl()}/api/jobs/${jobId}`)).json()) as JobDetail).events;
    await expect.poll(async () => (await stored()).at(-1)?.body.kind).toBe('wheel-end-released');
    const recorded = (await stored()).flatMap(({ body }) =>
      body.kind === 'step-recorded' ? [body.stepId] : [],
    );
    expect(recorded).toEqual(expect.arrayContaining(steps));
  });
}
