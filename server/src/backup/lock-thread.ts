import { workerData } from 'node:worker_threads';
import { z } from 'zod';
import { lockFile } from './locked.ts';

const { from, to, passphrase } = z
  .object({ from: z.string(), to: z.string(), passphrase: z.string() })
  .parse(workerData);
await lockFile(from, to, passphrase);
