import type { Mark, Side, StoredSide, YardOnly } from './side.ts';

/** A side that was released: everything it was moved for is settled, but for what was accepted for the yard only. */
export function releaseSide(side: Side, yardOnly: YardOnly | null): Side {
  const layers = Object.fromEntries(
    Object.entries(side.layers).map(([id, at]) => [id, at.is === 'on' ? { ...at, moved: null } : at]),
  );
  const made = Object.fromEntries(
    Object.entries(side.made).map(([id, { first, last }]) => [id, { first, last }]),
  );
  return { ...side, layers, made, broken: {}, skipped: {}, others: {}, left: null, yardOnly };
}

/**
 * What the next job on this axle begins from; null where nothing is left to say.
 * @param counts which closures are made, with what they rest on
 */
export function carrySide(side: Side, counts: (id: string) => boolean): StoredSide | null {
  const layers = Object.fromEntries(
    Object.entries(side.layers).flatMap(([id, at]) => {
      if (at.is === 'on' && !at.moved) return [];
      const outSeq = at.is === 'on' ? -1 : 0;
      const moved = at.moved && { ...at.moved, seq: 0 };
      return [[id, { ...at, moved, outSeq, onSeq: -1, own: false }]];
    }),
  );
  const seqs = (mark: Mark): Mark => ({ ...mark, seq: 0 });
  const broken = Object.entries(side.broken).filter(([id]) => !counts(id));
  const stands = side.left !== null || side.yardOnly !== null;
  if (Object.keys(layers).length === 0 && broken.length === 0 && !stands) return null;
  return {
    stack: [...side.stack],
    layers,
    // Before and after of what is made stands among itself: it counts for the next job as it counted.
    made: Object.fromEntries(
      Object.entries(side.made)
        .filter(([id]) => counts(id))
        .map(([id, made]) => [id, { ...made, first: 0, last: seqs(made.last) }]),
    ),
    broken: Object.fromEntries(broken.map(([id, mark]) => [id, seqs(mark)])),
    skipped: {},
    nutMoved: 0,
    others: Object.fromEntries(
      Object.entries(side.others).map(([id, by]) => [id, { ...by, mark: seqs(by.mark) }]),
    ),
    left: side.left && { ...side.left, mark: seqs(side.left.mark) },
    yardOnly: side.yardOnly && { ...side.yardOnly, mark: seqs(side.yardOnly.mark) },
  };
}
