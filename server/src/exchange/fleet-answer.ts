import { unitKinds } from '@lanternwright/core/axle-plan';
import { PREVIEW_ROWS, type FleetPreview } from '@lanternwright/contract/exchange';
import { readFleetCsv, type Sheets } from './fleet-csv.ts';

/** A fleet file as a thread read it: small enough to be handed over without holding the server up. */
export type FleetAnswer =
  | {
      ok: true;
      good: FleetPreview['good'];
      /** The good units themselves, in the order of `good`, each as JSON; none where only a preview is wanted. */
      units: string[];
      /** The first bad rows, by line. */
      bad: FleetPreview['bad'];
      badCount: number;
    }
  | { ok: false; reason: string };

/** Reads a fleet file. Never throws for a bad one. */
export function answerFleetFile(csv: string, sheets: Sheets, wanted: 'preview' | 'units'): FleetAnswer {
  try {
    const { good, bad } = readFleetCsv(csv, sheets);
    return {
      ok: true,
      good: good.map(({ lines, unit }) => ({
        lines,
        owner: unit.owner,
        name: unit.name,
        plate: unit.plate,
        kind: unitKinds[unit.kind],
        axles: unit.axles.length,
      })),
      units: wanted === 'units' ? good.map(({ unit }) => JSON.stringify(unit)) : [],
      bad: bad.sort((a, b) => a.line - b.line).slice(0, PREVIEW_ROWS),
      badCount: bad.length,
    };
  } catch (error) {
    return { ok: false, reason: error instanceof Error ? error.message : String(error) };
  }
}
