import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import { pinIsEnough, programCapabilities, type Capability } from '@lanternwright/core/access';
import type { Route } from '@lanternwright/contract/route';
import { cleanInput } from './clean-input.ts';
import { badFields, HttpProblem } from './problem.ts';
import { able, forPeople, viewerOf, whoMay, type Viewer } from './viewer.ts';

interface Call<P, Q, B, Who> {
  params: P;
  query: Q;
  body: B;
  viewer: Who;
  req: Request;
  res: Response;
}

type Who<R extends Route> = R['access'] extends 'anyone' ? Viewer | null : Viewer;
type CallOf<R extends Route> = Call<z.output<R['params']>, z.output<R['query']>, z.output<R['body']>, Who<R>>;

/** Runs reads as the database lets this viewer read; set by the session middleware. */
export type ReadAs = <T>(viewer: Viewer, work: () => Promise<T>) => Promise<T>;

/** Tells a browser how far the record had come; set by the session middleware. */
type TellSeen = () => Promise<void>;

function parse<T>(where: string, schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(cleanInput(value));
  if (!parsed.success) throw badFields(where, parsed.error);
  return parsed.data;
}

/** Why a program is turned away. */
const notGiven = (access: Capability) =>
  access in programCapabilities
    ? new HttpProblem(403, 'Not allowed', `This key does not include “${access}”`, {
        extra: { code: 'not-given' },
      })
    : forPeople();

/** @throws HttpProblem 401 or 403 for whom a route is not meant */
function admit(access: Route['access'], viewer: Viewer | null): void {
  if (viewer?.by === 'key' && (access === 'anyone' || access === 'signed-in')) throw forPeople();
  if (access === 'anyone') return;
  if (!viewer) throw new HttpProblem(401, 'Sign in', 'Sign in first');
  if (access === 'signed-in') return;
  if (!able(viewer, access))
    throw viewer.given ? notGiven(access) : new HttpProblem(403, 'Not allowed', whoMay(access));
  if (viewer.by === 'pin' && !pinIsEnough(access))
    throw new HttpProblem(403, 'Not allowed', 'Sign in with your password for this: a PIN is not enough');
}

function read<R extends Route>(route: R, req: Request, res: Response): CallOf<R> {
  const viewer = viewerOf(res);
  admit(route.access, viewer);
  return {
    params: parse('', route.params, req.params) as z.output<R['params']>,
    query: parse('', route.query, req.query) as z.output<R['query']>,
    body: parse('', route.body, req.body) as z.output<R['body']>,
    viewer: viewer as Who<R>,
    req,
    res,
  };
}

/** What is read inside a transaction is read to its end there: a browser that takes its time holds none open. */
async function whole(value: unknown): Promise<unknown> {
  return value instanceof Readable ? text(value) : value;
}

/** An answer that the database wrote as JSON already: a long list is not read and written once more. */
export class JsonText {
  readonly text: string;
  constructor(text: string) {
    this.text = text;
  }
}

/** An object some of whose parts the database wrote as JSON. */
export const jsonWith = (own: object, written: Readonly<Record<string, string>>): JsonText => {
  const parts = Object.entries(written).map(([name, text]) => `${JSON.stringify(name)}:${text}`);
  return new JsonText(`{${[JSON.stringify(own).slice(1, -1), ...parts].filter(Boolean).join(',')}}`);
};

async function answer(res: Response, value: unknown): Promise<void> {
  if (value instanceof Readable) await pipeline(value, res);
  else if (value instanceof JsonText) res.type('json').send(value.text);
  else if (typeof value === 'string') res.send(value);
  // A thread hands bytes over as such.
  else if (value instanceof Uint8Array)
    res.send(Buffer.from(value.buffer, value.byteOffset, value.byteLength));
  else res.json(value);
}

/**
 * Binds a contract route: checks who calls, then parameters, query and body, and answers with what the handler
 * returns; a stream is sent on as it comes. What an owner's contact reads, the database holds to their owners. With
 * VALIDATE_ANSWERS set, as in tests, answers are held to the contract too.
 */
export function serve<R extends Route>(
  router: Router,
  route: R,
  handler: (
    call: CallOf<R>,
  ) => Promise<z.input<R['answer']> | Readable | JsonText> | z.input<R['answer']> | Readable | JsonText,
): void {
  router[route.method](route.path, async (req, res) => {
    const call = read(route, req, res);
    const { viewer } = call;
    const scoped = viewer !== null && viewer.owners !== 'all' && route.method === 'get';
    const work = scoped
      ? (res.locals['readAs'] as ReadAs)(viewer, async () => whole(await handler(call)))
      : Promise.resolve(handler(call));
    // A refusal tells of the record as well.
    const value = await work.finally(() => res.headersSent || (res.locals['tellSeen'] as TellSeen)());
    if (process.env['VALIDATE_ANSWERS'] && !(value instanceof Readable))
      route.answer.parse(value instanceof JsonText ? JSON.parse(value.text) : value);
    if (!res.headersSent) await answer(res, value);
  });
}

/** Binds a contract route that answers with a stream of events, which the handler opens. */
export function serveEvents<R extends Route>(
  router: Router,
  route: R,
  handler: (call: CallOf<R>) => void,
): void {
  router[route.method](route.path, (req, res) => handler(read(route, req, res)));
}
