import { Router } from 'express';
import { may } from '@lanternwright/core/access';
import type { z } from 'zod';
import { sentOn, type Actor } from '@lanternwright/core/traveller';
import { jobsRoutes, type postEventSchema, type SecondPersonInput } from '@lanternwright/contract/jobs';
import type { Person } from '@lanternwright/contract/people';
import type { StandbyReads } from '../database/standby.ts';
import { HttpProblem } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import { able, personOf, whoMay, type Viewer } from '../http/viewer.ts';
import { addressOf } from '../people/routes.ts';
import type { PeopleService } from '../people/service.ts';
import type { TriesService } from '../people/tries.ts';
import type { FollowUps } from './follow-ups.ts';
import type { PhotosService } from './photos.ts';
import { actorOf, type JobsService } from './service.ts';

export function jobsRouter(
  jobs: JobsService,
  photos: PhotosService,
  people: PeopleService,
  tries: TriesService,
  followUps: FollowUps,
  standby: StandbyReads,
): Router {
  const router = Router();

  /** A second person's password or PIN at a step is a sign-in as well, and counted as one. */
  function secondPerson(who: SecondPersonInput['person'], address: string): Promise<Person> {
    if ('demoId' in who) return people.asDemo(who.demoId);
    if ('pin' in who) return tries.pin(who.personId, () => people.withPin(who.personId, who.pin));
    return tries.one(address, who.login, () => people.withPassword(who.login, who.password));
  }

  /** Whose record it is, where another person may send it. */
  async function recorderOf(
    { recordedBy }: z.output<typeof postEventSchema>,
    viewer: Viewer,
  ): Promise<Actor> {
    const person = personOf(viewer);
    if (recordedBy === undefined || recordedBy === person.id) return actorOf(person);
    if (!able(viewer, 'send-for-others'))
      throw new HttpProblem(403, 'Not allowed', whoMay('send-for-others'));
    const recorder = await people.named(recordedBy);
    if (!recorder || !may(recorder.role, 'work-on-jobs'))
      throw new HttpProblem(403, 'Not allowed', 'Nobody who works on jobs here recorded this');
    return sentOn(recorder, person);
  }

  serve(router, jobsRoutes.list, ({ req, query, viewer }) =>
    standby.read(req, viewer, (from) => jobs.list(query.status, query.page, viewer, from)),
  );
  serve(router, jobsRoutes.followUps, ({ req, query, viewer }) =>
    standby.read(req, viewer, (from) => followUps(query.page, viewer, from)),
  );
  serve(router, jobsRoutes.photo, async ({ params, viewer, res }) => {
    const jpeg = await photos.jpeg(params.id, viewer);
    // Kept by the browser and shown only to whom we let see it still: it asks us each time, and is sent it once.
    res.type('image/jpeg').set('Cache-Control', 'private, no-cache');
    return jpeg;
  });
  serve(router, jobsRoutes.addPhoto, ({ params, body, viewer }) => photos.add(params.id, body.jpeg, viewer));
  serve(router, jobsRoutes.job, ({ params, viewer }) => jobs.detail(params.id, viewer));
  serve(router, jobsRoutes.open, ({ body, viewer }) => jobs.open(body, viewer));
  serve(router, jobsRoutes.join, ({ params, body, viewer }) => jobs.join(params.id, body, viewer));
  serve(router, jobsRoutes.postEvent, async ({ params, body, viewer }) => {
    if (body.as !== undefined && body.as !== viewer.person.id)
      throw new HttpProblem(
        403,
        'Another person',
        `Somebody else recorded this: it is not taken as ${viewer.person.name}`,
      );
    return jobs.record(params.id, body, viewer, await recorderOf(body, viewer));
  });
  serve(router, jobsRoutes.secondPerson, async ({ params, body: { person: who, ...event }, viewer, req }) => {
    const person = await secondPerson(who, addressOf(req));
    if (!may(person.role, 'work-on-jobs'))
      throw new HttpProblem(403, 'Not allowed', `${person.name} does not work on jobs`);
    return jobs.record(params.id, event, { ...viewer, person });
  });
  return router;
}
