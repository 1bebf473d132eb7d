import type { Capability } from './capability.ts';

/**
 * What a program may be given, in words: reading, sums and meters. Whatever a person answers for is no program’s. The
 * first two may be of one owner only.
 */
export const programCapabilities = {
  'see-units': 'Read units and their history',
  'see-jobs': 'Read jobs, their papers and photos',
  'see-plan': 'Read the plan, what is due and who is booked',
  'see-sheets': 'Read sheets',
  'see-tools': 'Read tools',
  'see-stores': 'Read parts and orders',
  'see-prices': 'Read part prices',
  'read-meters': 'Record meter readings',
  'run-sums': 'Run calculations',
  'see-metrics': 'Read server metrics',
} as const satisfies Partial<Record<Capability, string>>;
export type ProgramCapability = keyof typeof programCapabilities;

const ofOneOwner: ReadonlySet<ProgramCapability> = new Set(['see-units', 'see-jobs']);

/** What of these cannot be kept to one owner’s units; empty where all of it can. */
export const notOfOneOwner = (capabilities: readonly ProgramCapability[]): ProgramCapability[] =>
  capabilities.filter((c) => !ofOneOwner.has(c));
