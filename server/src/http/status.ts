import { timingSafeEqual } from 'node:crypto';
import { Router, type Request, type RequestHandler } from 'express';
import type { Database } from '../database/connect.ts';
import { whyNotRecorded } from '../database/why-not-recorded.ts';
import { brokenBy } from '../start/guard.ts';
import type { metrics } from './metrics.ts';
import { HttpProblem } from './problem.ts';
import { able, viewerOf } from './viewer.ts';

/** How long a write that went well stands for those after it. */
const PROVED_FOR_MS = 10_000;

/** Whether the database takes what is written, by writing: a full disk and a copy that only follows do not. */
function writeProof({ sequelize }: Database): () => Promise<boolean> {
  let provedAt = -Infinity;
  return async () => {
    if (performance.now() - provedAt < PROVED_FOR_MS) return true;
    try {
      await sequelize.query(
        'insert into write_proof (at) values (now()) on conflict (one) do update set at = excluded.at',
      );
    } catch (error) {
      if (whyNotRecorded(error) === null) throw error;
      return false;
    }
    provedAt = performance.now();
    return true;
  };
}

/** Whether the server is there, and whether it can work: for whoever watches it. Nothing here tells of the shop. */
export function statusRouter(db: Database, version: string, isListening: () => boolean): Router {
  const router = Router();
  const records = writeProof(db);
  router.get('/api/health', (_req, res) => {
    res.json({ ok: true, version });
  });
  router.get('/api/ready', async (_req, res) => {
    const database = await db.sequelize.query('select 1 from migration limit 1').then(
      () => true,
      () => false,
    );
    const writes = database && (await records());
    const broken = brokenBy();
    const ready = writes && isListening() && broken === null;
    res.status(ready ? 200 : 503).json({
      ...{ ok: ready, database, writes, live: isListening() },
      ...(broken === null ? {} : { broken }),
    });
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
    const seen = isLocal(req) || hasToken(req, token) || (viewer && able(viewer, 'see-metrics'));
    if (!seen)
      throw new HttpProblem(403, 'Not allowed', 'Metrics are for supervisors and for whoever has the token');
    res.type(type).send(await text());
  };
}
