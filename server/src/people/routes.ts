import { Router, type Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { jobsRoutes } from '@lanternwright/contract/jobs';
import { peopleRoutes, type Person } from '@lanternwright/contract/people';
import { HttpProblem, sendProblem } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import type { PeopleService } from './service.ts';

declare module 'express-session' {
  interface SessionData {
    personId: string;
  }
}

/** A new session id on sign-in, so that one planted before is worth nothing. */
function startSession(req: Request, person: Person): Promise<Person> {
  return new Promise((resolve, reject) => {
    req.session.regenerate((error: unknown) => {
      if (error) return reject(error as Error);
      req.session.personId = person.id;
      req.session.save((saveError: unknown) => (saveError ? reject(saveError as Error) : resolve(person)));
    });
  });
}

function endSession(req: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    req.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
  });
}

export function peopleRouter(people: PeopleService, signInTries: number): Router {
  const router = Router();
  router.post(
    // A second person's password at a step is a sign-in as well.
    [peopleRoutes.signIn.path, peopleRoutes.first.path, jobsRoutes.secondPerson.path],
    rateLimit({
      windowMs: 5 * 60_000,
      limit: signInTries,
      skipSuccessfulRequests: true,
      standardHeaders: true,
      legacyHeaders: false,
      handler: (_req, res) =>
        sendProblem(
          res,
          new HttpProblem(429, 'Too many tries', 'Too many tries to sign in. Wait five minutes.'),
        ),
    }),
  );
  serve(router, peopleRoutes.session, async ({ person }) => ({
    person,
    demoPeople: await people.demoPeople(),
    needsFirstPerson: await people.isEmpty(),
  }));
  serve(router, peopleRoutes.signIn, async ({ req, body }) =>
    startSession(req, await people.withPassword(body.login, body.password)),
  );
  serve(router, peopleRoutes.signInAsDemo, async ({ req, body }) =>
    startSession(req, await people.asDemo(body.personId)),
  );
  serve(router, peopleRoutes.signOut, async ({ req, res }) => {
    await endSession(req);
    res.clearCookie('lanternwright');
    return { ok: true as const };
  });
  serve(router, peopleRoutes.first, async ({ req, body }) => startSession(req, await people.first(body)));
  serve(router, peopleRoutes.list, () => people.list());
  serve(router, peopleRoutes.add, ({ body }) => people.add(body));
  return router;
}
