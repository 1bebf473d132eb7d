import { Router } from 'express';
import { jobsRoutes } from '@lanternwright/contract/jobs';
import { HttpProblem } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import type { FollowUps } from './follow-ups.ts';
import type { PhotosService } from './photos.ts';
import type { PeopleService } from '../people/service.ts';
import type { JobsService } from './service.ts';

export function jobsRouter(
  jobs: JobsService,
  photos: PhotosService,
  people: PeopleService,
  followUps: FollowUps,
): Router {
  const router = Router();
  serve(router, jobsRoutes.list, ({ query }) => jobs.list(query.status, query.page));
  serve(router, jobsRoutes.followUps, ({ query }) => followUps(query.page));
  serve(router, jobsRoutes.photo, async ({ params, res }) => {
    const jpeg = await photos.jpeg(params.id);
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=31536000, immutable');
    return jpeg;
  });
  serve(router, jobsRoutes.addPhoto, ({ params, body }) => photos.add(params.id, body.jpeg));
  serve(router, jobsRoutes.job, ({ params }) => jobs.detail(params.id));
  serve(router, jobsRoutes.open, ({ body, person }) => jobs.open(body, person));
  serve(router, jobsRoutes.postEvent, ({ params, body, person }) => {
    if (body.as !== undefined && body.as !== person.id)
      throw new HttpProblem(
        403,
        'Another person',
        `Somebody else recorded this: it is not taken as ${person.name}`,
      );
    return jobs.record(params.id, body, person);
  });
  serve(router, jobsRoutes.secondPerson, async ({ params, body: { person: who, ...event } }) => {
    const second =
      'demoId' in who ? await people.asDemo(who.demoId) : await people.withPassword(who.login, who.password);
    return jobs.record(params.id, event, second);
  });
  return router;
}
