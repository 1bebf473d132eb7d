import { expect } from '@playwright/test';
import type { Work } from '@lanternwright/core/stack';
import { countEffort, tellEffort } from '../helpers/effort.ts';
import { shopUrl, signedIn, test, workUntil } from '../helpers/shop.ts';
import { fetchJob, newFamilyJob } from '../helpers/work-through.ts';

interface Kind {
  sheetId: string;
  works: Work[];
  role?: string;
  brake?: string;
  /** Steps that must stand in the record. */
  steps: string[];
}

/** Two nuts and the castellated nut have stories of their own; here is one job for each of the other kinds. */
const kinds: Record<string, Kind> = {
  'one-piece nut': {
    sheetId: 'b-drive',
    works: ['bearings'],
    steps: ['cup-home', 'seat-3', 'set-3', 'ring-in', 'lock'],
  },
  'pre-set hub': {
    sheetId: 'c-preset',
    works: ['seal'],
    brake: 'disc',
    steps: ['set', 'lock', 'caliper-bolts'],
  },
  'staked nut by its washer': {
    sheetId: 'e-keyed-washer',
    works: ['repack'],
    brake: 'disc',
    steps: ['washer-slides', 'lock', 'bracket-bolts', 'caliper-bolts', 'brake-proved'],
  },
  'unitised hub': {
    sheetId: 'f-unitised',
    works: ['unit-hub'],
    brake: 'disc',
    steps: ['axle-nut-broken', 'hub-bolts', 'hub-bolts-2', 'axle-nut', 'lock', 'sensor-lead'],
  },
  'C-clip axle': {
    sheetId: 'g-c-clip',
    works: ['seal'],
    role: 'drive',
    steps: ['axle-opened', 'shaft-in', 'pin-bolt', 'shaft-movement', 'axle-cover-3', 'axle-level'],
  },
  '4×4 front: hub lock, round nuts, spindle bearing and swivels in one visit': {
    sheetId: 'h-lock-nuts',
    works: ['spindle-bearing', 'swivels'],
    role: 'steer',
    brake: 'disc',
    steps: [
      'cap-cracked',
      'links-off',
      'swivel-preload',
      'links',
      'joint-pins',
      'needle-depth',
      'spindle-nuts',
      'lock',
      'drag',
      'flange-nuts',
      'wheel-nuts',
    ],
  },
  'crawler seal': {
    sheetId: 'j-shaft-seal',
    works: ['seal'],
    role: 'drive',
    steps: ['pack-seal', 'grub-screws', 'lock'],
  },
  'old drum hub with a new stud': {
    sheetId: 'm-swaged-studs',
    works: ['studs'],
    steps: ['swage-cut', 'studs-home', 'jam-nut', 'end-play', 'lock', 'wheel-nuts'],
  },
  'planetary front': {
    sheetId: 'n-planetary',
    works: ['seal'],
    role: 'steer',
    brake: 'none',
    steps: ['oil-out', 'seal-height', 'rolling-torque', 'lock', 'carrier-in', 'flange-nuts', 'oil-level'],
  },
  'dumper hub on shims': {
    sheetId: 'n-shims',
    works: ['seal'],
    brake: 'none',
    steps: ['shims', 'plate-bolts', 'rolling-torque', 'carrier-in', 'wheel-nuts'],
  },
  'caravan rubber axle': {
    sheetId: 'f-drum',
    works: ['brakes'],
    role: 'trailer',
    steps: ['unit-hub-off', 'brakes-back', 'axle-nut', 'inner-brake-proved', 'wheel-nuts'],
  },
  'compact trailer hub': {
    sheetId: 'f-compact',
    works: ['unit-hub'],
    role: 'trailer',
    brake: 'disc',
    steps: ['unit-hub-off', 'axle-nut', 'lock', 'sensor-lead', 'caliper-bolts', 'wheel-nuts'],
  },
};

for (const [name, { sheetId, works, role, brake, steps }] of Object.entries(kinds)) {
  test(`${name}: a whole job ends released, its steps on record`, async ({ browser }) => {
    test.setTimeout(150_000);
    const page = await signedIn(browser, 'R. Thistlewood');
    const { jobId } = await newFamilyJob(page, `Built ${sheetId}`, sheetId, { works, role, brake });
    await countEffort(page);
    await page.goto(`${shopUrl()}/jobs/${jobId}`);
    await workUntil(page, 'Release 1L');
    await tellEffort(page, name, (await fetchJob(page, jobId)).events.length - 1);
    if (sheetId === 'g-c-clip') {
      // The pin that was out holds the clip of the other side as well.
      await expect(page.getByText(/take 1R into the job, and look at it/).first()).toBeVisible();
      await page.getByRole('button', { name: 'Take 1R into this job' }).press('Enter');
      await page.getByRole('button', { name: 'Check only' }).press('Enter');
      await page.getByRole('button', { name: 'Take 1R into this job' }).press('Enter');
      await expect.poll(async () => (await fetchJob(page, jobId)).wheelEnds.length).toBe(2);
    }
    await page.getByRole('button', { name: 'Release 1L', exact: true }).press('Enter');
    await expect(page.getByText(/Released by R\. Thistlewood/)).toBeVisible();
    await expect
      .poll(async () => (await fetchJob(page, jobId)).events.at(-1)?.body.kind)
      .toBe('wheel-end-released');
    const recorded = (await fetchJob(page, jobId)).events.flatMap(({ body }) =>
      body.kind === 'step-recorded' ? [body.stepId] : [],
    );
    expect(recorded).toEqual(expect.arrayContaining(steps));
    // In the order of the list: what is undone last is redone first.
    const places = steps.map((id) => recorded.indexOf(id));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });
}
