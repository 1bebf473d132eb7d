/**
 * Number of the rules that a release is given by today. New rules never judge an old release: an act that is new with
 * them carries their number, and a release of a lower one is never held against it.
 */
export const RULES = 5;
