import type { Content } from 'pdfmake/interfaces.js';
import { formatFor, type ReaderUnits } from '@lanternwright/core/quantity';
import {
  describeLayers,
  describeYardOnly,
  stoppedWords,
  type Job,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { abreast } from './head.ts';
import { cutLines, printed, words, type PaperSize } from './paper.ts';

/** What whoever stands before the wheel end must know: first what it may do, then what is off or open. */
function stateOf({ stopped }: Job, w: WheelEnd): Content[] {
  const { release } = w;
  const bold = (text: string) => words(text, { bold: true, margin: [0, 3, 0, 0] });
  if (release?.inDoubt)
    return [bold(`Release in doubt: never to roll on this axle. ${shortened(release.inDoubt.reason)}`)];
  if (release) {
    const yard = describeYardOnly(w);
    return [words(`Released ${release.at.slice(0, 10)}`), ...(yard ? [bold(`${yard}.`)] : [])];
  }
  const { notWhole } = describeLayers(w);
  const metal = notWhole ? [words(notWhole, { fontSize: 7 })] : [];
  if (stopped?.as !== 'out-of-service') return [bold('Being worked on: do not move'), ...metal];
  return [
    bold(`${stoppedWords[stopped.as]}: never to roll on this axle. ${shortened(stopped.reason)}`),
    ...metal,
  ];
}

const shortened = (text: string) => (text.length > 90 ? `${text.slice(0, 89)}...` : text);

function retorqueOf({ release, retorque }: WheelEnd, reader: ReaderUnits): Content[] {
  const due = retorque ? null : release?.followUp;
  if (!due) return [];
  const km = due.byKm === null ? '' : ` or at ${formatFor({ value: due.byKm, unit: 'km' }, reader)}`;
  const hours =
    due.byHours === undefined ? '' : ` or at ${formatFor({ value: due.byHours, unit: 'h' }, reader)}`;
  return [words(`Retorque by ${due.byDate}${km}${hours}`, { bold: true })];
}

export interface TagContext {
  unit: { name: string; owner: string };
  size: PaperSize;
  reader: ReaderUnits;
  /** Address of the application, without a slash at its end. */
  origin: string;
}

/**
 * A tag for each wheel end of a job, to hang on it: unit, position, how it stands, when it is torqued again, and a code
 * that opens the position.
 */
export function tagPaper(
  job: Job,
  { unit, size, reader, origin }: TagContext,
): Promise<Uint8Array<ArrayBuffer>> {
  const tag = (w: WheelEnd): Content => ({
    columns: [
      { width: 'auto', qr: `${origin}/fleet/${job.unitId}?at=${w.position}`, fit: 96, eccLevel: 'M' },
      {
        width: '*',
        stack: [
          words(w.position, { bold: true, fontSize: 26, lineHeight: 1 }),
          words(unit.name, { bold: true, fontSize: 12 }),
          words(unit.owner),
          ...stateOf(job, w),
          ...retorqueOf(w, reader),
        ],
      },
    ],
    columnGap: 10,
    margin: [8, 8, 8, 8],
  });
  const pairs = abreast(job.wheelEnds, 2);
  return printed(
    [
      {
        table: {
          dontBreakRows: true,
          widths: ['*', '*'],
          body: pairs.map((pair) => [tag(pair[0]!), pair[1] ? tag(pair[1]) : words('')]),
        },
        layout: cutLines,
      },
    ],
    {
      size,
      title: `Tags ${unit.name}`,
      date: new Date(job.events.at(-1)!.at),
      foot: `Cut along the dashes. ${unit.name}.`,
    },
  );
}
