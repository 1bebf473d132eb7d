/** What a column of somebody's own fleet list can be. */
export const listFields = {
  unit: 'Number or name of the unit',
  plate: 'Plate',
  owner: 'Owner',
  kind: 'Kind of unit',
  make: 'Make',
  model: 'Model',
  year: 'Year',
  axles: 'How many axles',
  distance: 'Odometer',
  hours: 'Hour meter',
} as const;
export type ListField = keyof typeof listFields;

/** As people head such a column, without spaces and signs; what fits better stands first. */
const heads: Record<ListField, readonly string[]> = {
  unit: [
    ...[
      'unit',
      'unitno',
      'unitnumber',
      'unitname',
      'fleetno',
      'fleetnumber',
      'assetno',
      'assetnumber',
      'vehicleno',
    ],
    ...['vehiclenumber', 'number', 'no', 'nr', 'name', 'asset', 'vehicle', 'truck', 'id'],
  ],
  plate: [
    ...[
      'plate',
      'plateno',
      'platenumber',
      'licenceplate',
      'licenseplate',
      'licence',
      'license',
      'registration',
    ],
    ...['regno', 'reg', 'rego', 'registrationnumber', 'vrm', 'tag'],
  ],
  owner: ['owner', 'ownedby', 'company', 'customer', 'client', 'operator', 'account'],
  kind: [
    'kind',
    'type',
    'vehicletype',
    'unittype',
    'assettype',
    'category',
    'class',
    'body',
    'bodytype',
    'description',
  ],
  make: ['make', 'manufacturer', 'brand', 'builder'],
  model: ['model', 'modelname', 'variant'],
  year: ['year', 'modelyear', 'yr', 'built', 'yearbuilt', 'yearofmanufacture'],
  axles: [
    'axles',
    'noofaxles',
    'numberofaxles',
    'axlecount',
    'axleconfiguration',
    'axleconfig',
    'configuration',
    'drive',
  ],
  distance: [
    ...[
      'odometer',
      'odo',
      'odometerkm',
      'odometermi',
      'odometermiles',
      'km',
      'kms',
      'kilometres',
      'kilometers',
    ],
    ...['miles', 'mileage', 'distance', 'meter', 'meterreading', 'reading', 'currentmileage', 'currentkm'],
  ],
  hours: ['hours', 'hrs', 'enginehours', 'hourmeter', 'hourmeterreading', 'currenthours', 'h'],
};

const plain = (head: string) =>
  head
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '');

/**
 * What each column probably is, by its head; each field once, by the column whose head fits it best.
 * @returns in the order of the columns, null for one that says nothing of what is wanted
 */
export function guessColumns(head: readonly string[]): (ListField | null)[] {
  const guesses: (ListField | null)[] = head.map(() => null);
  for (const [field, words] of Object.entries(heads) as [ListField, readonly string[]][]) {
    const ranked = head
      .map((h, at) => ({ at, rank: words.indexOf(plain(h)) }))
      .filter(({ at, rank }) => rank >= 0 && guesses[at] === null)
      .sort((a, b) => a.rank - b.rank);
    if (ranked[0]) guesses[ranked[0].at] = field;
  }
  return guesses;
}

/** In what an odometer's column counts, where its head says so. */
export function distanceUnitIn(head: string): 'km' | 'mi' | null {
  const words = head.toLowerCase();
  const km = /\bkms?\b|kilomet/.test(words) || /km$/.test(plain(head));
  const mi = /\bmi\b|\bmiles\b/.test(words) || /(odometermi|currentmi|miles)$/.test(plain(head));
  return km === mi ? null : km ? 'km' : 'mi';
}
