/** The part of JSON Schema that the calculations use. */
export interface JsonSchema {
  type?: 'object' | 'array' | 'number' | 'integer' | 'string' | 'boolean' | 'null';
  properties?: Record<string, JsonSchema>;
  required?: string[];
  items?: JsonSchema;
  enum?: unknown[];
  const?: unknown;
  anyOf?: JsonSchema[];
  oneOf?: JsonSchema[];
  format?: string;
  default?: unknown;
  minimum?: number;
}

export const choicesOf = (schema: JsonSchema) => schema.anyOf ?? schema.oneOf ?? [];

/** The choice of a union that a value is of: all its required keys are there, and its constant fits. */
export function choiceOf(schema: JsonSchema, value: unknown): number {
  const held = (value ?? {}) as Record<string, unknown>;
  const fits = (c: JsonSchema) =>
    c.const !== undefined
      ? c.const === value
      : (c.required ?? []).every(
          (k) => k in held && (c.properties?.[k]?.const === undefined || c.properties[k]?.const === held[k]),
        );
  return Math.max(0, choicesOf(schema).findIndex(fits));
}

/** A value to start from when a field is switched on. */
export function startValue(schema: JsonSchema): unknown {
  if (schema.default !== undefined) return schema.default;
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return schema.enum[0];
  const [first] = choicesOf(schema);
  if (first) return startValue(first);
  if (schema.type === 'object') {
    return Object.fromEntries((schema.required ?? []).map((k) => [k, startValue(schema.properties![k]!)]));
  }
  if (schema.type === 'array') return [startValue(schema.items ?? {})];
  if (schema.type === 'number' || schema.type === 'integer') return Math.max(1, schema.minimum ?? 1);
  return schema.type === 'boolean' ? false : '';
}

/** A word, or null where there is none. */
export const isTextOrNull = (schema: JsonSchema): boolean =>
  choicesOf(schema)
    .map((c) => c.type)
    .sort()
    .join() === 'null,string';

export const isNumber = (schema: JsonSchema | undefined) =>
  schema?.type === 'number' || schema?.type === 'integer';
/** A list of rows whose cells are single values. */
export const isTable = (schema: JsonSchema | undefined) =>
  schema?.type === 'object' &&
  Object.values(schema.properties ?? {}).every(
    (p) =>
      isNumber(p) ||
      isTextOrNull(p) ||
      p.type === 'string' ||
      p.type === 'boolean' ||
      p.items?.type === 'string',
  );
