import { measures, partKinds, type LineStand, type Measured, type Part } from '@lanternwright/core/part';
import { convert, formatTypedFor, type ReaderUnits } from '@lanternwright/core/quantity';
import { formatDate } from '../shell/words.ts';

/** The measures of a part in the reader's units: "82.5 × 127 × 20 mm" by their names. */
export function dimsWords({ kind, dims }: Pick<Part, 'kind' | 'dims'>, reader: ReaderUnits): string {
  const order: readonly Measured[] = ['bore', 'outside', 'width'];
  return order
    .filter((what) => dims[what] && (partKinds[kind].measured as readonly Measured[]).includes(what))
    .map((what) => `${measures[what].toLowerCase()} ${formatTypedFor(dims[what]!, reader)}`)
    .join(', ');
}

/** By how much a part is larger than the old one: "width 3 mm more". Under a hundredth of a millimetre it is the same. */
export function offWords(off: Partial<Record<Measured, number>>, reader: ReaderUnits): string {
  const words = (Object.entries(off) as [Measured, number][]).map(([what, mm]) => {
    if (Math.abs(mm) < 0.01) return `${measures[what].toLowerCase()} the same`;
    const unit = reader.thickness;
    const size = convert(Math.abs(mm), 'mm', unit).toFixed(unit === 'mm' ? 2 : 3);
    return `${measures[what].toLowerCase()} ${Number(size)} ${unit} ${mm > 0 ? 'more' : 'less'}`;
  });
  return words.join(', ');
}

/** What stock is called of a part: free, kept, short. */
export function stockWords({ onHand, reserved }: { onHand: number; reserved: number }): string {
  if (onHand === 0 && reserved === 0) return 'None here';
  const free = onHand - reserved;
  if (reserved === 0) return `${onHand} here`;
  return free >= 0
    ? `${onHand} here, ${free} free`
    : `${onHand} here, ${-free} short of what is kept for jobs`;
}

/** The measures of a part as it is drawn, mm. */
export const dimsInMm = (dims: Part['dims']): Partial<Record<Measured, number>> =>
  Object.fromEntries(Object.entries(dims).map(([what, size]) => [what, size.si * 1000]));

/** How the store can answer a line of a readiness list, in words. */
export function standWords(stand: LineStand): string {
  if (stand.state === 'none') return 'No matching part on hand or on order';
  if (stand.state === 'here')
    return `In the store: ${stand.parts.map((p) => `${p.number} at ${p.place}`).join(', ')}`;
  const { number, coming } = stand;
  const promised = `promised for ${formatDate(coming.expected)}`;
  return stand.state === 'late'
    ? `${number} is on order ${coming.orderNumber}, which is late: ${promised}`
    : `${number} is on order ${coming.orderNumber}, ${promised}`;
}
