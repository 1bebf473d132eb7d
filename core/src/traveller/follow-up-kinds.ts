/** What is to be looked after once a wheel end is out, besides its retorque. */
export const followUpKinds = {
  'oil-level': 'Oil level',
  temporary: 'Temporary repair',
  deferred: 'Deferred finding',
  'other-side': 'Other side',
} as const;
export type FollowUpKind = keyof typeof followUpKinds;
