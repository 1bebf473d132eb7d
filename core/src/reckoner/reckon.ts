import { z } from 'zod';
import { BadInput, type Calculation, type Issue, type Progress, type Source } from '../calculation/index.ts';
import { calculations } from './registry.ts';
import { unknownFields, type JsonSchema } from './unknown-fields.ts';

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
    inputSchema: inputSchemaOf(entry),
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
  const unknown = unknownFields(inputSchemaOf(entry), input);
  const faults = parsed.success ? [] : parsed.error.issues.flatMap(flatten);
  if (!parsed.success || unknown.length > 0)
    return badInput([...unknown, ...faults.map((issue) => inWords(issue, input))]);
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

function inSteps<T>(running: Generator<Progress, T>, report: (progress: Progress) => void): T {
  let step = running.next();
  for (; !step.done; step = running.next()) report(step.value);
  return step.value;
}

const inputSchemas = new Map<string, JsonSchema>();

function inputSchemaOf({ name, inputSchema }: Calculation): JsonSchema {
  const known = inputSchemas.get(name) ?? (z.toJSONSchema(inputSchema, { io: 'input' }) as JsonSchema);
  inputSchemas.set(name, known);
  return known;
}

const DECIMAL_COMMA = /^\s*[+-]?\d+,\d+\s*$/;
const LONGEST_SHOWN = 40;

/** A number that was sent as text is said to be one. */
function inWords(issue: Issue, input: unknown): Issue {
  if (!issue.message.includes('expected number, received string')) return issue;
  const value = issue.path
    .split('.')
    .reduce((at: unknown, key) => (at as Record<string, unknown>)[key], input);
  const shown = JSON.stringify(String(value).slice(0, LONGEST_SHOWN));
  const decimal = DECIMAL_COMMA.test(String(value)) ? '; a decimal comma is a point here' : '';
  return { ...issue, message: `${shown} is text: a number stands without quotation marks${decimal}` };
}

/** What follows a colon as a number with a comma in it is never JSON; in a list it is two numbers. */
const COMMA_IN_FIELD = /:\s*[+-]?\d+,\d/;
const STRINGS = /"(?:[^"\\]|\\.)*"/g;

/** Why a text is no JSON, for whoever wrote it by hand. */
export function describeBadJson(text: string, error: unknown): string {
  const why = `The input is not JSON: ${error instanceof Error ? error.message : String(error)}`;
  return COMMA_IN_FIELD.test(text.replace(STRINGS, '""'))
    ? `${why}. A decimal comma is a point here: 0.125`
    : why;
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
  // These are named by unknownFields, with the nearest there is.
  if (issue.code === 'unrecognized_keys') return [];
  return [{ path: issue.path.map(String).join('.'), message: issue.message }];
}

function depth(issues: readonly z.core.$ZodIssue[]): number {
  return Math.max(0, ...issues.map((i) => i.path.length));
}
