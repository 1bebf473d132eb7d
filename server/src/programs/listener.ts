import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { Webhook as Signer, WebhookVerificationError } from 'standardwebhooks';
import { z } from 'zod';

const faultSchema = z.object({ fault: z.enum(['outage', 'slow']).nullable() });
const SLOW_MS = 15_000;

export interface Heard {
  id: string;
  type: string;
  data: unknown;
}

/**
 * A stand-in for a program that is told of what happens: it takes what is signed with its secret, each message once, and
 * shows it at `/`. It goes wrong by `POST /fault {"fault": "outage"}`, or `slow`.
 * @param port 0 takes a free one
 */
export async function startListener(
  port: number,
  secret: string,
  hear: (heard: Heard) => void = () => undefined,
) {
  const signer = new Signer(secret);
  const heard = new Map<string, Heard>();
  const listener = { port: 0, refused: 0, fault: null as 'outage' | 'slow' | null, heard };
  const app = express();
  app.get('/', (_req, res) => void res.json([...heard.values()]));
  app.post('/fault', express.json(), (req, res) => {
    listener.fault = faultSchema.parse(req.body).fault;
    res.json({ fault: listener.fault });
  });
  app.post('/hook', express.text({ type: 'application/json', limit: '1mb' }), (req, res) => {
    if (listener.fault === 'outage') return void res.status(503).end();
    if (listener.fault === 'slow') return void setTimeout(() => res.end(), SLOW_MS).unref();
    try {
      const { type, data } = signer.verify(String(req.body), req.headers as Record<string, string>) as Heard;
      const id = req.get('webhook-id')!;
      if (!heard.has(id)) {
        heard.set(id, { id, type, data });
        hear({ id, type, data });
      }
      res.status(204).end();
    } catch (error) {
      if (!(error instanceof WebhookVerificationError)) throw error;
      listener.refused += 1;
      res.status(401).json({ problem: error.message });
    }
  });
  const server = createServer(app);
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  listener.port = (server.address() as AddressInfo).port;
  return {
    listener,
    stop: () =>
      new Promise<void>((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
  };
}
