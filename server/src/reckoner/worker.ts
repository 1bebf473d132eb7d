import { parentPort, workerData } from 'node:worker_threads';
import { reckon } from '@lanternwright/core/reckoner';

const { name, input } = workerData as { name: string; input: unknown };
parentPort?.postMessage(reckon(name, input));
