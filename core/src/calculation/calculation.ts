import type { z } from 'zod';

/** Where a rule or a figure comes from. */
export interface Source {
  text: string;
  /** published: a named standard or table. common-practice: no single source. from-memory: to be confirmed. */
  mark: 'published' | 'common-practice' | 'from-memory';
}

/** How far a long sum is. */
export interface Progress {
  /** Part of the work that is done, 0 to 1. */
  done: number;
}

/** One sum of the trade: plain data and one pure function. The doors read it, none computes. */
export interface Calculation<I extends z.ZodType = z.ZodType, O extends z.ZodType = z.ZodType> {
  name: string;
  title: string;
  /** One sentence in the trade's words. */
  summary: string;
  inputSchema: I;
  outputSchema: O;
  sources: readonly Source[];
  example: z.input<I>;
  /** @throws BadInput where the schema alone cannot see that the input makes no sense. */
  compute: (input: z.output<I>) => z.output<O>;
  /** The same in steps, for a sum that takes long: each step tells how far it is, and it may be left between two. */
  steps?: (input: z.output<I>) => Generator<Progress, z.output<O>>;
}

/** Keeps the schemas' types while the entry is written. */
export function defineCalculation<I extends z.ZodType, O extends z.ZodType>(
  entry: Calculation<I, O>,
): Calculation<I, O> {
  return entry;
}

export interface Issue {
  path: string;
  message: string;
}

/** Input that makes no sense, with the field it is about. */
export class BadInput extends Error {
  readonly issues: Issue[];
  constructor(message: string, path: string) {
    super(message);
    this.issues = [{ path, message }];
  }
}
