import type { Content } from 'pdfmake/interfaces.js';
import { driveVerdict, driveVerdicts, symptoms } from '@lanternwright/core/inspection';
import { formatBoth, type ReaderUnits } from '@lanternwright/core/quantity';
import { describeStopped, stoppedWords, type Job, type WheelEnd } from '@lanternwright/core/traveller';
import type { Seal } from '../record/seals.ts';
import { axlePlan } from './drawings.ts';
import { caption, figures, MUTED, RULE, RUST, words, type PaperSize } from './paper.ts';

/** What a paper of a job says besides the job itself. */
export interface PaperContext {
  shop: {
    name: string;
    address: string;
    terms: string;
    /** Number under which the shop pays tax; empty where it has none. */
    taxNumber: string;
    /** Days for which an estimate stands; null where that is not said. */
    validDays: number | null;
  };
  unit: {
    name: string;
    owner: string;
    kind: string;
    axles: readonly { number: number; role: string; wheels: 'single' | 'dual' }[];
  };
  number: number;
  /** Hash of the job's last record in the chain. */
  hash: string;
  /** The seal that holds that record; null where it is not sealed yet. */
  seal: Seal | null;
  /** Pictures of the job that are kept here, by id. */
  photos: ReadonlyMap<string, Uint8Array>;
  /** Times in the shop's zone. */
  formatTime: (iso: string) => string;
  /** The day in the shop's zone that is so many days after the day of a moment. */
  formatDay: (iso: string, daysAfter: number) => string;
  /** Units the shop prints in; the other system stands beside them. */
  reader: ReaderUnits;
  size: PaperSize;
}

/** The shop on the left, what the paper is on the right. */
export function letterhead(shop: { name: string; address: string }, title: string, under: string): Content {
  const address = shop.address
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean);
  return {
    table: {
      widths: ['*', 'auto'],
      body: [
        [
          {
            stack: [
              words(shop.name, { bold: true, fontSize: 11 }),
              words(address.join(', '), { color: MUTED }),
            ],
          },
          {
            stack: [
              words(title, { bold: true, fontSize: 16, alignment: 'right' }),
              words(under, { color: MUTED, alignment: 'right' }),
            ],
          },
        ],
      ],
    },
    layout: {
      hLineWidth: (i) => (i === 1 ? 1.2 : 0),
      vLineWidth: () => 0,
      hLineColor: () => RULE,
      paddingLeft: () => 0,
      paddingRight: () => 0,
      paddingBottom: () => 5,
    },
    margin: [0, 0, 0, 6],
  };
}

const named = (label: string, value: Content): Content => ({
  stack: [caption(label), value],
  margin: [0, 0, 0, 3],
});

/** What every paper of a job begins with: shop, unit with its axle plan, and why it is here. */
export function jobHead(job: Job, context: PaperContext, title: string): Content[] {
  const { shop, unit, number, formatTime, reader } = context;
  const meter = [job.meter.distance, job.meter.hours].flatMap((q) => (q ? [formatBoth(q, reader)] : []));
  const complaint = `${job.complaint || 'none'}${job.reportedBy ? `, reported by ${job.reportedBy}` : ''}`;
  const noticed = () => {
    const { verdict, reason } = driveVerdict(job.symptoms);
    return `${job.symptoms.map((s) => symptoms[s]).join(', ')}. ${driveVerdicts[verdict]}: ${reason}`;
  };
  return [
    letterhead(shop, title, `Job ${number}, opened ${formatTime(job.opened.at)}, ${job.opened.by.name}`),
    {
      columns: [
        {
          width: '*',
          stack: [
            words(unit.name, { bold: true, fontSize: 15 }),
            words(`${unit.kind}, ${unit.owner}`, { margin: [0, 0, 0, 3] }),
            named('Job', words(job.title)),
          ],
        },
        {
          width: '*',
          stack: [
            named('Meter', figures(meter.join(', ') || 'not read')),
            named('Complaint', words(complaint)),
            ...(job.symptoms.length > 0 ? [named('Noticed', words(noticed()))] : []),
          ],
        },
        {
          width: 'auto',
          stack: [
            axlePlan(
              unit.axles,
              job.wheelEnds.map((w) => w.position),
            ),
          ],
        },
      ],
      columnGap: 12,
    },
    ...(job.stopped
      ? [
          words(`${stoppedWords[job.stopped.as]}: ${describeStopped(job)}`, {
            bold: true,
            color: RUST,
            margin: [0, 3, 0, 3],
          }),
        ]
      : []),
  ];
}

/** Work on a wheel end can hurt people: said on every paper that goes with it. */
export const caution = words(
  'Support the unit on rated stands before a wheel comes off. Follow the maker’s instructions and local rules; safety-critical work is done or signed by a qualified person.',
  { bold: true, margin: [0, 4, 0, 2] },
);

/**
 * The seal of the record, as text and as a code that holds all of it: whoever keeps the paper can tell later whether
 * the record is still the one it was.
 */
export function sealBlock(seal: Seal | null, formatTime: (iso: string) => string): Content {
  if (!seal)
    return words('Seal of the record: not sealed yet. Print this again after the next hour.', {
      color: MUTED,
      margin: [0, 8, 0, 0],
    });
  const line = (text: string) => figures(text, { fontSize: 6, color: MUTED });
  return {
    unbreakable: true,
    margin: [0, 8, 0, 0],
    columns: [
      { width: 'auto', qr: JSON.stringify(seal), fit: 92, eccLevel: 'L' },
      {
        width: '*',
        stack: [
          words('Seal of the record', { bold: true }),
          words(
            `Record ${seal.seq} of the shop, sealed ${formatTime(seal.at)} with key ${seal.key}. The shop’s own check (verify-records) tells whether its record is still the one that was sealed here.`,
            { fontSize: 7 },
          ),
          line(`Hash ${seal.hash}`),
          line(`Of the record that begins with ${seal.chain}`),
          line(`Signature ${seal.signature}`),
        ],
      },
    ],
    columnGap: 10,
  };
}

/** Wheel ends side by side, as many as a page takes. */
export function abreast<T>(all: readonly T[], most = 4): T[][] {
  const groups = Math.ceil(all.length / most);
  const each = Math.ceil(all.length / Math.max(1, groups));
  return Array.from({ length: groups }, (_, i) => all.slice(i * each, (i + 1) * each));
}

/** A list in two columns, the first the longer. */
export const halves = <T>(all: readonly T[]): T[][] => abreast(all, Math.max(1, Math.ceil(all.length / 2)));

/** Wheel ends by the sheet they go by, each revision of one for itself. */
export function bySheet(ends: readonly WheelEnd[]): WheelEnd[][] {
  const groups = new Map<string, WheelEnd[]>();
  for (const w of ends) {
    const key = `${w.sheet.sheetId} ${w.sheet.revision}`;
    groups.set(key, [...(groups.get(key) ?? []), w]);
  }
  return [...groups.values()];
}
