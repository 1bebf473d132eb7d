import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import type { Person } from '@lanternwright/contract/people';
import type { Route } from '@lanternwright/contract/route';
import { cleanInput } from './clean-input.ts';
import { badFields, HttpProblem } from './problem.ts';

export interface Call<P, Q, B, Who> {
  params: P;
  query: Q;
  body: B;
  person: Who;
  req: Request;
  res: Response;
}

type WhoOf<R extends Route> = R['access'] extends 'anyone' ? Person | null : Person;

/** Reads who is signed in; set by the session middleware. */
export function personOf(res: Response): Person | null {
  return (res.locals['person'] as Person | undefined) ?? null;
}

function parse<T>(where: string, schema: z.ZodType<T>, value: unknown): T {
  const parsed = schema.safeParse(cleanInput(value));
  if (!parsed.success) throw badFields(where, parsed.error);
  return parsed.data;
}

function admit(access: Route['access'], person: Person | null): void {
  if (access === 'anyone') return;
  if (!person) throw new HttpProblem(401, 'Sign in', 'Sign in first');
  if (access === 'supervisor' && person.role !== 'supervisor') {
    throw new HttpProblem(403, 'Not allowed', 'This is for a supervisor');
  }
}

/**
 * Binds a contract route: checks who calls, then parameters, query and body, and answers with what
 * the handler returns. With VALIDATE_ANSWERS set, as in tests, answers are held to the contract too.
 */
export function serve<R extends Route>(
  router: Router,
  route: R,
  handler: (
    call: Call<z.output<R['params']>, z.output<R['query']>, z.output<R['body']>, WhoOf<R>>,
  ) => Promise<z.input<R['answer']>> | z.input<R['answer']>,
): void {
  router[route.method](route.path, async (req, res) => {
    const person = personOf(res);
    admit(route.access, person);
    const answer = await handler({
      params: parse('', route.params, req.params) as z.output<R['params']>,
      query: parse('', route.query, req.query) as z.output<R['query']>,
      body: parse('', route.body, req.body) as z.output<R['body']>,
      person: person as WhoOf<R>,
      req,
      res,
    });
    if (process.env['VALIDATE_ANSWERS']) route.answer.parse(answer);
    if (!res.headersSent) {
      if (typeof answer === 'string' || Buffer.isBuffer(answer)) res.send(answer);
      else res.json(answer);
    }
  });
}
