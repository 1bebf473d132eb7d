import type { ErrorRequestHandler, Response } from 'express';
import type { z } from 'zod';
import { NOT_RECORDING, problemCodes, problemType } from '@lanternwright/contract/problem';
import type { Problem } from '@lanternwright/contract/route';
import { whyNotRecorded } from '../database/why-not-recorded.ts';

/** An error that the caller is told about, as RFC 9457 problem details. */
export class HttpProblem extends Error {
  readonly status: number;
  readonly title: string;
  readonly issues: Problem['issues'];
  /** Further members of the problem, as RFC 9457 allows. */
  readonly extra: object;
  constructor(
    status: number,
    title: string,
    detail: string,
    rest: { issues?: Problem['issues']; extra?: object } = {},
  ) {
    super(detail);
    this.status = status;
    this.title = title;
    this.issues = rest.issues;
    this.extra = rest.extra ?? {};
  }
}

export const notFound = (what: string) => new HttpProblem(404, 'Not found', `There is no such ${what}`);
/** @param extra further members, such as the `code` of the refusal */
export const refused = (reason: string, path = '', extra: object = {}) =>
  new HttpProblem(422, 'Refused', reason, { issues: [{ path, message: reason }], extra });

/** Turns what Zod found into a 422 that names every field by its path. */
export function badFields(where: string, error: z.ZodError): HttpProblem {
  const issues = error.issues.map((i) => ({
    path: [where, ...i.path].filter((p) => p !== '').join('.'),
    message: i.message,
  }));
  const first = issues[0];
  return new HttpProblem(
    422,
    'Some fields do not fit',
    first ? `${first.path}: ${first.message}` : 'The input does not fit',
    { issues, extra: { code: 'fields' } },
  );
}

/** What whoever records is told while the database takes nothing. */
const notRecording = (why: string) =>
  new HttpProblem(
    503,
    'Nothing can be recorded just now',
    `Nothing can be recorded just now: the shop’s database cannot take it, ${why}. Nothing of this was kept here. A tablet keeps what is recorded at a job, and sends it by itself afterwards.`,
    { extra: { code: NOT_RECORDING } },
  );

/** What is told of an error of ours, which stands in the log. */
const broke = new HttpProblem(
  500,
  'Something broke here',
  'The server could not do this. Nothing was kept. Try again; if it stays, look in the log.',
);

function sendProblem(res: Response, problem: HttpProblem): void {
  const { status, title, message, issues } = problem;
  const extra = { code: problemCodes[status] ?? `status-${status}`, ...problem.extra };
  res
    .status(status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: problemType(extra.code),
        title,
        status,
        detail: message,
        ...(issues ? { issues } : {}),
        ...extra,
      }),
    );
}

/** Errors of the body parser carry a status and may be shown; anything else is ours and is logged. */
export const problemHandler: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  if (error instanceof HttpProblem) {
    sendProblem(res, error);
  } else if (
    error instanceof Error &&
    'status' in error &&
    typeof error.status === 'number' &&
    error.status < 500
  ) {
    // What the file system says names places of this machine.
    const detail = 'code' in error ? 'There is nothing here' : error.message;
    sendProblem(res, new HttpProblem(error.status, 'The request cannot be read', detail));
  } else {
    const why = whyNotRecorded(error);
    req.log.error({ err: error }, why === null ? 'request failed' : 'the database takes nothing');
    sendProblem(res, why === null ? broke : notRecording(why));
  }
};
