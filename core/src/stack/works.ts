/** What can be wanted of a wheel end, named by its target part. */
export const works = {
  check: 'Check only',
  'wheel-off': 'Wheel off',
  retorque: 'Retorque the wheel nuts',
  'oil-level': 'Oil level',
  adjust: 'Adjust the bearings',
  brakes: 'Brakes',
  linings: 'Brake linings, renew',
  seal: 'Seal, renew',
  sleeve: 'Wear sleeve under the seal, fit',
  bearings: 'Bearings, renew',
  repack: 'Bearings, clean, judge and repack',
  studs: 'Studs, renew',
  hub: 'Hub, renew',
  'unit-hub': 'Unit hub, renew',
  shaft: 'Shaft, renew',
  'spindle-bearing': 'Spindle bearing, renew',
  spindle: 'Spindle, renew',
  swivels: 'Swivel bearings, renew',
  'knuckle-seal': 'Knuckle seal, renew',
  kingpin: 'Kingpin and bushes',
} as const;
export type Work = keyof typeof works;
