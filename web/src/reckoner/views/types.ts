import { formatFor, type ReaderUnits } from '@lanternwright/core/quantity';
import type { RuleUnit } from '../../ui/thou-rule.tsx';

/** What a purpose-made view is given: input that was accepted, and its result. */
export interface ViewProps<I, R> {
  input: I;
  result: R;
  unit: RuleUnit;
}

export interface Band {
  minMm: number;
  maxMm: number;
}

/** Lengths and torques in the unit of the device. */
export function formatLength(mm: number, unit: RuleUnit, digits = unit === 'in' ? 3 : 1): string {
  return unit === 'in' ? `${(mm / 25.4).toFixed(digits)} in` : `${mm.toFixed(digits)} mm`;
}

export function formatTorqueNm(nm: number, reader: ReaderUnits): string {
  return formatFor({ value: nm, unit: 'Nm' }, reader);
}
