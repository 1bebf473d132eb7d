import { eventBodySchema, type EventBody } from './event.ts';

/**
 * A stored event body as today's code reads it, whatever shape it was written in. Stored rows are never edited: an
 * old shape is lifted each time it is read.
 * @param body as it stands in the record
 * @throws ZodError for a body that no version of this program wrote
 */
export function upcast(body: unknown): EventBody {
  return eventBodySchema.parse(lifted(body));
}

/** A release of the first build held what stood against it as sentences. */
function lifted(body: unknown): unknown {
  if (!isRecord(body) || body['kind'] !== 'wheel-end-released' || !Array.isArray(body['overridden']))
    return body;
  const overridden = body['overridden'].map((o: unknown) =>
    typeof o === 'string'
      ? { code: 'first-build', params: { words: o.slice(0, 600) }, guard: 'supervisor' }
      : o,
  );
  return { ...body, overridden };
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;
