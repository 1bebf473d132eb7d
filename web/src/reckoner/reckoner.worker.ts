import { expose } from 'comlink';
import { z } from 'zod';
import { reckon } from '@lanternwright/core/reckoner';

z.config({ jitless: true });

const api = { reckon };
export type ReckonerWorker = typeof api;

expose(api);
