import { liningMinimums, type BrakeKind } from '../brake/index.ts';
import { componentOf } from '../inspection/index.ts';
import { stages } from '../procedure/index.ts';
import { formatFor, type Reader, type Unit } from '../quantity/index.ts';
import type { WheelEnd } from './job.ts';
import { readOnly } from './first-build.ts';
import { partTitle } from '../route/index.ts';
import type { Objection } from './objection.ts';
import { describeFinding } from './describe-finding.ts';
import { stepTitled } from './progress.ts';
import { layerTitles, type LayerId } from '../stack/index.ts';
import { HEAT_LIMITS } from './hub-heat.ts';

/** What stands against a release, in words. */
export function describeObjection(
  w: WheelEnd | undefined,
  { code, params }: Objection,
  reader: Reader,
): string {
  const text = (key: string) => String(params[key] ?? '');
  const figure = (key: string) => Number(params[key]);
  const unit = (key: string) => text(key) as Unit;
  const step = stepTitled(w, text('stage'), text('step'));
  const title = step?.title ?? text('step');
  const stage = stages.find((s) => s.id === params['stage'])?.title ?? text('stage');
  const note = text('note') || 'no words';
  switch (code) {
    case 'undecided':
      return `${componentOf(text('component'))?.title ?? text('component')}: the supervisor has not decided`;
    case 'missing':
      return step?.kind === 'lock' ? 'The lock is not recorded' : `${stage}, “${title}” is not recorded`;
    case 'skipped':
      return `${stage}, “${title}” was skipped: ${text('reason')}`;
    case 'said-no':
      return `${stage}, “${title}” found trouble: ${note}`;
    case 'torque-off': {
      const least = formatFor({ value: figure('from'), unit: unit('askedUnit') }, reader);
      const asked = formatFor({ value: figure('to'), unit: unit('askedUnit') }, reader);
      const reached = formatFor({ value: figure('reached'), unit: unit('unit') }, reader);
      return `${title} torqued to ${reached}, the sheet asks for ${figure('from') === figure('to') ? '' : `${least} to `}${asked}`;
    }
    case 'tool-not-listed':
      return `${title} was torqued with ${text('tool')}, which is not on the list of tools: its calibration is not known`;
    case 'lining-thin': {
      const brake = liningMinimums[text('brake') as BrakeKind].title.toLowerCase();
      return `The lining is ${figure('mm').toFixed(1)} mm, at or under ${figure('leastMm')} mm for ${brake}: ${note}. Released in spite of it, the unit stays in the yard, out of service for the road`;
    }
    case 'brake-not-back':
      return `The brake is not back: ${note}`;
    case 'not-measured':
      return 'End play is not measured';
    case 'not-repeated':
      return 'End play needs three cycles that repeat';
    case 'tight':
    case 'loose':
      return `End play is ${code} by ${formatFor({ value: figure('by'), unit: unit('unit') }, reader)}`;
    case 'found-out':
      return `End play was found ${text('verdict')} by ${formatFor({ value: figure('by'), unit: unit('unit') }, reader)}: adjust now, defer it with a date, or out of service`;
    case 'too-hot':
      return params['verdict'] === 'not-released'
        ? `The hub is more than ${Number(params['limitK'] ?? HEAT_LIMITS.notReleasedOverAirK)} K over the air: bearing or brake, find it`
        : 'The hub is much warmer than the air or the other side: look again, at the brake as well';
    case 'dimension-off':
      return `${title} is off its figure: ${note}`;
    case 'part-still-in':
      return `${componentOf(text('component'))?.title ?? text('component')}: judged for replacement, and the new one is not in`;
    case 'layer-not-reached':
      return `${layerTitles[text('layer') as LayerId]}: to be opened or taken off, and it is not yet`;
    case 'finding':
      return describeFinding(text('finding'), text('note'));
    case 'moves':
      return `The hub moves ${figure('mm').toFixed(2)} mm by the dial, more than ${figure('limitMm').toFixed(2)} mm`;
    case 'dial-says-otherwise':
      return 'Accepted by feel, and the dial read out of band for the same setting';
    case 'drag-off':
      return `${step ? `${title}: the` : 'The'} pull is outside the figure of the sheet, or was not measured`;
    case 'first-build':
      return text('words');
    case 'by-others':
      return `${layerTitles[text('layer') as LayerId]}: put on by ${text('who')}. What is under it was not seen in this shop`;
    case 'other-side':
      return `The cross pin was out, and it holds the clip of ${text('position')} as well: take ${text('position')} into the job, and look at it`;
    case 'old-part-in':
      return `${partTitle(text('part'))}: the old one went in again, and it is not used twice. A new one goes in first`;
    case 'read-only':
      return readOnly;
  }
}
