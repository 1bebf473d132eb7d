import { measureWay } from '@lanternwright/core/route';
import type { Column, Content, TableCell } from 'pdfmake/interfaces.js';
import {
  formatTorque,
  offered,
  sheetLines,
  sheetSources,
  stages,
  type ReadyLine,
  type Step,
} from '@lanternwright/core/procedure';
import { works } from '@lanternwright/core/stack';
import { unitDefinition, unitFor, type ReaderUnits } from '@lanternwright/core/quantity';
import {
  linesToAnswer,
  progressOf,
  describeStepData,
  type Job,
  type StepProgress,
  type WheelEnd,
  recordedBy,
} from '@lanternwright/core/traveller';
import { abreast, bySheet, caution, halves, jobHead, type PaperContext } from './head.ts';
import { runsOf } from './fonts.ts';
import { blank, box, caption, heading, MUTED, printed, RUST, table, words } from './paper.ts';

const line = (...parts: Content[]): Content => ({
  columns: parts.map((p) => ({ width: 'auto', stack: [p] })),
  columnGap: 4,
});
const ticked = (label: string): Content => ({
  columns: [
    { width: 9, stack: [box()] },
    { width: '*', ...words(label) },
  ],
  columnGap: 2,
});

/** Many things to tick, in two columns. */
const inTwo = (labels: readonly string[]): Content => ({
  columns: halves(labels).map((half): Column => ({ width: '*', stack: half.map(ticked) })),
  columnGap: 4,
  fontSize: 6.8,
});

/** What a nut is tightened to; null for other steps, and where the sheet does not say. */
function torqueFor(step: Step, { sheet }: WheelEnd, reader: ReaderUnits): string | null {
  const figure = step.kind === 'torque' ? sheet[step.figure] : undefined;
  return figure ? formatTorque(figure, reader) : null;
}

/** So few signs are written by hand where there is one: the step's words name them. */
const FEW_SIGNS = 5;

/**
 * What a hand writes or ticks for a step that is still to be done.
 * @param said whether the torque stands with the step, as all wheel ends have the same
 */
function toFill(step: Step, w: WheelEnd, reader: ReaderUnits, said: boolean): Content[] {
  const { sheet } = w;
  const label = (unit: 'length' | 'thickness' | 'torque' | 'temperature' | 'volume') =>
    unitDefinition(reader[unit]).label;
  switch (step.kind) {
    case 'torque': {
      const figure = sheet[step.figure];
      const unit = figure ? unitDefinition(unitFor(figure.max, reader)).label : label('torque');
      return [
        ...(figure ? [] : [blank('maker’s figure', unit, 34)]),
        ...(figure && !said
          ? [words(`to ${torqueFor(step, w, reader)}`, { bold: true, fontSize: 7.5 })]
          : []),
        line(blank('reached', unit, 26), blank('tool', '', 22)),
      ];
    }
    case 'measure':
      return measureWay({ stack: w.plan.stack, sheet }, step).by === 'drag'
        ? [blank('pull', 'N'), blank('scale')]
        : [
            ...[1, 2, 3].map((n) => line(blank(`${n} push`, '', 30), blank('pull', label('length'), 30))),
            blank('dial'),
          ];
    case 'choose':
      return offered(step.options).map((o) => ticked(o.label));
    case 'lock':
      return [...step.methods.map((m) => ticked(m.label)), blank('checked by', '', 50)];
    case 'found':
      return step.signs.length > FEW_SIGNS
        ? [inTwo([...step.signs.map((s) => s.label), 'nothing looked wrong'])]
        : [line(ticked('nothing wrong'), blank('but', '', 62))];
    case 'turn':
      return [blank('turned', 'of a turn')];
    case 'inspect':
      return [line(ticked('yes'), ticked('no'), ...(step.otherThan ? [blank('by', '', 50)] : []))];
    case 'linings':
      return [
        line(blank('inner', label('thickness'), 26), blank('outer', label('thickness'), 26)),
        ticked('brake set, wheel turns free'),
      ];
    case 'heat':
      return [
        line(blank('here', label('temperature'), 22), blank('other side', label('temperature'), 22)),
        blank('air', label('temperature'), 22),
      ];
    case 'fill':
    case 'pack':
      return [blank('what', '', 60), blank('how much', '', 40)];
    case 'dimension':
      return [blank('', label('thickness'))];
    case 'wear':
      return [
        ...[1, 2, 3].map((n) => blank(String(n), label('thickness'), 26)),
        line(blank('discard at', '', 26), blank('runout', '', 26)),
      ];
    case 'stroke':
      return [line(blank('released', '', 24), blank('applied', '', 24)), blank('chamber', '', 40)];
    case 'rolling':
      return [line(blank('turns with', '', 30), blank('radius', '', 24)), blank('new or run-in', '', 40)];
    case 'sensor':
      return [line(blank('gap', '', 20), blank('mV', '', 20), blank('other', '', 20))];
    case 'shims':
      return [line(blank('in now', '', 24), blank('play', '', 24)), blank('go in', '', 30)];
    case 'joint':
      return [
        line(blank('axle to knuckle', label('length'), 26)),
        line(blank('knuckle to hub', label('length'), 26)),
      ];
    case 'seal':
      return [line(ticked('at its stop'), blank('depth', label('thickness'), 26))];
    case 'cure':
      return [blank('from', '', 30), blank('until', '', 30)];
    case 'judge':
    case 'compare':
      return [blank('not sound', '', 70), blank('', '', 105)];
    default:
      return [box()];
  }
}

function cell(
  progress: StepProgress | undefined,
  w: WheelEnd,
  reader: ReaderUnits,
  said: boolean,
): TableCell {
  if (!progress) return words('');
  const { step, record } = progress;
  if (!record) return { stack: toFill(step, w, reader, said), fontSize: 7.5 };
  const done = record.data ? describeStepData(record.data, reader, step, w) : `left out: ${record.skipped}`;
  return {
    columns: [
      { width: 9, stack: [box(true)] },
      { width: '*', ...words(`${done}, ${initials(record.by.name)}`) },
    ],
    columnGap: 2,
    fontSize: 7.5,
  };
}

/** First letters of a name, as it is signed on a sheet. */
const initials = (name: string) =>
  name
    .split(/[\s.]+/)
    .filter(Boolean)
    .map((part) => [...part][0]!.toUpperCase())
    .join('');

/** Whose initials stand in the cells. */
function signedBy({ wheelEnds }: Job): Content[] {
  const people = new Map(wheelEnds.flatMap((w) => w.records.map(({ by }) => [recordedBy(by), by.name])));
  const legend = [...people].map(([words, name]) => `${initials(name)} ${words}`).join(', ');
  return legend === '' ? [] : [caption(legend)];
}

/** A sensor that nobody complained of and nobody measured takes no room. */
const isUnasked = ({ symptoms }: WheelEnd, { step, record }: StepProgress): boolean =>
  step.kind === 'sensor' && record === null && !symptoms.includes('lamp');

/** Steps of wheel ends side by side, in the order of work; each step once. */
function rowsOf(ends: readonly WheelEnd[]): { step: Step; at: Map<WheelEnd, StepProgress> }[] {
  const rows: { step: Step; at: Map<WheelEnd, StepProgress> }[] = [];
  for (const w of ends) {
    let after = -1;
    for (const progress of progressOf(w)) {
      if (progress.step.kind === 'ready' || isUnasked(w, progress)) continue;
      const known = rows.findIndex(
        (r) => r.step.id === progress.step.id && r.step.stage === progress.step.stage,
      );
      if (known >= 0) rows[known]!.at.set(w, progress);
      else rows.splice(after + 1, 0, { step: progress.step, at: new Map([[w, progress]]) });
      after = known >= 0 ? known : after + 1;
    }
  }
  return rows;
}

const bold = (text: string) => runsOf(text).map((run) => ({ ...run, bold: true }));
const muted = (text: string) => runsOf(text).map((run) => ({ ...run, color: MUTED }));

const stageLook = { bold: true, fontSize: 8.5, color: RUST };

function steps(ends: readonly WheelEnd[], reader: ReaderUnits): Content {
  const rows = rowsOf(ends);
  const firstOf = (text: string) => rows.find((r) => r.step.text === text)?.step;
  const body = stages.flatMap((stage) =>
    rows
      .filter((r) => r.step.stage === stage.id)
      .map(({ step, at }, nth): TableCell[] => {
        const torques = new Set([...at].map(([w, progress]) => torqueFor(progress.step, w, reader)));
        const torque = torques.size === 1 ? [...torques][0]! : null;
        const text: Content = {
          text: [
            // In the line of its first step, so that it never stands alone at the end of a page.
            ...(nth === 0 ? runsOf(`${stage.title}  `).map((run) => ({ ...run, ...stageLook })) : []),
            ...bold(`${step.title}. `),
            // What was said of the round before is not said again.
            ...(firstOf(step.text) === step ? muted(step.text) : []),
            ...(torque === null ? [] : bold(` To ${torque}.`)),
            ...(step.caution ? bold(` Caution: ${step.caution}`) : []),
          ],
          fontSize: 7,
          lineHeight: 1.04,
        };
        return [text, ...ends.map((w) => cell(at.get(w), w, reader, torque !== null))];
      }),
  );
  return table([words('Step'), ...ends.map((w) => words(w.position, { bold: true, fontSize: 11 }))], body, [
    '*',
    ...ends.map(() => (ends.length > 2 ? 105 : 126)),
  ]);
}

const groups: Record<ReadyLine['group'], string> = {
  tool: 'Tools',
  part: 'Parts',
  lubricant: 'Lubricant',
  lifting: 'Lifting',
};

/** What must be at hand, as lists to tick. */
function atHand(job: Job): Content {
  const lines = new Map<string, { group: ReadyLine['group']; words: string; at: string[] }>();
  for (const w of job.wheelEnds)
    for (const l of linesToAnswer(w)) {
      const said = `${l.title ?? l.what}${l.detail ? ` (${l.detail})` : ''}`;
      const known = lines.get(`${l.group} ${said}`);
      if (known) known.at.push(w.position);
      else lines.set(`${l.group} ${said}`, { group: l.group, words: said, at: [w.position] });
    }
  const list = (group: ReadyLine['group']) => [...lines.values()].filter((l) => l.group === group);
  const said = (l: { words: string; at: string[] }) =>
    ticked(`${l.words}${l.at.length < job.wheelEnds.length ? `, ${l.at.join(' ')}` : ''}`);
  const tools = halves(list('tool'));
  const others = (['part', 'lubricant', 'lifting'] as const).filter((group) => list(group).length > 0);
  return {
    columns: [
      ...tools.map((half, i): Column => ({
        width: '*',
        stack: [caption(i === 0 ? groups.tool : ' '), ...half.map(said)],
      })),
      { width: '*', stack: others.flatMap((group) => [caption(groups[group]), ...list(group).map(said)]) },
    ],
    columnGap: 12,
    fontSize: 7.5,
  };
}

/** The figures that hold, three abreast, with where they come from below. */
function figuresOf({ sheet }: WheelEnd, reader: ReaderUnits): Content[] {
  // When work comes due is nothing for the bench.
  const due = new Set<string>((sheet.intervals ?? []).map((i) => works[i.work]));
  const lines = sheetLines(sheet, reader).filter((l) => !due.has(l.label));
  const a = Math.ceil(lines.length / 3);
  return [
    {
      columns: [lines.slice(0, a), lines.slice(a, 2 * a), lines.slice(2 * a)].map((third): Column => ({
        width: '*',
        stack: third.map((l) => words(`${l.label}: ${l.value}`, { fontSize: 7.5 })),
      })),
      columnGap: 12,
    },
    words(sheetSources(lines).join(' '), { fontSize: 6.5, color: MUTED, margin: [0, 2, 0, 0] }),
  ];
}

/** The sheet that goes with a job: what must be at hand, the figures, and every step with boxes and blanks for what a hand writes. */
export function travellerPaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const { reader, size, number, unit } = context;
  const sheets = bySheet(job.wheelEnds).map((ends) => ends.at(-1)!);
  return printed(
    [
      ...jobHead(job, context, 'Traveller'),
      caution,
      heading('To have at hand'),
      atHand(job),
      ...sheets.flatMap((w) => [
        heading(`Figures of ${w.sheet.title}, revision ${w.sheet.revision}`),
        ...figuresOf(w, reader),
      ]),
      ...abreast(job.wheelEnds, 3).map((ends) => steps(ends, reader)),
      ...signedBy(job),
      {
        unbreakable: true,
        margin: [0, 10, 0, 0],
        columns: ['Worked by', 'Checked by', 'Released by'].map((who): Column => ({
          width: '*',
          stack: [blank('', '', 150), caption(`${who}, date`)],
        })),
        columnGap: 14,
      },
    ],
    {
      size,
      title: `Traveller ${number}`,
      date: new Date(job.opened.at),
      foot: `Job ${number}, ${unit.name}.`,
    },
  );
}
