import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { constants } from 'node:zlib';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { type RequestHandler, type Response } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import pg from 'pg';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.ts';
import { connectDatabase, readAs } from './database/connect.ts';
import { standbyReads } from './database/standby.ts';
import { fleetImport } from './exchange/fleet-import.ts';
import { meterFilesService } from './exchange/meter-files.ts';
import { exchangeRouter } from './exchange/routes.ts';
import { feedRouter } from './feed/routes.ts';
import { feedService } from './feed/service.ts';
import { bringMeters } from './fleet/bring-meters.ts';
import { fleetRouter } from './fleet/routes.ts';
import { fleetService } from './fleet/service.ts';
import { eventStreams } from './http/event-stream.ts';
import { alarms } from './http/alarms.ts';
import { metrics } from './http/metrics.ts';
import { ownHostOnly } from './http/own-host.ts';
import { HttpProblem, notFound, problemHandler } from './http/problem.ts';
import type { ReadAs } from './http/serve.ts';
import { metricsPage, statusRouter } from './http/status.ts';
import { able, viewerOf } from './http/viewer.ts';
import { instrumentsFeed } from './instruments/routes.ts';
import { lineInstrument } from './instruments/line-instrument.ts';
import { shopFollowUps } from './jobs/follow-ups.ts';
import { liveFeed } from './jobs/live.ts';
import { photosService } from './jobs/photos.ts';
import { jobsRouter } from './jobs/routes.ts';
import { jobsService } from './jobs/service.ts';
import { ratesService } from './estimates/rates.ts';
import { estimatesRouter } from './estimates/routes.ts';
import { morningService } from './morning/service.ts';
import { absencesService } from './plan/absences.ts';
import { shiftsService } from './plan/shifts.ts';
import { bookingsService } from './plan/bookings.ts';
import { calendarsService } from './plan/calendars.ts';
import { capacityAhead } from './plan/capacity.ts';
import { floorService } from './plan/floor.ts';
import { planMaker } from './plan/make-plan.ts';
import { promiseMaker } from './plan/promise.ts';
import { proposalsService } from './plan/proposals.ts';
import { planRouter } from './plan/routes.ts';
import { shopAhead } from './plan/shop-ahead.ts';
import { programsRouter } from './programs/routes.ts';
import { tokensService } from './programs/tokens.ts';
import { webhooksService } from './programs/webhooks.ts';
import { addToQueue } from './queue/queue.ts';
import { sealsService } from './record/seals.ts';
import { rightsService } from './people/rights.ts';
import { peopleRouter } from './people/routes.ts';
import { sessionStore } from './people/session-store.ts';
import { peopleService } from './people/service.ts';
import { triesService } from './people/tries.ts';
import { workPool } from './pool/pool.ts';
import { reckonerRouter } from './reckoner/routes.ts';
import { sumsService } from './reckoner/sums.ts';
import { sheetCarrier } from './sheets/carry.ts';
import { sheetsRouter } from './sheets/routes.ts';
import { sheetsService } from './sheets/service.ts';
import { beginOwnShop } from './shop/begin.ts';
import { shopClock } from './shop/clock.ts';
import { shopRouter } from './shop/routes.ts';
import { settingsService } from './shop/settings.ts';
import { partsKeeper } from './stores/keeping.ts';
import { ordersService } from './stores/orders.ts';
import { supplierService } from './supplier/service.ts';
import { httpSupplier } from './supplier/supplier.ts';
import { storesRouter } from './stores/routes.ts';
import { shortagesService } from './stores/shortages.ts';
import { storesService } from './stores/service.ts';
import { toolsRouter } from './tools/routes.ts';
import { toolsService } from './tools/service.ts';

const VERSION = '0.1.0';
const TEN_HOURS = 10 * 3_600_000;
const A_YEAR_S = 31_536_000;

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

/** A program that came with a key has no session. */
const unlessProgram =
  (handler: RequestHandler): RequestHandler =>
  (req, res, next) =>
    viewerOf(res) ? next() : handler(req, res, next);

/** Bodies: whoever is signed in may send a photo or a fleet file, a stranger what signs them in. */
function readBodies(): RequestHandler {
  const known = express.json({ limit: '3mb', strict: false });
  const stranger = express.json({ limit: '10kb', strict: false });
  const sum = express.text({ limit: '3mb', type: 'application/json' });
  const file = express.text({ limit: '110mb', type: 'text/csv' });
  return (req, res, next) => {
    const viewer = viewerOf(res);
    if (!viewer) stranger(req, res, next);
    // As large as a fleet's own, and only of whom it is taken.
    else if (req.path === '/exchange/meters' && req.is('text/csv') && able(viewer, 'change-fleet'))
      file(req, res, next);
    // A sum is read where it is reckoned: on a thread.
    else if (req.path.startsWith('/reckon/')) sum(req, res, next);
    else known(req, res, next);
  };
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

/** The address of a calendar is its key, as a cookie is: it does not stand in a log either. */
function withoutSecret(req: { url: string; params?: unknown }): object {
  if (!req.url.startsWith('/api/calendars/')) return req;
  return { ...req, url: '/api/calendars/[Redacted].ics', params: {} };
}

/** The program that asks, for the log. */
function programIn(res: Response): object {
  const viewer = viewerOf(res);
  return viewer?.by === 'key' ? { program: viewer.person.name, key: viewer.person.id } : {};
}

/** A count of proxies or a list of their addresses, as Express takes it. */
const trusted = (text: string) => (/^\d+$/.test(text) ? Number(text) : text.split(',').map((a) => a.trim()));

/** Puts the application together. Nothing listens yet and no table is touched. */
export function createApp(config: Config, log: Logger = pino({ level: config.logLevel })) {
  const db = connectDatabase(config.databaseUrl, { pool: config.databasePool });
  const standby = standbyReads(db, config.standbyUrl, config.databasePool, log);
  const settings = settingsService(db, config.shopZone);
  const clock = shopClock(() => settings.current().zone);
  const pool = workPool();
  const rights = rightsService(db, settings);
  const tokens = tokensService(db, settings, clock);
  const webhooks = webhooksService(db, { enqueue: (id) => addToQueue(db, 'deliver', { id }) }, clock);
  const people = peopleService(db, rights, clock, config);
  const fleet = fleetService(db, clock);
  const photos = photosService(db, clock);
  const tools = toolsService(db);
  const sums = sumsService(pool);
  const seals = sealsService(db, config.seals, clock.now, log);
  const keeper = partsKeeper(db, clock, log);
  const bookings = bookingsService(db, { settings, keeper }, clock);
  const jobs = jobsService(db, { fleet, photos, tools, sums, seals, keeper, bookings }, clock);
  const sheets = sheetsService(db, clock);
  const absences = absencesService(db, settings);
  const ahead = shopAhead(db, { settings, absences, shifts: shiftsService(db) }, clock);
  const maker = planMaker(settings, ahead, clock);
  const proposals = proposalsService(
    db,
    {
      maker,
      promises: promiseMaker(db, { maker, ahead, settings }, clock),
      bookings,
      pool,
      enqueue: (id) => addToQueue(db, 'plan', { id }),
    },
    clock,
  );
  const bring = bringMeters(db);
  const feed = feedService(db, bring, config.feed, clock);
  const meterFiles = meterFilesService(
    db,
    { pool, bring, enqueue: (id) => addToQueue(db, 'meter-file', { id }) },
    clock,
  );
  const floor = floorService(db, clock);
  const followUps = shopFollowUps(clock);
  const rates = ratesService(db, settings);
  const morning = morningService(db, { settings, floor, absences, followUps }, config, clock);
  const shortages = shortagesService(db, clock);
  const orders = ordersService(db, shortages, config.supplier?.name ?? null, clock);
  const supplier = supplierService(db, config.supplier && httpSupplier(config.supplier), orders, clock);
  const streams = eventStreams(rights.stillHolds, log);
  const live = liveFeed(db, config.databaseUrl, { streams, settings }, log);
  const instruments = instrumentsFeed(lineInstrument(config.instruments), streams);
  const watched = alarms({ db, standby, backups: config.backups?.folder ?? null, seals: config.seals }, log);
  const measured = metrics({ streams: streams.count, pool: pool.load, alarms: watched });
  const sessionPool = new pg.Pool({ connectionString: config.databaseUrl, max: 3 });
  sessionPool.on('error', (error) => log.warn({ err: error }, 'session connection lost'));
  const tries = triesService(sessionPool, config.signInTries);
  const store = sessionStore(sessionPool, log);

  const app = express();
  app.disable('x-powered-by');
  if (config.trustProxy) app.set('trust proxy', trusted(config.trustProxy));
  app.use(
    pinoHttp({
      logger: log,
      // A cookie is a key to the shop: it does not stand in a log.
      redact: { paths: ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]'] },
      genReqId: () => randomUUID(),
      serializers: { req: withoutSecret },
      // What a program asks for stands in the log under the name of its key.
      customProps: (_req, res) => programIn(res as Response),
      autoLogging: log.isLevelEnabled('info') && { ignore: (req) => req.url === '/api/health' },
    }),
  );
  app.use(measured.watch);
  // A shop that is reached by https is never asked for without it again; one without would lock itself out.
  const strictTransportSecurity = config.shopAddress?.startsWith('https:') ? { maxAge: A_YEAR_S } : false;
  app.use(helmet({ contentSecurityPolicy: contentPolicy, strictTransportSecurity }));
  app.use('/api', (_req, res, next) => {
    // Whoever takes a shared tablet next reads nothing of this out of its cache.
    res.set('Cache-Control', 'no-store');
    next();
  });
  app.use(statusRouter(db, VERSION, live.isListening));
  app.use(ownHostOnly(config.shopAddress));
  const filter: compression.CompressionFilter = (req, res) =>
    !req.path.endsWith('/live') && compression.filter(req, res);
  // Many parts of the program are small: together they weigh.
  // What is worked out for one request is packed quickly, the program's own files well: they are sent once.
  const quickly = compression({ filter, threshold: 256, level: constants.Z_BEST_SPEED });
  const well = compression({ filter, threshold: 256 });
  app.use((req, res, next) => (req.path.startsWith('/api/') ? quickly : well)(req, res, next));
  let described: Promise<string> | null = null;
  app.get('/api/openapi.json', async (_req, res) => {
    // Built once, on a thread; where that failed, at the next request.
    described ??= pool.run('open-api', { version: VERSION }, { person: 'open-api', takes: 'short' });
    described.catch(() => (described = null));
    res.type('json').send(await described);
  });
  app.use(
    '/api',
    sameOrigin,
    tokens.admit,
    cookieParser(config.sessionSecret),
    unlessProgram(
      session({
        name: 'lanternwright',
        secret: config.sessionSecret,
        store,
        resave: false,
        saveUninitialized: false,
        cookie: {
          httpOnly: true,
          sameSite: 'strict',
          secure: config.shopAddress?.startsWith('https:') ? true : 'auto',
          maxAge: TEN_HOURS,
        },
      }),
    ),
    unlessProgram(async (req, res, next) => {
      const { personId, by } = req.session;
      const standing = store.standingOf(req.session.id);
      res.locals['viewer'] = personId
        ? rights.viewerFrom(standing ?? (await rights.standing(personId)), by ?? 'password', req.session.id)
        : null;
      next();
    }),
    (_req, res, next) => {
      const reads: ReadAs = (viewer, work) =>
        viewer.owners === 'all' ? work() : readAs(db, viewer.owners, work);
      res.locals['readAs'] = reads;
      res.locals['tellSeen'] = () => standby.tell(res);
      next();
    },
    readBodies(),
  );
  app.get('/api/metrics', metricsPage(measured, config.metricsToken));
  app.use(reckonerRouter(sums));
  app.use(peopleRouter(people, rights, tries, { settings, clock, seals }));
  app.use(programsRouter(tokens, webhooks));
  app.use(
    shopRouter(settings, beginOwnShop(config, { people, settings, clock, seals }), tries, {
      db,
      backups: config.backups,
      morning,
    }),
  );
  app.use(fleetRouter(fleet, clock, standby));
  app.use(feedRouter(feed));
  app.use(sheetsRouter(sheets, sheetCarrier(db, { sheets, fleet }, clock)));
  app.use(toolsRouter(tools, clock));
  app.use(
    storesRouter(
      {
        stores: storesService(db, jobs, shortages, config.supplier?.name ?? null, clock),
        orders,
        supplier,
        settings,
        pool,
      },
      clock,
    ),
  );
  app.use(estimatesRouter({ db, jobs, ahead, rates }, clock));
  app.use(jobsRouter(jobs, photos, people, tries, followUps, standby));
  app.use(
    exchangeRouter(
      { db, fleet, jobs, settings, rates, seals, photos, pool, shopAddress: config.shopAddress },
      { fleet: fleetImport(db, { fleet, sheets, pool, clock }), meters: meterFiles },
    ),
  );
  app.use(
    planRouter(
      {
        ...{ floor, bookings, absences, proposals, settings, ahead, pool },
        calendars: calendarsService(db, settings, config, clock),
        capacity: () => capacityAhead(settings, ahead, maker, clock),
      },
      clock,
    ),
  );
  app.use(live.router);
  app.use(instruments.router);
  app.use('/api', () => {
    throw notFound('address');
  });
  if (config.webRoot) {
    const root = config.webRoot;
    // A file of an earlier version is gone: said so, and never answered with the first page.
    const files = { immutable: true, maxAge: '1y', fallthrough: false } as const;
    app.use('/assets', express.static(join(root, 'assets'), files));
    app.use(express.static(root));
    app.get('/{*page}', (_req, res) => res.sendFile(join(root, 'index.html')));
  }
  app.use(problemHandler);

  return {
    app,
    db,
    log,
    people,
    rights,
    fleet,
    jobs,
    live,
    streams,
    settings,
    clock,
    seals,
    proposals,
    meterFiles,
    feed,
    supplier,
    keeper,
    morning,
    webhooks,
    bring,
    async close(): Promise<void> {
      instruments.stop();
      streams.endAll();
      await live.stop();
      await keeper.settled();
      await pool.close();
      store.close();
      await sessionPool.end();
      await standby.close();
      await db.sequelize.close();
    },
  };
}
