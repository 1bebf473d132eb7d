import { Router } from 'express';
import { toolsRoutes } from '@lanternwright/contract/tools';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { ToolsService } from './service.ts';

export function toolsRouter(tools: ToolsService, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  serve(router, toolsRoutes.list, () => tools.list());
  serve(router, toolsRoutes.keep, ({ body: { seenVersion, tool }, viewer }) =>
    tools.keep(tool, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, toolsRoutes.retire, async ({ params, query, viewer }) => {
    await tools.retire(params.id, { ...asking(viewer), expected: query.seenVersion });
    return { ok: true as const };
  });
  serve(router, toolsRoutes.take, ({ params, viewer }) => tools.take(params.id, asking(viewer)));
  serve(router, toolsRoutes.giveBack, ({ params, viewer }) => tools.giveBack(params.id, asking(viewer)));
  serve(router, toolsRoutes.recall, ({ params, body: { seenVersion, ...told }, viewer }) =>
    tools.recall(params.id, told, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, toolsRoutes.missing, ({ params, viewer }) => tools.missing(params.id, asking(viewer)));
  serve(router, toolsRoutes.found, ({ params, viewer }) => tools.found(params.id, asking(viewer)));
  serve(router, toolsRoutes.certify, ({ params, body: { seenVersion, ...certificate }, viewer }) =>
    tools.certify(params.id, certificate, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, toolsRoutes.certificate, async ({ params, res }) => {
    const { type, bytes } = await tools.certificate(params.id, params.certificateId);
    // Somebody else's file: it is looked at, and runs nothing.
    res.type(type).set('Content-Security-Policy', "sandbox; default-src 'none'");
    return bytes;
  });
  serve(router, toolsRoutes.records, ({ params, query, viewer }) =>
    tools.records(params.id, query.since, viewer.units),
  );
  return router;
}
