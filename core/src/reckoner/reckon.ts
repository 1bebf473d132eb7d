import { z } from 'zod';
import { BadInput, type Calculation, type Issue, type Progress, type Source } from '../calculation/index.ts';
import { calculations } from './registry.ts';

export type Reckoned =
  | { ok: true; result: unknown }
  | { ok: false; reason: 'unknown' | 'bad-input'; error: { message: string; issues: Issue[] } };

/** What `list` shows of a calculation. */
export interface CalculationTitle {
  name: string;
  title: string;
  summary: string;
}

/** What `describe` shows. */
export interface CalculationDescription extends CalculationTitle {
  inputSchema: unknown;
  outputSchema: unknown;
  sources: readonly Source[];
  example: unknown;
}

/** Names, titles and summaries of all calculations. */
export function listCalculations(): CalculationTitle[] {
  return calculations.map(({ name, title, summary }) => ({ name, title, summary }));
}

/** Schemas, sources and example of one calculation, or undefined. */
export function describeCalculation(name: string): CalculationDescription | undefined {
  const entry = find(name);
  if (!entry) return undefined;
  return {
    name: entry.name,
    title: entry.title,
    summary: entry.summary,
    inputSchema: z.toJSONSchema(entry.inputSchema, { io: 'input' }),
    outputSchema: z.toJSONSchema(entry.outputSchema),
    sources: entry.sources,
    example: entry.example,
  };
}

/**
 * Runs a calculation on input that nobody has checked yet. Never throws for bad input; a result is
 * held against the entry's own output schema, so that nothing but finite numbers gets out.
 * @param report is told how far a long sum is, from time to time
 */
export function reckon(name: string, input: unknown, report?: (progress: Progress) => void): Reckoned {
  const entry = find(name);
  if (!entry) {
    return {
      ok: false,
      reason: 'unknown',
      error: { message: `There is no calculation named ${name}`, issues: [] },
    };
  }
  const parsed = entry.inputSchema.safeParse(input);
  if (!parsed.success) return badInput(parsed.error.issues.flatMap(flatten));
  try {
    const computed =
      report && entry.steps ? inSteps(entry.steps(parsed.data), report) : entry.compute(parsed.data);
    const result = entry.outputSchema.safeParse(computed);
    if (result.success) return { ok: true, result: result.data };
    const path = result.error.issues[0]?.path.map(String).join('.') ?? '';
    return badInput([
      { path: '', message: `these figures are too extreme: ${path} would not be a finite number` },
    ]);
  } catch (error) {
    if (error instanceof BadInput) return badInput(error.issues);
    throw error;
  }
}

/**
 * Input without the fields that its calculation does not know, otherwise as it was typed.
 * @param input that `reckon` takes
 */
export function onlyKnown(name: string, input: unknown): unknown {
  return without(input, find(name)?.inputSchema.safeParse(input).data);
}

/** What of `given` is in `known` as well. */
function without(given: unknown, known: unknown): unknown {
  if (Array.isArray(given) && Array.isArray(known)) return known.map((k, i) => without(given[i], k));
  if (!isRecord(given) || !isRecord(known)) return given;
  const fields = Object.entries(given).filter(([key]) => Object.hasOwn(known, key));
  return Object.fromEntries(fields.map(([key, value]) => [key, without(value, known[key])]));
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function inSteps<T>(running: Generator<Progress, T>, report: (progress: Progress) => void): T {
  let step = running.next();
  for (; !step.done; step = running.next()) report(step.value);
  return step.value;
}

function find(name: string): Calculation | undefined {
  return calculations.find((c) => c.name === name);
}

function badInput(issues: Issue[]): Reckoned {
  const first = issues[0];
  const message = first ? `${first.path || 'input'}: ${first.message}` : 'The input does not fit';
  return { ok: false, reason: 'bad-input', error: { message, issues } };
}

/** A union's issues are those of the branch that came furthest, so that the path names the field. */
function flatten(issue: z.core.$ZodIssue): Issue[] {
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const deepest = [...issue.errors].sort((a, b) => depth(b) - depth(a))[0] ?? [];
    return deepest.flatMap((inner) => flatten({ ...inner, path: [...issue.path, ...inner.path] }));
  }
  return [{ path: issue.path.map(String).join('.'), message: issue.message }];
}

function depth(issues: readonly z.core.$ZodIssue[]): number {
  return Math.max(0, ...issues.map((i) => i.path.length));
}
