import { Router } from 'express';
import { programsRoutes } from '@lanternwright/contract/programs';
import { serve } from '../http/serve.ts';
import type { TokensService } from './tokens.ts';
import type { WebhooksService } from './webhooks.ts';

export function programsRouter(tokens: TokensService, webhooks: WebhooksService): Router {
  const router = Router();
  serve(router, programsRoutes.tokens, () => tokens.list());
  serve(router, programsRoutes.makeToken, ({ body, viewer }) => tokens.make(body, viewer));
  serve(router, programsRoutes.endToken, ({ params, viewer }) => tokens.end(params.id, viewer));
  serve(router, programsRoutes.webhooks, () => webhooks.list());
  serve(router, programsRoutes.makeWebhook, ({ body, viewer }) => webhooks.make(body, viewer));
  serve(router, programsRoutes.endWebhook, ({ params }) => webhooks.end(params.id));
  serve(router, programsRoutes.tryWebhook, ({ params }) => webhooks.tryOut(params.id));
  serve(router, programsRoutes.deliveries, ({ params }) => webhooks.deliveries(params.id));
  serve(router, programsRoutes.sendAgain, ({ params }) => webhooks.again(params.id));
  return router;
}
