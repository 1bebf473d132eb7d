import type { Role } from './role.ts';

const shop: readonly Role[] = ['supervisor', 'technician', 'storekeeper'];

/**
 * What may be seen and done, and by whom: the one table that the server, the browser and the tests read. An owner's
 * contact sees what is named here of their own owners only.
 */
export const capabilities = {
  'see-units': [...shop, 'owner-contact'],
  'see-jobs': [...shop, 'owner-contact'],
  'see-tools': shop,
  'see-sheets': [...shop, 'trainee'],
  /** What waits for an owner's answer, where their units stand, and what is due on them. */
  'see-own-ahead': ['owner-contact'],
  'add-units': ['supervisor', 'technician'],
  'change-fleet': ['supervisor'],
  'read-meters': ['supervisor', 'technician'],
  'open-jobs': ['supervisor', 'technician'],
  'see-plan': shop,
  'plan-work': ['supervisor', 'technician'],
  'work-on-jobs': ['supervisor', 'technician'],
  /** What of it, the job decides: an owner's contact answers estimates, a storekeeper receives parts. */
  'record-on-jobs': [...shop, 'owner-contact'],
  /** What another person recorded on a device and did not send: it stays theirs. */
  'send-for-others': ['supervisor'],
  'change-sheets': ['supervisor'],
  'change-tools': ['supervisor', 'storekeeper'],
  'see-stores': shop,
  'use-parts': shop,
  'keep-stores': ['supervisor', 'storekeeper'],
  /** What parts cost. */
  'see-prices': ['supervisor', 'storekeeper'],
  'run-sums': [...shop, 'trainee'],
  'share-terminal': shop,
  'manage-people': ['supervisor'],
  'change-settings': ['supervisor'],
  'see-metrics': ['supervisor'],
} as const satisfies Record<string, readonly Role[]>;
export type Capability = keyof typeof capabilities;

/** Whether people of this role may do that. */
export function may(role: Role, capability: Capability): boolean {
  return (capabilities[capability] as readonly Role[]).includes(role);
}

/** What takes a password: a PIN is short, and typed where others look on. */
const passwordOnly: ReadonlySet<Capability> = new Set([
  'manage-people',
  'change-settings',
  'change-fleet',
  'change-sheets',
]);

/** Whether somebody who changed in at a shared terminal with a PIN may do that. */
export function pinIsEnough(capability: Capability): boolean {
  return !passwordOnly.has(capability);
}
