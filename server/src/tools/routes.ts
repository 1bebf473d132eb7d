import { Router } from 'express';
import { toolsRoutes } from '@lanternwright/contract/tools';
import { serve } from '../http/serve.ts';
import type { ToolsService } from './service.ts';

export function toolsRouter(tools: ToolsService): Router {
  const router = Router();
  serve(router, toolsRoutes.list, () => tools.list());
  serve(router, toolsRoutes.keep, ({ body, viewer }) => tools.keep(body, viewer));
  serve(router, toolsRoutes.retire, async ({ params }) => {
    await tools.retire(params.id);
    return { ok: true as const };
  });
  return router;
}
