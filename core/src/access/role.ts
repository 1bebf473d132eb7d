/** Who somebody is to the shop. An owner's contact belongs to one or more owners; a trainee practises. */
export const roles = {
  supervisor: 'supervisor',
  technician: 'technician',
  storekeeper: 'storekeeper',
  'owner-contact': 'owner’s contact',
  trainee: 'trainee',
} as const;
export type Role = keyof typeof roles;
