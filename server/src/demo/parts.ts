import { partSchema, type Part } from '@lanternwright/core/part';
import { quantity } from '@lanternwright/core/quantity';
import { addDays } from '@lanternwright/core/interval';
import type { OrderBody, Recorder, StockBody } from '@lanternwright/core/record';
import type { Demo } from './generate.ts';
import { demoShop } from './scenario.ts';
import { uuidOf } from './random.ts';

interface Listed extends Partial<Omit<Part, 'dims' | 'price' | 'fits' | 'id'>> {
  kind: Part['kind'];
  number: string;
  title: string;
  /** Bore, outside and width, mm; null where it has none. */
  mm: readonly [number | null, number | null, number | null];
  price: number;
  sheets?: readonly string[];
  line?: string;
  place: string;
  /** How many lie there today. */
  here: number;
}

const lips = (count: number) => ({ count, facing: 'inward' as const });
const drive = ['a-drive-tang', 'a-drive-dowel', 'b-drive'];
const grease = ['d-towed', 'd-farm-front', 'e-keyed-washer', 'e-torque', 'f-unitised', 'j-shaft-seal'];
const steer = ['d-steer-12', 'd-steer-18', 'a-steer-double'];
const seal = {
  kind: 'seal',
  line: 'part:hub-seal',
  lips: lips(2),
  supplier: 'Quayside Bearings',
  leadDays: 6,
} as const;
const set = {
  kind: 'bearing-set',
  line: 'part:cups-and-rollers',
  supplier: 'Quayside Bearings',
  leadDays: 9,
} as const;

/** Invented parts under invented numbers, with sizes that such parts have. */
const listed: readonly Listed[] = [
  {
    ...seal,
    ...{ number: '47-2210', title: 'Hub seal of the drive axle, oil', mm: [114.3, 152.4, 22], price: 41.85 },
    ...{ crossings: ['HSX 9917', 'QB 4722 10'], sheets: drive, place: 'A3', here: 4, reorderLevel: 6 },
  },
  {
    ...seal,
    number: '47-2216',
    title: 'Hub seal, wide, oil',
    mm: [114.3, 152.4, 26],
    price: 44.1,
    place: 'A3',
    here: 2,
  },
  {
    ...seal,
    number: '47-2310',
    title: 'Hub seal, oil',
    mm: [117.5, 152.4, 22],
    price: 43.2,
    place: 'A4',
    here: 1,
    lips: lips(3),
  },
  {
    ...seal,
    ...{ number: '35-1140', title: 'Hub seal of the trailer axle, oil', mm: [98.4, 136.5, 20], price: 32.6 },
    ...{ crossings: ['HSX 9460'], sheets: ['a-trailer'], place: 'A4', here: 7, reorderLevel: 4 },
  },
  {
    ...seal,
    ...{ number: '28-0651', title: 'Hub seal of the steer axle', mm: [82.5, 127, 20], price: 28.4 },
    ...{ crossings: ['HSX 8251'], sheets: steer, place: 'A5', here: 3, reorderLevel: 4 },
  },
  {
    ...seal,
    number: '28-0655',
    title: 'Hub seal, grease',
    mm: [82.5, 127, 16],
    price: 24.9,
    place: 'A5',
    here: 2,
    lips: lips(1),
  },
  {
    ...seal,
    number: '22-0418',
    title: 'Hub seal of light axles, grease',
    mm: [57.15, 85.7, 12.7],
    price: 9.8,
    place: 'A6',
    here: 11,
    lips: lips(1),
  },
  {
    ...{
      kind: 'wear-sleeve',
      number: 'WS 1143',
      title: 'Wear sleeve for a grooved journal',
      mm: [112.8, 114.3, 25],
    },
    ...{ price: 36, place: 'A6', here: 1, supplier: 'Quayside Bearings', leadDays: 12 },
  },
  {
    ...set,
    number: '61-2121',
    title: 'Inner bearing of the drive axle',
    mm: [82.55, 139.7, 36.5],
    price: 96,
    sheets: drive,
    place: 'B1',
    here: 2,
    reorderLevel: 2,
  },
  {
    ...set,
    number: '61-1814',
    title: 'Outer bearing of the drive axle',
    mm: [66.68, 122.24, 38.1],
    price: 88.5,
    sheets: drive,
    place: 'B1',
    here: 3,
    reorderLevel: 2,
  },
  {
    ...set,
    number: '61-1812',
    title: 'Inner bearing of the trailer axle',
    mm: [69.85, 117.48, 30.16],
    price: 61.3,
    sheets: ['a-trailer'],
    place: 'B2',
    here: 4,
    reorderLevel: 2,
  },
  {
    ...set,
    number: '61-1241',
    title: 'Inner bearing of the steer axle',
    mm: [57.15, 112.71, 30.16],
    price: 57.4,
    sheets: steer,
    place: 'B2',
    here: 1,
    reorderLevel: 2,
  },
  {
    ...set,
    number: '61-0880',
    title: 'Outer bearing of the steer axle',
    mm: [38.1, 76.2, 23.8],
    price: 39.9,
    sheets: steer,
    place: 'B2',
    here: 2,
    reorderLevel: 2,
  },
  {
    ...{
      kind: 'washer',
      number: 'LW 318',
      title: 'Locking washer with tangs',
      mm: [79.4, 120.7, 1.6],
      price: 6.2,
    },
    ...{
      line: 'part:lock-washer',
      sheets: ['a-drive-tang', 'a-trailer'],
      place: 'C1',
      here: 14,
      reorderLevel: 6,
    },
    ...{ supplier: 'Hollow Lane Fasteners', leadDays: 4 },
  },
  {
    ...{ kind: 'cotter', number: 'CP 5-60', title: 'Cotter, steel', mm: [null, 5, 60], price: 0.35 },
    ...{ line: 'part:cotter', sheets: ['d-steer-12', 'd-steer-18'], place: 'C2', here: 85, reorderLevel: 20 },
    ...{ supplier: 'Hollow Lane Fasteners', leadDays: 4 },
  },
  {
    ...{
      kind: 'gasket',
      number: 'FG 8-140',
      title: 'Flange gasket, eight studs',
      mm: [120, 165, null],
      price: 2.9,
    },
    ...{ line: 'part:flange-gasket', sheets: drive, place: 'C3', here: 9, reorderLevel: 8 },
    ...{ supplier: 'Hollow Lane Fasteners', leadDays: 4 },
  },
  {
    ...{
      kind: 'gasket',
      number: 'CG 6-114',
      title: 'Hub cap gasket, six bolts',
      mm: [100, 114, null],
      price: 2.1,
    },
    ...{ line: 'part:cap-gasket', sheets: ['a-trailer', ...steer], place: 'C3', here: 16, reorderLevel: 8 },
    ...{ supplier: 'Hollow Lane Fasteners', leadDays: 4 },
  },
  {
    ...{ kind: 'lining', number: 'BL 4515', title: 'Shoes and linings of one drum', mm: [null, null, 21] },
    ...{ line: 'part:lining', sheets: drive, price: 74, place: 'E1', here: 8, reorderLevel: 4 },
    ...{ supplier: 'Marsh End Brakes', leadDays: 9 },
  },
  {
    ...{ kind: 'seal', number: 'JS 80-13', title: 'Shaft seal behind its snap ring', mm: [80, 100, 13] },
    ...{ line: 'part:shaft-seal', sheets: ['j-shaft-seal'], price: 63, place: 'A6', here: 0, lips: lips(1) },
    ...{ supplier: 'Quayside Bearings', leadDays: 21 },
  },
  {
    ...{
      kind: 'lubricant',
      number: 'LG 2-400',
      title: 'Lithium complex NLGI 2, GC-LB',
      mm: [null, null, null],
    },
    ...{ thickener: 'lithium-complex', category: 'GC-LB', line: 'lubricant', sheets: grease },
    ...{ price: 7.4, place: 'F1', here: 18, reorderLevel: 6, supplier: 'Hollow Lane Fasteners', leadDays: 3 },
  },
  {
    ...{ kind: 'lubricant', number: 'PU 2-400', title: 'Polyurea NLGI 2, for electric motors' },
    ...{ thickener: 'polyurea', mm: [null, null, null], price: 9.9, place: 'F2', here: 4 },
  },
  {
    ...{ kind: 'hub-unit', number: 'HU 3205', title: 'Hub unit, reman', mm: [64, 110, null], price: 310 },
    ...{
      core: { currency: demoShop.currency, minor: 6000 },
      place: 'D1',
      here: 1,
      supplier: 'Quayside Bearings',
      leadDays: 14,
    },
  },
];

const MM = ['bore', 'outside', 'width'] as const;

function partOf({ mm, price, sheets = [], line, ...rest }: Listed): Part {
  const dims = Object.fromEntries(
    MM.flatMap((what, i) => (mm[i] === null ? [] : [[what, quantity(mm[i]!, 'mm')]])),
  );
  return partSchema.parse({
    ...rest,
    ...{ id: uuidOf(`part ${rest.number}`), dims },
    fits: line ? sheets.map((sheetId) => ({ sheetId, line })) : [],
    price: { currency: demoShop.currency, minor: Math.round(price * 100) },
  });
}

/** Every part of the demo's store. */
export const demoParts = (): Part[] => listed.map(partOf);

/** Days of the past that the store's own record goes back to, and that of a part which none of the last jobs took. */
const DAYS = 60;
const LONG_DAYS = 300;

/** What the store of the demo recorded: every part, what came, what went onto the jobs of the last weeks, a count. */
export function demoStore(
  { jobs }: Pick<Demo, 'jobs'>,
  keeper: Recorder,
  now: Date,
): { partId: string; bodies: { body: StockBody; at: string; by: Recorder }[] }[] {
  const daysAgo = (days: number) => new Date(now.getTime() - days * 86_400_000).toISOString();
  const from = daysAgo(DAYS);
  const recent = jobs.filter((j) => j.openedAt > from);
  return listed.map((line) => {
    const part = partOf(line);
    const { place, here } = line;
    const uses = recent.flatMap(({ id: jobId, events }) =>
      events.flatMap(({ at, by, body }) => {
        // A seal and what holds the nut go in at these steps, and are never used twice.
        if (body.kind !== 'step-recorded' || !['seal', 'lock'].includes(body.stepId)) return [];
        const opened = events[0]!.body;
        const end =
          opened.kind === 'job-opened' && opened.wheelEnds.find((w) => w.position === body.position);
        const wanted = body.stepId === 'lock' ? ['part:lock-washer', 'part:cotter'] : ['part:hub-seal'];
        const fit = end && part.fits.find((f) => f.sheetId === end.sheet.sheetId && wanted.includes(f.line));
        if (!fit) return [];
        const movement = {
          what: 'used' as const,
          quantity: 1,
          place,
          jobId,
          position: body.position,
          line: fit.line,
        };
        return [
          { at, by, body: { kind: 'stock-moved' as const, movement: { ...movement, price: part.price! } } },
        ];
      }),
    );
    const came = uses.length + here;
    const listedAt = uses.length > 0 ? from : daysAgo(LONG_DAYS);
    return {
      partId: part.id,
      bodies: [
        { at: listedAt, by: keeper, body: { kind: 'part-listed', part } },
        ...(came > 0
          ? [
              {
                ...{ at: listedAt, by: keeper },
                body: {
                  kind: 'stock-moved' as const,
                  movement: { what: 'received' as const, quantity: came, place, price: part.price! },
                },
              },
            ]
          : []),
        ...uses,
      ],
    };
  });
}

/** Orders of the demo that are on their way, each of one part: the day it is promised for, in days from today. */
const onTheirWay = [
  { number: 1, of: 'BL 4515', quantity: 4, inDays: -3, reference: 'ME 20417' },
  { number: 2, of: 'HU 3205', quantity: 1, inDays: 0, reference: 'QB 88120' },
];

/** What the demo ordered and has not received: one order is late, one comes today. */
export function demoOrders(today: string): { orderId: string; bodies: OrderBody[] }[] {
  const parts = demoParts();
  return onTheirWay.map(({ number, of, quantity, inDays, reference }) => {
    const { id: partId, number: partNumber, title, price, supplier } = parts.find((p) => p.number === of)!;
    return {
      orderId: uuidOf(`order ${number}`),
      bodies: [
        {
          kind: 'order-drafted',
          number,
          supplier,
          lines: [{ partId, number: partNumber, title, quantity, price }],
        },
        { kind: 'order-sent', expected: addDays(today, inDays), reference },
      ],
    };
  });
}
