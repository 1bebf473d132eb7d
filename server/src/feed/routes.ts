import { Router } from 'express';
import { feedRoutes } from '@lanternwright/contract/feed';
import { serve } from '../http/serve.ts';
import type { FeedService } from './service.ts';

export function feedRouter(feed: FeedService): Router {
  const router = Router();
  serve(router, feedRoutes.stand, () => feed.stand());
  serve(router, feedRoutes.ask, () => feed.ask());
  serve(router, feedRoutes.push, ({ body, req }) => feed.push(body.readings, req.get('authorization')));
  return router;
}
