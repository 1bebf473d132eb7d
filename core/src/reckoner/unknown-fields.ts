import { closest } from 'fastest-levenshtein';
import type { Issue } from '../calculation/index.ts';

/** What is read here of a JSON Schema, as Zod writes it. */
export interface JsonSchema {
  properties?: Record<string, JsonSchema>;
  additionalProperties?: JsonSchema | boolean;
  items?: JsonSchema;
  prefixItems?: JsonSchema[];
  anyOf?: JsonSchema[];
  oneOf?: JsonSchema[];
  allOf?: JsonSchema[];
  const?: unknown;
}

/** More than these help nobody. */
const MOST = 20;

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** All that a value may be, without the "any of" around it. */
function alternatives(schema: JsonSchema): JsonSchema[] {
  const parts = [schema.anyOf, schema.oneOf, schema.allOf].flatMap((list) => list ?? []);
  return parts.length > 0 ? parts.flatMap(alternatives) : [schema];
}

/** Those that its constants allow, as `kind` does; all of them where none fits. */
function fitting(schemas: readonly JsonSchema[], value: Record<string, unknown>): readonly JsonSchema[] {
  const fit = schemas.filter(({ properties = {} }) =>
    Object.entries(properties).every(
      ([key, { const: only }]) => only === undefined || !Object.hasOwn(value, key) || value[key] === only,
    ),
  );
  return fit.length > 0 ? fit : schemas;
}

function unknownIn(schemas: readonly JsonSchema[], value: unknown, path: string, found: Issue[]): void {
  if (found.length >= MOST) return;
  const at = (key: string | number) => (path === '' ? String(key) : `${path}.${key}`);
  if (Array.isArray(value)) {
    const rest = schemas.flatMap((s) => (s.items ? alternatives(s.items) : []));
    for (const [i, item] of value.entries()) {
      const own = schemas.flatMap((s) => (s.prefixItems?.[i] ? alternatives(s.prefixItems[i]) : []));
      unknownIn(own.length > 0 ? own : rest, item, at(i), found);
    }
  } else if (isRecord(value)) {
    const fit = fitting(schemas, value);
    const known = [...new Set(fit.flatMap((s) => Object.keys(s.properties ?? {})))];
    // Whatever has no fields of its own, as a list by name, takes any.
    const open = known.length === 0 || fit.some((s) => typeof s.additionalProperties === 'object');
    for (const [key, inner] of Object.entries(value)) {
      const own = fit.flatMap((s) =>
        s.properties && Object.hasOwn(s.properties, key) ? alternatives(s.properties[key]!) : [],
      );
      if (own.length > 0) unknownIn(own, inner, at(key), found);
      else if (!open)
        found.push({
          path: at(key),
          message: `there is no field "${key}" here; the nearest is "${closest(key, known)}"`,
        });
    }
  }
}

/**
 * Fields, at any depth, that a schema does not know: a misspelt one would be left out of the sum in silence.
 * @returns one issue a field, twenty at most, with the nearest field there is
 */
export function unknownFields(schema: JsonSchema, input: unknown): Issue[] {
  const found: Issue[] = [];
  unknownIn(alternatives(schema), input, '', found);
  return found;
}
