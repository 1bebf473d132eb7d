import { driveVerdict, driveVerdicts, symptoms } from '@lanternwright/core/inspection';
import { sayLine, sheetLines, stages } from '@lanternwright/core/procedure';
import { sayLayer, works } from '@lanternwright/core/stack';
import { formatQuantity, formatTyped, inchReader } from '@lanternwright/core/quantity';
import { sayTool } from '@lanternwright/core/tool';
import {
  againstRelease,
  lastVerdict,
  linesToAnswer,
  progressOf,
  sayObjection,
  readingsOf,
  playMm,
  sayEvent,
  sayStopped,
  stoppedWords,
  type Job,
  type StoredEvent,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import type { Seal } from '../record/seals.ts';
import { footers, heading, line, openPage, plain, type Page, type Paper } from './page.ts';
import { sealBlock } from './seal-block.ts';

/** What a paper says besides the job itself. */
export interface PaperContext {
  shop: { name: string; address: string };
  unit: { name: string; owner: string; kind: string };
  number: number;
  /** Hash of the job's last record in the chain. */
  hash: string;
  /** The seal that holds that record; null where it is not sealed yet. */
  seal: Seal | null;
  /** Times in the shop's zone. */
  sayTime: (iso: string) => string;
  paper: Paper;
}

/** What every paper of a job begins with. */
export function head(
  { doc }: Page,
  job: Job,
  { shop, unit, number, sayTime }: PaperContext,
  title: string,
): void {
  const from = [shop.name, ...shop.address.split('\n')].map((l) => l.trim()).filter(Boolean);
  doc
    .font('Helvetica')
    .fontSize(9)
    .text(plain(from.join(', ')));
  doc
    .font('Helvetica-Bold')
    .fontSize(18)
    .text(plain(`${unit.name}: ${title}`));
  doc.font('Helvetica').fontSize(9);
  line(doc, 'Job', `${number}, ${job.title}`);
  line(doc, 'Unit', `${unit.name}, ${unit.kind}, ${unit.owner}`);
  const meter = [job.meter.distance, job.meter.hours].flatMap((q) => (q ? [formatQuantity(q)] : []));
  line(doc, 'Meter', meter.join(', ') || 'not read');
  line(doc, 'Opened', `${sayTime(job.opened.at)}, ${job.opened.by.name}`);
  line(
    doc,
    'Complaint',
    `${job.complaint || 'none'}${job.reportedBy ? `, reported by ${job.reportedBy}` : ''}`,
  );
  if (job.symptoms.length > 0) {
    const { verdict, reason } = driveVerdict(job.symptoms);
    line(
      doc,
      'Noticed',
      `${job.symptoms.map((s) => symptoms[s]).join(', ')}. ${driveVerdicts[verdict]}: ${reason}`,
    );
  }
  if (job.stopped) line(doc, stoppedWords[job.stopped.as], sayStopped(job));
}

function sheetBlock({ doc }: Page, w: WheelEnd): void {
  const { sheet, plan } = w;
  const by =
    plan.by === 'procedure' ? ` Procedure: ${plan.procedure.title}, version ${plan.procedure.version}` : '';
  line(doc, 'Sheet', `${sheet.title}, revision ${sheet.revision}.${by}`);
  if (plan.by === 'route') {
    line(doc, 'Work', plan.works.map((work) => works[work]).join(', '));
    line(doc, 'Stack', plan.stack.map(sayLayer).join(', '));
  }
  for (const figure of sheetLines(sheet, inchReader)) line(doc, figure.label, sayLine(figure));
}

const caution =
  'Follow the maker’s instructions and local rules. Safety-critical work is done or signed by a qualified person.';

/** The sheet that goes with a job: every step still to be done, with room to tick. */
export function travellerPaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const page = openPage(context.paper, `Traveller ${context.number}`, new Date(job.opened.at));
  const { doc } = page;
  head(page, job, context, 'traveller');
  line(doc, 'Caution', caution);
  for (const w of job.wheelEnds) {
    heading(doc, `Wheel end ${w.position}`);
    sheetBlock(page, w);
    line(
      doc,
      'At hand',
      linesToAnswer(w)
        .map((l) => ({ ...l, title: l.title ?? l.what }))
        .map((l) => (l.detail ? `${l.title} (${l.detail})` : l.title))
        .join(', '),
    );
    for (const { step, record } of progressOf(w)) {
      const stage = stages.find((s) => s.id === step.stage)!;
      const figure = step.kind === 'torque' ? w.sheet[step.figure] : null;
      const to = figure ? ` To ${formatQuantity(figure.max)}.` : '';
      line(
        doc,
        stage.title,
        `[ ${record ? 'x' : '  '} ]  ${step.title}. ${step.text}${to}${step.caution ? ` Caution: ${step.caution}` : ''}`,
      );
    }
  }
  footers(doc, `Job ${context.number}, ${context.unit.name}.`);
  return page.bytes();
}

function readingsBlock({ doc }: Page, w: WheelEnd): void {
  for (const round of [0, ...w.rounds.map((r) => r.number)]) {
    readingsOf(w, round).forEach((r, i) => {
      const words = `push ${formatTyped(r.push)}, pull ${formatTyped(r.pull)}: ${playMm(r).toFixed(4)} mm${r.gauge ? ` with ${r.gauge}` : ''}, ${r.by.name}`;
      line(doc, round === 0 ? `As found, cycle ${i + 1}` : `Round ${round}, cycle ${i + 1}`, words);
    });
  }
  const last = lastVerdict(w);
  if (last) line(doc, 'End play', `${last.result.endPlayMm.toFixed(4)} mm, ${last.result.verdict}`);
}

/** Every listed tool that was used, as it stood that day. */
function toolsBlock({ doc }: Page, w: WheelEnd): void {
  const used = new Map<string, string>();
  for (const { data } of w.records) {
    const tool = data?.kind === 'torque' || data?.kind === 'measure' ? data.listed : undefined;
    if (!tool) continue;
    const until = tool.calibratedUntil ? `, in calibration until ${tool.calibratedUntil}` : '';
    used.set(tool.code, `${tool.title}${sayTool(tool) ? `, ${sayTool(tool)}` : ''}${until}`);
  }
  for (const [code, words] of [...used].sort()) line(doc, `Tool ${code}`, words);
}

/** Lines that stand against a release and are named on paper; the rest are counted. */
const SHOWN = 4;

function releaseBlock({ doc }: Page, w: WheelEnd, { sayTime }: PaperContext): void {
  const { release, retorque } = w;
  if (!release) {
    const against = againstRelease(w).map((o) => sayObjection(w, o, null));
    const more = against.length > SHOWN ? `, and ${against.length - SHOWN} more` : '';
    line(doc, 'Release', `not released. ${against.slice(0, SHOWN).join('. ')}${more}`);
    return;
  }
  line(doc, 'Released', `${sayTime(release.at)}, ${release.by.name}, ${release.by.role}`);
  if (release.overrideReason)
    line(
      doc,
      'In spite of',
      `${release.overridden.map((o) => sayObjection(w, o, null)).join('. ')}. Reason: ${release.overrideReason}`,
    );
  if (release.followUp) {
    const { byDate, byKm } = release.followUp;
    line(doc, 'Retorque due', `by ${byDate}${byKm === null ? '' : ` or ${Math.round(byKm)} km`}`);
  }
  if (retorque)
    line(
      doc,
      'Retorqued',
      `${sayTime(retorque.at)}, ${formatQuantity(retorque.torque)} with ${retorque.tool}, ${retorque.doneBy ?? retorque.by.name}`,
    );
}

function lineOf(job: Job, event: StoredEvent, { sayTime }: PaperContext): [string, string] {
  return [sayTime(event.at), `${sayEvent(job, event, null)} (${event.by.name})`];
}

/** What was done on a job: every reading as typed and in mm, tools, revisions, who, and the record's hash. */
export function servicePaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const last = job.events.at(-1)!;
  const page = openPage(context.paper, `Service record ${context.number}`, new Date(last.at));
  const { doc } = page;
  head(page, job, context, 'service record');
  for (const w of job.wheelEnds) {
    heading(doc, `Wheel end ${w.position}`);
    sheetBlock(page, w);
    readingsBlock(page, w);
    toolsBlock(page, w);
    releaseBlock(page, w, context);
  }
  heading(doc, 'Everything recorded, in order');
  for (const event of job.events) line(doc, ...lineOf(job, event, context));
  sealBlock(page, context.seal, context.sayTime);
  footers(doc, `Job ${context.number}, record ${last.version}, SHA-256 ${context.hash}.`);
  return page.bytes();
}
