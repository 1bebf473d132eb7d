import type { Content, TableCell } from 'pdfmake/interfaces.js';
import { formatPlay } from '@lanternwright/core/end-play';
import { bandInMm, describeLine, formatTorque, sheetLines, torques } from '@lanternwright/core/procedure';
import { formatBoth, formatTyped, type ReaderUnits } from '@lanternwright/core/quantity';
import { describeLayer, works } from '@lanternwright/core/stack';
import { describeTool } from '@lanternwright/core/tool';
import {
  againstRelease,
  AS_FOUND,
  figureFor,
  describeParts,
  lastVerdict,
  lockSteps,
  makersFigures,
  playMm,
  progressOf,
  readingsOf,
  describeEvent,
  describeLayers,
  describeObjection,
  describeStepData,
  describeYardOnly,
  stepsOfKind,
  torqueFits,
  verdictOf,
  type EventBody,
  type Job,
  type Reading,
  type StepProgress,
  type WheelEnd,
  recordedBy,
} from '@lanternwright/core/traveller';
import { thouRule } from './drawings.ts';
import { abreast, bySheet, caution, jobHead, sealBlock, type PaperContext } from './head.ts';
import { figures, heading, MUTED, printed, RUST, table, words } from './paper.ts';

/** Lines that stand against a release and are named on paper; the rest are counted. */
const SHOWN = 4;

const small = { fontSize: 6.5, color: MUTED };

function endPlay(w: WheelEnd, reader: ReaderUnits): TableCell {
  const { band } = w.sheet;
  const [found, left] = [verdictOf(w, AS_FOUND), lastVerdict(w)];
  const set = left && left.round !== AS_FOUND ? left.result : null;
  const both = (mm: number) => {
    const [own, other] = reader.length === 'in' ? (['in', 'mm'] as const) : (['mm', 'in'] as const);
    return `${formatPlay(mm, own)} (${formatPlay(mm, other)})`;
  };
  const said = (label: string, result: typeof found) =>
    result ? [words(`${label} ${both(result.endPlayMm)}, ${result.verdict.replace('-', ' ')}`)] : [];
  const cycles = [AS_FOUND, ...w.rounds.map((r) => r.number)].flatMap((round) => {
    const taken = new Map<string, Reading[]>();
    for (const r of readingsOf(w, round)) {
      const how = `${r.gauge ? `with ${r.gauge}, ` : ''}${recordedBy(r.by)}`;
      taken.set(how, [...(taken.get(how) ?? []), r]);
    }
    return [...taken].map(([how, readings]) => ({
      stack: [
        words(`${round === AS_FOUND ? 'Cycles as found' : `Cycles of round ${round}`}, ${how}`, small),
        ...readings.map((r) =>
          figures(
            `push ${formatTyped(r.push)}, pull ${formatTyped(r.pull)}: ${playMm(r).toFixed(4)} mm`,
            small,
          ),
        ),
      ],
    }));
  });
  if (!found && !set && cycles.length === 0) {
    const measured = stepsOfKind(w, 'measure').flatMap(({ record }) => (record?.data ? [record.data] : []));
    return measured[0]
      ? words(describeStepData(measured[0], reader))
      : words('not measured', { color: MUTED });
  }
  return {
    stack: [
      ...(band ? [thouRule({ bandMm: bandInMm(band), found, left: set, unit: reader.length })] : []),
      ...said('Found', found),
      ...said('Left', set),
      ...cycles,
    ],
  };
}

/** What one wheel end was torqued to at a step; off its figure in another colour, with why. */
function torqueCell(
  w: WheelEnd,
  progress: StepProgress | undefined,
  figure: string,
  reader: ReaderUnits,
): TableCell {
  if (!progress) return words('');
  const { step, record } = progress;
  const data = record?.data?.kind === 'torque' ? record.data : null;
  if (step.kind !== 'torque' || !data)
    return words(record?.skipped ? `left out: ${record.skipped}` : 'not recorded', { color: RUST });
  const asked = figureFor(w.sheet[step.figure], data.asked);
  const own = asked ? formatTorque(asked, reader) : '';
  const off = asked && !torqueFits(data.torque.si, asked);
  return words(
    `${formatBoth(data.torque, reader)} with ${data.tool}${data.listed ? '' : ' (not on the list of tools)'}${own === figure || own === '' ? '' : `, of ${own}`}${data.note ? `. ${data.note}` : ''}`,
    off ? { bold: true, color: RUST } : {},
  );
}

/** Every torque against its figure, wheel ends side by side. */
function torqueTable(ends: readonly WheelEnd[], reader: ReaderUnits): Content[] {
  const rows = new Map<string, { title: string; figure: string; at: Map<WheelEnd, StepProgress> }>();
  for (const w of ends)
    for (const p of stepsOfKind(w, 'torque').filter(({ step, record }) => !step.optional || record)) {
      const data = p.record?.data?.kind === 'torque' ? p.record.data : null;
      const asked = p.step.kind === 'torque' ? figureFor(w.sheet[p.step.figure], data?.asked) : null;
      const known = rows.get(p.step.id);
      if (known) known.at.set(w, p);
      else
        rows.set(p.step.id, {
          ...{ title: p.step.title, at: new Map([[w, p]]) },
          figure: asked ? formatTorque(asked, reader) : 'none in the sheet',
        });
    }
  if (rows.size === 0) return [];
  return [
    heading('Torques'),
    table(
      [
        words('Step', { color: MUTED }),
        words('Figure', { color: MUTED }),
        ...ends.map((w) => words(w.position, { bold: true })),
      ],
      [...rows.values()].map(({ title, figure, at }) => [
        words(title),
        words(figure),
        ...ends.map((w) => torqueCell(w, at.get(w), figure, reader)),
      ]),
      ['*', 115, ...ends.map(() => '*')],
    ),
  ];
}

function recorded(w: WheelEnd, steps: readonly StepProgress[], none: string, reader: ReaderUnits): TableCell {
  const rows = steps.filter(({ step, record }) => record !== null || !step.optional);
  if (rows.length === 0) return words(none, { color: MUTED });
  return {
    stack: rows.map(({ step, record }) =>
      record?.data
        ? words(`${step.title}: ${describeStepData(record.data, reader, step, w)}, ${recordedBy(record.by)}`)
        : words(`${step.title}: ${record?.skipped ? `left out: ${record.skipped}` : 'not recorded'}`, {
            color: RUST,
          }),
    ),
  };
}

/** What is off, open or not finished, what is back, and of what nothing is known. */
function layers(w: WheelEnd): TableCell {
  const { notWhole, back, unknown } = describeLayers(w);
  return {
    stack: [
      ...(notWhole ? [words(notWhole, { bold: true, color: RUST })] : []),
      ...(back ? [words(back)] : []),
      ...(unknown ? [words(unknown, small)] : []),
    ],
  };
}

function parts(w: WheelEnd): TableCell {
  const said = describeParts(w);
  return said === null ? words('nothing was bare', { color: MUTED }) : words(said);
}

/** Every listed tool that was used, as it stood that day. */
function tools(job: Job): string[] {
  const used = new Map<string, string>();
  for (const w of job.wheelEnds)
    for (const { data } of w.records) {
      const tool = data?.kind === 'torque' || data?.kind === 'measure' ? data.listed : undefined;
      if (!tool) continue;
      const until = tool.calibratedUntil ? `, in calibration until ${tool.calibratedUntil}` : '';
      used.set(
        tool.code,
        `${tool.code} ${tool.title}${describeTool(tool) ? `, ${describeTool(tool)}` : ''}${until}`,
      );
    }
  return [...used].sort().map(([, said]) => said);
}

function released(w: WheelEnd, { formatTime, reader }: PaperContext): TableCell {
  const { release, retorque } = w;
  if (!release) {
    const against = againstRelease(w).map((o) => describeObjection(w, o, reader));
    const more = against.length > SHOWN ? `, and ${against.length - SHOWN} more` : '';
    return words(`not released. ${against.slice(0, SHOWN).join('. ')}${more}`, { bold: true, color: RUST });
  }
  const yard = describeYardOnly(w);
  const due = release.followUp;
  const km = due?.byKm == null ? '' : ` or ${formatBoth({ value: due.byKm, unit: 'km' }, reader)}`;
  const hours =
    due?.byHours === undefined ? '' : ` or ${formatBoth({ value: due.byHours, unit: 'h' }, reader)}`;
  return {
    stack: [
      words(`${formatTime(release.at)}, ${release.by.name}, ${release.by.role}`, { bold: true }),
      ...(release.inDoubt
        ? [
            words(`In doubt: never to roll on this axle. ${release.inDoubt.reason}`, {
              bold: true,
              color: RUST,
            }),
          ]
        : []),
      ...(yard ? [words(`${yard}.`, { bold: true, color: RUST })] : []),
      ...(release.overrideReason
        ? [
            words(
              `In spite of: ${release.overridden.map((o) => describeObjection(w, o, reader)).join('. ')}. Reason: ${release.overrideReason}`,
              { color: RUST },
            ),
          ]
        : []),
      ...(due ? [words(`Retorque by ${due.byDate}${km}${hours}`)] : []),
      ...(retorque
        ? [
            words(
              `Retorqued ${formatTime(retorque.at)}, ${formatBoth(retorque.torque, reader)} with ${retorque.tool}, ${retorque.doneBy ?? retorque.by.name}`,
            ),
          ]
        : []),
    ],
  };
}

const worksOf = ({ plan, firstBuild }: WheelEnd): TableCell =>
  firstBuild
    ? words(`${firstBuild.title}, version ${firstBuild.version}`)
    : {
        stack: [
          words(plan.works.map((work) => works[work]).join(', ')),
          words(`Built as ${plan.stack.map(describeLayer).join(', ')}`, { fontSize: 7, color: MUTED }),
        ],
      };

function makers(w: WheelEnd, reader: ReaderUnits): TableCell {
  const read = makersFigures(w);
  const lines = torques.flatMap(([key, label]) =>
    read[key] ? [words(`${label} ${formatTorque(read[key], reader)}`)] : [],
  );
  return lines.length > 0 ? { stack: lines } : words('none', { color: MUTED });
}

type Row = [label: string, cell: (w: WheelEnd) => TableCell];

/** What the record says, a row each, with a column for each wheel end. */
const rowsFor = (context: PaperContext): Row[] => {
  const { reader } = context;
  const said = (none: string, steps: (w: WheelEnd) => readonly StepProgress[]) => (w: WheelEnd) =>
    recorded(w, steps(w), none, reader);
  return [
    ['Work', worksOf],
    ['Sheet', (w) => words(`${w.sheet.title}, revision ${w.sheet.revision}`)],
    ['As found', said('nothing looked at', (w) => stepsOfKind(w, 'found', 'joint'))],
    ['End play', (w) => endPlay(w, reader)],
    ['Read off the maker’s sheet', (w) => makers(w, reader)],
    ['Lock', said('nothing was unlocked', lockSteps)],
    [
      'Measured sizes',
      said('none', (w) =>
        stepsOfKind(w, 'rolling', 'shims', 'sensor', 'dimension', 'wear', 'stroke', 'cure'),
      ),
    ],
    ['Parts', parts],
    ['Linings', said('the brake was not touched', (w) => stepsOfKind(w, 'linings'))],
    ['Lubricant', said('nothing was filled', (w) => stepsOfKind(w, 'pack', 'fill'))],
    ['Hub after the road', said('not measured', (w) => stepsOfKind(w, 'heat'))],
    ['Layers', layers],
    ['Left out', said('nothing', (w) => progressOf(w).filter((p) => p.record?.skipped != null))],
    ['Released', (w) => released(w, context)],
  ];
};

/** Kinds of records that change what the figures above mean, and are told one by one. */
const told: ReadonlySet<EventBody['kind']> = new Set([
  'correction',
  'decision-made',
  'adjust-reopened',
  'work-added',
  'work-withdrawn',
  'layer-opened',
  'as-it-stands',
  'late-counted',
  'sheet-changed',
  'reckoning-kept',
  'job-held',
  'job-resumed',
  'job-voided',
  'ended-out-of-service',
  'owner-answered',
]);

function pictures(job: Job, photos: PaperContext['photos']): Content[] {
  const shown = job.wheelEnds.flatMap((w) =>
    w.photos.flatMap((p) => {
      const jpeg = photos.get(p.photoId);
      if (!jpeg) return [];
      const image: Content = {
        image: `data:image/jpeg;base64,${Buffer.from(jpeg).toString('base64')}`,
        fit: [120, 90],
      };
      return [
        {
          stack: [image, words(`${w.position}${p.caption ? `: ${p.caption}` : ''}`, { fontSize: 7 })],
          width: 'auto' as const,
        },
      ];
    }),
  );
  const rows = abreast(shown, 4);
  return rows.length === 0
    ? []
    : [
        heading('Photos'),
        ...rows.map((row): Content => ({
          columns: row,
          columnGap: 8,
          unbreakable: true,
          margin: [0, 0, 0, 6],
        })),
      ];
}

/**
 * What an owner keeps of a job: wheel ends side by side, end play as found and as left on the rule, every reading as it
 * was typed, torques against their figures, tools, overrides and corrections, who and when, and the record's seal.
 */
export function recordPaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const { reader, formatTime, size, number, hash } = context;
  const last = job.events.at(-1)!;
  const rows = rowsFor(context);
  const tables = abreast(job.wheelEnds, 3).flatMap((ends): Content[] => [
    table(
      [words(''), ...ends.map((w) => words(w.position, { bold: true, fontSize: 13 }))],
      rows.map(([label, cell]) => [words(label, { color: MUTED }), ...ends.map((w) => cell(w))]),
      [62, ...ends.map(() => '*')],
    ),
    ...torqueTable(ends, reader),
  ]);
  const events = job.events.filter((e) => told.has(e.body.kind));
  const used = tools(job);
  return printed(
    [
      ...jobHead(job, context, 'Service record'),
      ...tables,
      ...(used.length > 0 ? [heading('Tools'), words(used.join('. '))] : []),
      ...bySheet(job.wheelEnds).flatMap((ends) => [
        heading(`Figures of ${ends[0]!.sheet.title}, ${ends.map((w) => w.position).join(', ')}`),
        table(
          [],
          sheetLines(ends.at(-1)!.sheet, reader).map((l) => [
            words(l.label, { color: MUTED }),
            words(describeLine(l)),
          ]),
          [110, '*'],
        ),
      ]),
      ...(events.length > 0
        ? [
            heading('What was decided, changed and corrected'),
            table(
              [],
              events.map((e) => [
                words(formatTime(e.at), { color: MUTED }),
                words(`${describeEvent(job, e, reader)} (${recordedBy(e.by)})`),
              ]),
              [90, '*'],
            ),
          ]
        : []),
      ...pictures(job, context.photos),
      caution,
      sealBlock(context.seal, formatTime),
    ],
    {
      ...{ size, title: `Service record ${number}`, date: new Date(last.at) },
      foot: `Job ${number}, record ${last.version}, SHA-256 ${hash}.`,
    },
  );
}
