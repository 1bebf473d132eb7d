/** A wheel end's place: axle number from the front and side, as `2L`. */
export type Position = string;

/** All positions of a unit, front to rear, left before right. */
export function positionsOf(axles: readonly { number: number }[]): Position[] {
  return axles.flatMap(({ number }) => [`${number}L`, `${number}R`]);
}

/** Axles as they stand one behind the other on a new unit: numbered from the front. */
export function numbered<A>(axles: readonly A[]): (A & { number: number })[] {
  return axles.map((axle, i) => ({ ...axle, number: i + 1 }));
}

/** The number of the axle that a position is on. */
export function axleNumber(position: Position): number {
  return Number(position.slice(0, -1));
}

/** The axle that a position is on, of those that carry their number; undefined where none has it. */
export function axleAt<A extends { number: number }>(axles: readonly A[], position: Position): A | undefined {
  return axles.find((a) => a.number === axleNumber(position));
}

/** The position on the other side of the same axle. */
export function oppositeOf(position: Position): Position {
  return position.slice(0, -1) + (position.endsWith('L') ? 'R' : 'L');
}
