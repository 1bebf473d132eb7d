import { Router, type Request, type Response } from 'express';
import { peopleRoutes, type Person, type Session } from '@lanternwright/contract/people';
import { serve } from '../http/serve.ts';
import { askingBy, personOf, type Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { SealsService } from '../record/seals.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { RightsService } from './rights.ts';
import { knownDevice, rememberDevice } from './known-device.ts';
import type { PeopleService } from './service.ts';
import type { TriesService } from './tries.ts';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    by: Viewer['by'];
  }
}

/** A new session id on sign-in, so that one planted before is worth nothing. */
export function startSession(req: Request, person: Person, by: Viewer['by']): Promise<Person> {
  return new Promise((resolve, reject) => {
    req.session.regenerate((error: unknown) => {
      if (error) return reject(error as Error);
      req.session.personId = person.id;
      req.session.by = by;
      req.session.save((saveError: unknown) => (saveError ? reject(saveError as Error) : resolve(person)));
    });
  });
}

function endSession(req: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    req.session.destroy((error: unknown) => (error ? reject(error as Error) : resolve()));
  });
}

/** The browser keeps neither the session nor what it was shown; what waits to be sent stays. */
function leave(res: Response): void {
  res.clearCookie('lanternwright').set('Clear-Site-Data', '"cache"');
}

/** The address tries are counted by. */
export const addressOf = (req: Request): string => req.ip ?? 'unknown';

export function peopleRouter(
  people: PeopleService,
  rights: RightsService,
  tries: TriesService,
  { settings, clock, seals }: { settings: SettingsService; clock: Clock; seals: SealsService },
): Router {
  const asking = askingBy(clock);
  const router = Router();
  const done = { ok: true as const };
  /** Who is signed in: a program never is. */
  const signedIn = (viewer: Viewer | null): Pick<Session, 'person' | 'by'> =>
    viewer && viewer.by !== 'key' ? { person: personOf(viewer), by: viewer.by } : { person: null, by: null };
  serve(router, peopleRoutes.session, async ({ viewer }) => ({
    ...signedIn(viewer),
    hasPin: viewer ? await people.hasPin(viewer.person.id) : false,
    demoPeople: await people.demoPeople(),
    needsFirstPerson: await people.isEmpty(),
    units: viewer?.units ?? settings.current().units,
    shop: settings.current(),
  }));
  serve(router, peopleRoutes.signIn, async ({ req, res, body: { login, password } }) => {
    const attempt = () => people.withPassword(login, password);
    const person = await tries.one(addressOf(req), login, attempt, knownDevice(req, login));
    rememberDevice(req, res, login);
    return startSession(req, person, 'password');
  });
  serve(router, peopleRoutes.signInWithCode, async ({ req, res, body: { login, code, password } }) => {
    const person = await tries.one(addressOf(req), login, () => people.withCode(login, code, password));
    rememberDevice(req, res, login);
    return startSession(req, person, 'password');
  });
  serve(router, peopleRoutes.signInAsDemo, async ({ req, body }) =>
    startSession(req, await people.asDemo(body.personId), 'demo'),
  );
  serve(router, peopleRoutes.peopleWithPin, () => people.peopleWithPin());
  serve(router, peopleRoutes.changePerson, async ({ req, viewer, body: { personId, pin } }) => {
    const person = await tries.pin(personId, () => people.withPin(personId, pin));
    const started = await startSession(req, person, 'pin');
    await rights.announce(viewer.person.id);
    return started;
  });
  serve(router, peopleRoutes.signOut, async ({ req, res, viewer }) => {
    await endSession(req);
    leave(res);
    if (viewer) await rights.announce(viewer.person.id);
    return done;
  });
  serve(router, peopleRoutes.signOutEverywhere, async ({ res, viewer: { person } }) => {
    await rights.endSessions(person.id);
    leave(res);
    await rights.announce(person.id);
    return done;
  });
  serve(router, peopleRoutes.changePassword, async ({ req, viewer: { person, sessionId }, body }) => {
    await tries.one(addressOf(req), person.login, () =>
      people.changePassword(person.id, body.current, body.password, sessionId),
    );
    return done;
  });
  serve(router, peopleRoutes.setPin, async ({ req, viewer: { person }, body }) => {
    await tries.one(addressOf(req), person.login, () => people.setPin(person.id, body.password, body.pin));
    return done;
  });
  serve(router, peopleRoutes.setUnits, async ({ viewer: { person }, body }) => {
    await people.setUnits(person.id, body);
    return done;
  });
  serve(router, peopleRoutes.first, async ({ req, body: { code, ...person } }) => {
    const added = await tries.one(addressOf(req), 'first person', async () => {
      people.mustKnowFirstCode(code);
      return people.first(person);
    });
    await seals.sealEnd(true);
    return startSession(req, added, 'password');
  });
  serve(router, peopleRoutes.list, () => people.list());
  serve(router, peopleRoutes.add, ({ body, viewer }) => people.add(body, asking(viewer)));
  const seen = (viewer: Viewer, { seenVersion }: { seenVersion: number }) => ({
    ...asking(viewer),
    expected: seenVersion,
  });
  serve(router, peopleRoutes.change, ({ params, body, viewer }) =>
    people.change(params.id, body, seen(viewer, body)),
  );
  serve(router, peopleRoutes.switchOff, ({ params, body, viewer }) =>
    people.switchOff(params.id, seen(viewer, body)),
  );
  serve(router, peopleRoutes.newCode, ({ params, body, viewer }) =>
    people.newCode(params.id, seen(viewer, body)),
  );
  serve(router, peopleRoutes.details, ({ params, body, viewer }) =>
    people.details(params.id, body, asking(viewer)),
  );
  return router;
}
