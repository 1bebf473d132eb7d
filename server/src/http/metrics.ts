import type { RequestHandler } from 'express';
import type { Alarm } from './alarms.ts';
import { viewerOf } from './viewer.ts';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

interface Watched {
  streams: () => number;
  pool: () => { running: number; waiting: number };
  alarms: readonly Alarm[];
}

/** What the server tells a collector of metrics, as Prometheus text. */
export function metrics({ streams, pool, alarms }: Watched) {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const requests = new Histogram({
    name: 'http_request_seconds',
    help: 'Time from request to answer',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.01, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
    registers: [registry],
  });
  const programs = new Counter({
    name: 'program_requests_total',
    help: 'Requests of programs, by the name of their key',
    labelNames: ['program', 'status'],
    registers: [registry],
  });
  const gauge = (name: string, help: string, read: () => number | Promise<number>) =>
    new Gauge({
      name,
      help,
      registers: [registry],
      async collect() {
        this.set(await read());
      },
    });
  gauge('live_streams', 'Open streams of events', streams);
  gauge('pool_running', 'Tasks that run on threads', () => pool().running);
  gauge('pool_waiting', 'Tasks that wait for a thread', () => pool().waiting);

  for (const { name, help, read } of alarms) gauge(name, help, read);

  const watch: RequestHandler = (req, res, next) => {
    const end = requests.startTimer({ method: req.method });
    res.on('finish', () => {
      const { path } = (req.route as { path?: string } | undefined) ?? {};
      const status = String(res.statusCode);
      end({ route: path ?? 'none', status });
      const viewer = viewerOf(res);
      if (viewer?.by === 'key') programs.inc({ program: viewer.person.name, status });
    });
    next();
  };
  return { watch, text: () => registry.metrics(), type: registry.contentType };
}
