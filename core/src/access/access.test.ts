import { expect, it } from 'vitest';
import { capabilities, may, roles, type Capability, type Role } from './index.ts';

// Read this as a reviewer: who may do what, a row a role.
it('gives every role what it is for, and nothing more', () => {
  const table = Object.fromEntries(
    (Object.keys(roles) as Role[]).map((role) => [
      role,
      (Object.keys(capabilities) as Capability[]).filter((c) => may(role, c)).join(', '),
    ]),
  );
  expect(table).toMatchInlineSnapshot(`
    {
      "owner-contact": "see-units, see-jobs, see-own-ahead, record-on-jobs",
      "storekeeper": "see-units, see-jobs, see-tools, see-sheets, see-plan, record-on-jobs, change-tools, see-stores, use-parts, keep-stores, see-prices, run-sums, share-terminal",
      "supervisor": "see-units, see-jobs, see-tools, see-sheets, add-units, change-fleet, read-meters, open-jobs, see-plan, plan-work, work-on-jobs, record-on-jobs, send-for-others, change-sheets, change-tools, see-stores, use-parts, keep-stores, see-prices, run-sums, share-terminal, manage-people, change-settings, see-metrics",
      "technician": "see-units, see-jobs, see-tools, see-sheets, add-units, read-meters, open-jobs, see-plan, plan-work, work-on-jobs, record-on-jobs, see-stores, use-parts, run-sums, share-terminal",
      "trainee": "see-sheets, run-sums",
    }
  `);
});

it('a supervisor may do everything that anybody in the shop may', () => {
  const inShop = (Object.keys(roles) as Role[]).filter((role) => role !== 'owner-contact');
  for (const c of Object.keys(capabilities) as Capability[])
    if (inShop.some((role) => may(role, c))) expect(may('supervisor', c), c).toBe(true);
});

it('an owner’s contact and a trainee change nothing of the shop', () => {
  for (const c of (Object.keys(capabilities) as Capability[]).filter((c) =>
    /^(change|add|open|manage|keep|use)/.test(c),
  ))
    for (const role of ['owner-contact', 'trainee'] as const)
      expect(may(role, c), `${role} ${c}`).toBe(false);
});
