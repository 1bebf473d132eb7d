import { parseTogether, type Quantity, type Unit } from '@lanternwright/core/quantity';

export type Pasted =
  { ok: true; cycles: { push: Quantity; pull: Quantity }[] } | { ok: false; message: string };

const units: Unit[] = ['in', 'mm', 'thou', 'um'];
const MOST = 20;
const PAIR =
  /^([-+]?[\d.,]+(?:\s*(?:in|mm|thou|um|µm))?)(?:\s*[;\t]\s*|\s+)([-+]?[\d.,]+(?:\s*(?:in|mm|thou|um|µm))?)$/i;

/**
 * Cycles as a gauge's software copies them: one a line, push and pull separated by tab, semicolon or
 * space. All lines must be good, or none is taken.
 */
export function readPastedCycles(text: string, assumed: Unit): Pasted {
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean);
  if (lines.length > MOST) return { ok: false, message: `More than ${MOST} lines were pasted` };
  const cycles = [];
  for (const [i, line] of lines.entries()) {
    const pair = PAIR.exec(line);
    if (!pair) return { ok: false, message: `Line ${i + 1}, “${line}”, is not a push and a pull` };
    const { push, pull } = parseTogether({ push: pair[1]!, pull: pair[2]! }, units, assumed, 'unlabelled');
    if (!push.ok) return { ok: false, message: `Line ${i + 1}: ${push.message}` };
    if (!pull.ok) return { ok: false, message: `Line ${i + 1}: ${pull.message}` };
    cycles.push({ push: push.quantity, pull: pull.quantity });
  }
  return { ok: true, cycles };
}
