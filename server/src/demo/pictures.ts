import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { WheelEnd } from '@lanternwright/core/traveller';

/** Drawings in the place of photos, by the step they are taken at. */
const taken: Record<string, { file: string; caption: string; component?: string; families?: string }> = {
  'looked-wrong': { file: 'seal.jpg', caption: 'Seal as it came apart' },
  'judge-parts': {
    file: 'spindle.jpg',
    caption: 'Shoulder of the spindle, wiped clean',
    component: 'spindle-shoulder',
  },
  compare: { file: 'cone.jpg', caption: 'New inner cone beside the old one' },
  lock: { file: 'lock.jpg', caption: 'Two tangs bent over', families: 'A' },
};

export interface Picture {
  jpeg: Buffer<ArrayBuffer>;
  sha256: string;
  caption: string;
  component?: string;
}

/** The picture somebody takes at a step; undefined where nobody takes one. */
export function pictureAt(stepId: string, { sheet }: WheelEnd): Picture | undefined {
  const of = taken[stepId];
  if (!of || (of.families && !of.families.includes(sheet.family))) return undefined;
  const jpeg = readFileSync(new URL(`../../demo-photos/${of.file}`, import.meta.url));
  const { caption, component } = of;
  const sha256 = createHash('sha256').update(jpeg).digest('hex');
  return { jpeg, sha256, caption, ...(component ? { component } : {}) };
}
