import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import compression from 'compression';
import pgSession from 'connect-pg-simple';
import express, { type RequestHandler } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import pg from 'pg';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { openApi } from '@lanternwright/contract/open-api';
import type { Config } from './config.ts';
import { connectDatabase } from './database/connect.ts';
import { exchangeRouter } from './exchange/routes.ts';
import { fleetRouter } from './fleet/routes.ts';
import { fleetService } from './fleet/service.ts';
import { HttpProblem, notFound, problemHandler } from './http/problem.ts';
import { shopFollowUps } from './jobs/follow-ups.ts';
import { liveFeed } from './jobs/live.ts';
import { sheetsRouter } from './sheets/routes.ts';
import { sheetsService } from './sheets/service.ts';
import { lineInstrument } from './instruments/line-instrument.ts';
import { instrumentsFeed } from './instruments/routes.ts';
import { photosService } from './jobs/photos.ts';
import { jobsRouter } from './jobs/routes.ts';
import { jobsService, type Clock } from './jobs/service.ts';
import { peopleRouter } from './people/routes.ts';
import { peopleService } from './people/service.ts';
import { toolsRouter } from './tools/routes.ts';
import { toolsService } from './tools/service.ts';
import { reckonerRouter } from './reckoner/routes.ts';

const VERSION = '0.1.0';
const TEN_HOURS = 10 * 3_600_000;

/** A request that changes something must come from our own pages. */
const sameOrigin: RequestHandler = (req, _res, next) => {
  const origin = req.get('origin');
  const foreign = origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== req.get('host'));
  if (
    req.method !== 'GET' &&
    req.method !== 'HEAD' &&
    (foreign || req.get('sec-fetch-site') === 'cross-site')
  ) {
    throw new HttpProblem(403, 'Not allowed', 'The request comes from another site');
  }
  next();
};

/** Calendar dates as they are in the shop's zone. */
function shopClock(zone: string): Clock {
  const format = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  });
  return { now: () => new Date(), today: () => format.format(new Date()) };
}

/** Times of records as people in the shop say them. */
function shopTime(zone: string): (iso: string) => string {
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    dateStyle: 'medium',
    timeStyle: 'short',
  });
  return (iso) => format.format(new Date(iso));
}

const contentPolicy = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:'],
    workerSrc: ["'self'", 'blob:'],
    objectSrc: ["'none'"],
    frameAncestors: ["'none'"],
    baseUri: ["'none'"],
    formAction: ["'self'"],
  },
};

/** Puts the application together. Nothing listens yet and no table is touched. */
export function createApp(config: Config, log: Logger = pino({ level: config.logLevel })) {
  const db = connectDatabase(config.databaseUrl);
  const clock = shopClock(config.shopZone);
  const people = peopleService(db, config);
  const fleet = fleetService(db, clock);
  const photos = photosService(db, clock);
  const tools = toolsService(db, clock);
  const jobs = jobsService(db, { fleet, photos, tools }, clock);
  const sheets = sheetsService(db, clock);
  const live = liveFeed(db, config.databaseUrl, log);
  const instruments = instrumentsFeed(lineInstrument(config.instruments));
  const sessionPool = new pg.Pool({ connectionString: config.databaseUrl, max: 3 });
  sessionPool.on('error', (error) => log.warn({ err: error }, 'session connection lost'));
  const PgStore = pgSession(session);
  const store = new PgStore({
    pool: sessionPool,
    errorLog: (...words: unknown[]) => log.error({ words }, 'session store'),
  });

  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger: log,
      // A cookie is a key to the shop: it does not stand in a log.
      redact: { paths: ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]'] },
      genReqId: () => randomUUID(),
      autoLogging: { ignore: (req) => req.url === '/api/health' },
    }),
  );
  app.use(helmet({ contentSecurityPolicy: contentPolicy, strictTransportSecurity: false }));
  app.use(compression({ filter: (req, res) => !req.path.endsWith('/live') && compression.filter(req, res) }));
  app.get('/api/health', async (_req, res) => {
    await db.sequelize.query('select 1');
    res.json({ ok: true, version: VERSION });
  });
  app.get('/api/openapi.json', (_req, res) => res.json(openApi(VERSION)));
  app.use('/api', sameOrigin, express.json({ limit: '3mb', strict: false }));
  app.use(reckonerRouter());
  app.use(
    '/api',
    session({
      name: 'lanternwright',
      secret: config.sessionSecret,
      store,
      resave: false,
      saveUninitialized: false,
      cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: TEN_HOURS },
    }),
    async (req, res, next) => {
      const { personId } = req.session;
      res.locals['person'] = personId ? await people.byId(personId) : null;
      next();
    },
  );
  app.use(peopleRouter(people, config.signInTries));
  app.use(fleetRouter(fleet));
  app.use(sheetsRouter(sheets));
  app.use(toolsRouter(tools));
  app.use(jobsRouter(jobs, photos, people, shopFollowUps(db, clock)));
  app.use(exchangeRouter(db, fleet, jobs, sheets, shopTime(config.shopZone)));
  app.use(live.router);
  app.use(instruments.router);
  app.use('/api', () => {
    throw notFound('address');
  });
  if (config.webRoot) {
    const root = config.webRoot;
    app.use('/assets', express.static(join(root, 'assets'), { immutable: true, maxAge: '1y' }));
    app.use(express.static(root));
    app.get('/{*page}', (_req, res) => res.sendFile(join(root, 'index.html')));
  }
  app.use(problemHandler);

  return {
    app,
    db,
    people,
    fleet,
    jobs,
    live,
    clock,
    async close(): Promise<void> {
      instruments.stop();
      await live.stop();
      store.close();
      await sessionPool.end();
      await db.sequelize.close();
    },
  };
}
