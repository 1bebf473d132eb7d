import type { Sheet } from '../procedure/index.ts';
import { layerOf, type Stack } from '../stack/index.ts';

/**
 * How the setting of this wheel end is verified, by its lock kind: two nuts, lock ring and spacer by the dial,
 * round nuts by their pull, pins and stakes by the dial or by feel where the sheet allows it.
 * @source common practice, no single source; the heavy kinds: TMC RP 618
 */
export function verifyBy(stack: Stack, sheet: Pick<Sheet, 'verifyBy'>): Sheet['verifyBy'] {
  const nut = layerOf(stack, 'nut');
  if (!nut) return layerOf(stack, 'unit-hub') ? 'dial-or-feel' : 'none';
  if (nut.kind === 'H') return 'drag';
  // Proved by its rolling torque, a step of its own.
  if (nut.kind === 'N') return 'none';
  if (nut.kind === 'A' || nut.kind === 'B' || nut.kind === 'C') return 'dial';
  return sheet.verifyBy === 'dial' ? 'dial' : 'dial-or-feel';
}
