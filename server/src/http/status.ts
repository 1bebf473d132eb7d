import { timingSafeEqual } from 'node:crypto';
import { Router, type Request, type RequestHandler } from 'express';
import { may } from '@lanternwright/core/access';
import type { Database } from '../database/connect.ts';
import type { metrics } from './metrics.ts';
import { HttpProblem } from './problem.ts';
import { viewerOf } from './viewer.ts';

/** Whether the server is there, and whether it can work: for whoever watches it. Nothing here tells of the shop. */
export function statusRouter(db: Database, version: string, isListening: () => boolean): Router {
  const router = Router();
  router.get('/api/health', (_req, res) => {
    res.json({ ok: true, version });
  });
  router.get('/api/ready', async (_req, res) => {
    const database = await db.sequelize.query('select 1 from migration limit 1').then(
      () => true,
      () => false,
    );
    const ready = database && isListening();
    res.status(ready ? 200 : 503).json({ ok: ready, database, live: isListening() });
  });
  return router;
}

/** Straight from this machine, not through a proxy on it. */
const isLocal = (req: Request) =>
  /^(::ffff:)?127\.|^::1$/.test(req.socket.remoteAddress ?? '') && req.get('x-forwarded-for') === undefined;

function hasToken(req: Request, token: string | undefined): boolean {
  const said = Buffer.from(req.get('authorization') ?? '');
  const wanted = Buffer.from(`Bearer ${token}`);
  return token !== undefined && said.length === wanted.length && timingSafeEqual(said, wanted);
}

/** Metrics as Prometheus text, for this machine, whoever has the token, and supervisors. */
export function metricsPage(
  { text, type }: ReturnType<typeof metrics>,
  token: string | undefined,
): RequestHandler {
  return async (req, res) => {
    const viewer = viewerOf(res);
    const seen = isLocal(req) || hasToken(req, token) || (viewer && may(viewer.person.role, 'see-metrics'));
    if (!seen)
      throw new HttpProblem(403, 'Not allowed', 'Metrics are for supervisors and for whoever has the token');
    res.type(type).send(await text());
  };
}
