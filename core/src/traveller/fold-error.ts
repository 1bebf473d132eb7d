/** An event list that no job could have produced. */
export class FoldError extends Error {}
