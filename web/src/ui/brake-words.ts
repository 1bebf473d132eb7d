/** How far the rod of a brake chamber goes, in words. */
export const strokeTitles = {
  standard: 'Standard stroke',
  long: 'Long stroke',
  'extra-long': 'Extra-long stroke',
} as const;
