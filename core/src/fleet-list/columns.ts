import type { Work } from '../stack/index.ts';

/** Works of which an office keeps the last date in its list. */
export const listedWorks = [
  ...(['repack', 'seal', 'bearings', 'adjust', 'linings', 'oil-level', 'check'] as const),
] satisfies Work[];
export type ListedWork = (typeof listedWorks)[number];
export type LastField = `last-${ListedWork}`;

/** What a column of somebody's own fleet list can be. */
export const listFields = {
  unit: 'Number or name of the unit',
  plate: 'Plate',
  'unit-plate': 'Number and plate in one cell',
  'plate-unit': 'Plate and number in one cell',
  owner: 'Owner',
  kind: 'Kind of unit',
  make: 'Make',
  model: 'Model',
  year: 'Year',
  axles: 'How many axles',
  distance: 'Odometer',
  hours: 'Hour meter',
  remarks: 'Remarks',
  'last-repack': 'Bearings last repacked on',
  'last-seal': 'Seals last renewed on',
  'last-bearings': 'Bearings last renewed on',
  'last-adjust': 'Bearings last adjusted on',
  'last-linings': 'Brake linings last renewed on',
  'last-oil-level': 'Hub oil last looked at on',
  'last-check': 'Wheel ends last checked on',
} as const satisfies Record<string, string> & Record<LastField, string>;
export type ListField = keyof typeof listFields;

/** As people head such a column, without spaces and signs; what fits better stands first. */
const heads: Record<Exclude<ListField, 'unit-plate' | 'plate-unit'>, readonly string[]> = {
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
  hours: [
    ...['hours', 'hrs', 'enginehours', 'enginehrs', 'hourmeter', 'hourmeterreading', 'currenthours'],
    ...['hoursrun', 'runninghours', 'machinehours', 'smu', 'h'],
  ],
  remarks: ['remarks', 'remark', 'notes', 'note', 'comments', 'comment', 'memo'],
  'last-repack': [
    ...['lastrepack', 'lastbearingrepack', 'bearingsrepacked', 'repacked', 'repack', 'lastrepacked'],
    ...[
      'lastwheelbearingservice',
      'wheelbearingservice',
      'bearingservice',
      'lastbearingservice',
      'lastgreased',
    ],
  ],
  'last-seal': [
    'lastseal',
    'lastseals',
    'sealsdone',
    'lasthubseal',
    'hubseals',
    'sealsrenewed',
    'wheelseals',
  ],
  'last-bearings': [
    'newbearings',
    'lastnewbearings',
    'bearingsrenewed',
    'bearingsreplaced',
    'bearingschanged',
  ],
  'last-adjust': [
    'lastadjustment',
    'lastadjusted',
    'bearingsadjusted',
    'bearingadjustment',
    'lastbearingadjustment',
  ],
  'last-linings': [
    'lastlinings',
    'brakeslast',
    'lastbrakes',
    'lastreline',
    'relined',
    'liningsrenewed',
    'lastbrakejob',
  ],
  'last-oil-level': ['huboil', 'lasthuboil', 'huboilchecked', 'lastoillevel'],
  'last-check': ['lastwheelendcheck', 'wheelendcheck', 'lastendplay', 'endplaychecked', 'lasthubcheck'],
};

/** A head without case, accents, spaces and signs. */
const plain = (head: string) =>
  head
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '');

/** What a head says, without what stands in brackets and without what its column counts in. */
const readings = (head: string): string[] => [
  plain(head),
  plain(head.replace(/\(.*?\)|\[.*?\]/g, '')),
  plain(head.replace(/\b(dates?|d\/m\/y|m\/d\/y|dd?.mm.yy(yy)?|mm.dd.yy(yy)?)\b/gi, '')),
];

const rankOf = (head: string, words: readonly string[]): number => {
  const ranks = readings(head).map((reading) => words.indexOf(reading));
  return Math.min(...ranks.map((rank) => (rank < 0 ? Infinity : rank)));
};

/** A head that names two things of a unit, as `Unit / Plate` or `Fleet no. (reg)`. */
function bothIn(head: string): 'unit-plate' | 'plate-unit' | null {
  const [first, second, ...more] = head.split(/\s*[/,&+(|;]\s*|\s+and\s+|\s+-\s+/i).map(plain);
  if (!first || !second || more.some((part) => part !== '')) return null;
  if (heads.unit.includes(first) && heads.plate.includes(second)) return 'unit-plate';
  return heads.plate.includes(first) && heads.unit.includes(second) ? 'plate-unit' : null;
}

/**
 * What each column probably is, by its head; each field once, by the column whose head fits it best, but every column of
 * remarks.
 * @returns in the order of the columns, null for one that says nothing of what is wanted
 */
export function guessColumns(head: readonly string[]): (ListField | null)[] {
  const guesses: (ListField | null)[] = head.map(() => null);
  const both = head.findIndex((h) => bothIn(h) !== null);
  if (both >= 0) guesses[both] = bothIn(head[both]!);
  for (const [field, words] of Object.entries(heads) as [keyof typeof heads, readonly string[]][]) {
    const named = both >= 0 && (field === 'unit' || field === 'plate');
    const ranked = head
      .map((h, at) => ({ at, rank: rankOf(h, words) }))
      .filter(({ at, rank }) => rank < Infinity && guesses[at] === null && !named)
      .sort((a, b) => a.rank - b.rank);
    for (const { at } of field === 'remarks' ? ranked : ranked.slice(0, 1)) guesses[at] = field;
  }
  return guesses;
}

/** Rows in which heads are looked for: above them stand a title, an address, a date. */
const ROWS_WITH_HEADS = 20;

/**
 * The row with the heads of a list: the one that names most of what is wanted, else the first that is not empty.
 * @param rows cells as text, from the first line of the file on
 * @returns its index; −1 where all rows are empty
 */
export function headRowIn(rows: readonly (readonly string[])[]): number {
  const first = rows.findIndex((row) => row.some((cell) => cell !== ''));
  let best = { at: first, named: 1 };
  for (const [at, row] of rows.slice(0, ROWS_WITH_HEADS).entries()) {
    const named = guessColumns(row).filter((field) => field !== null).length;
    if (named > best.named) best = { at, named };
  }
  return best.at;
}

/** In what an odometer's column counts, where its head says so. */
export function distanceUnitIn(head: string): 'km' | 'mi' | null {
  const words = head.toLowerCase();
  const km = /\bkms?\b|kilomet/.test(words) || /km$/.test(plain(head));
  const mi = /\bmi\b|\bmiles\b/.test(words) || /(odometermi|currentmi|miles)$/.test(plain(head));
  return km === mi ? null : km ? 'km' : 'mi';
}
