import { stoppedWords, type Job, type WheelEnd } from '@lanternwright/core/traveller';
import { MARGIN, openPage, plain, type Paper } from './page.ts';
import { drawCode } from './qr-code.ts';

const TAG = { width: 250, height: 120 };

/** What whoever stands before the wheel end must know. */
function stateOf({ stopped }: Job, { release }: WheelEnd): string {
  if (release) return `Released ${release.at.slice(0, 10)}`;
  if (stopped?.as !== 'out-of-service') return 'Being worked on: do not move';
  const reason = stopped.reason.length > 90 ? `${stopped.reason.slice(0, 89)}...` : stopped.reason;
  return `${stoppedWords[stopped.as]}: never to roll on this axle. ${reason}`;
}

/**
 * A tag for each wheel end of a job, to hang on it: unit, position, when it was last released, and a code
 * that opens the position.
 * @param origin address of the application, without a slash at its end
 */
export function tagPaper(
  job: Job,
  { unit, paper, origin }: { unit: { name: string; owner: string }; paper: Paper; origin: string },
): Promise<Uint8Array<ArrayBuffer>> {
  const page = openPage(paper, `Tags ${unit.name}`, new Date(job.events.at(-1)!.at));
  const { doc } = page;
  const columns = Math.floor((doc.page.width - 2 * MARGIN) / TAG.width);
  const rows = Math.floor((doc.page.height - 2 * MARGIN) / TAG.height);
  job.wheelEnds.forEach((w, i) => {
    const place = i % (columns * rows);
    if (i > 0 && place === 0) doc.addPage();
    const x = MARGIN + (place % columns) * TAG.width;
    const y = MARGIN + Math.floor(place / columns) * TAG.height;
    doc.rect(x, y, TAG.width, TAG.height).dash(3, { space: 3 }).strokeColor('#8D8674').stroke().undash();
    drawCode(doc, `${origin}/fleet/${job.unitId}?at=${w.position}`, x + 10, y + 12, 96);
    const text = { width: TAG.width - 126, lineBreak: true };
    doc
      .fillColor('black')
      .font('Helvetica-Bold')
      .fontSize(26)
      .text(w.position, x + 118, y + 12, text);
    doc
      .font('Helvetica-Bold')
      .fontSize(12)
      .text(plain(unit.name), x + 118, y + 44, text);
    doc
      .font('Helvetica')
      .fontSize(8)
      .text(plain(unit.owner), x + 118, doc.y, text);
    const state = stateOf(job, w);
    doc.font(w.release ? 'Helvetica' : 'Helvetica-Bold').text(plain(state), x + 118, doc.y + 4, text);
    doc.font('Helvetica');
    if (w.release?.followUp && !w.retorque)
      doc.text(`Retorque by ${w.release.followUp.byDate}`, x + 118, doc.y, text);
  });
  return page.bytes();
}
