import { nutTravel } from '../nut/index.ts';
import type { Sheet } from './sheet.ts';

/**
 * Most end play that the sheet's last back-off can leave with the rollers seated, mm; null where it backs nothing off.
 * @source geometry: a nut moves by its pitch in a turn; elastic set and the jam nut take up a part of it
 */
export function backOffLeavesMm({ thread, backOff }: Pick<Sheet, 'thread' | 'backOff'>): number | null {
  return thread && backOff ? nutTravel(thread, Math.abs(backOff.turns)) : null;
}
