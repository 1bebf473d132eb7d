import type { MessagePort } from 'node:worker_threads';
import { openApi } from '@lanternwright/contract/open-api';
import { reckon, describeBadJson, type Reckoned } from '@lanternwright/core/reckoner';
import type { Sheet } from '@lanternwright/core/procedure';
import {
  mendPlan,
  planShop,
  type Mended,
  type Place,
  type ShopPlan,
  type ShopPlanInput,
} from '@lanternwright/core/shop-plan';
import { answerFleetFile, type FleetAnswer } from '../exchange/fleet-answer.ts';
import { readMeterCsv, type MeterFileRead } from '../exchange/meter-csv.ts';
import { cleanInput } from '../http/clean-input.ts';
import { HttpProblem } from '../http/problem.ts';
import { setPaper, type WantedPaper } from '../papers/set-paper.ts';
import { foldJobs, type Folded, type JobsToFold } from '../record/fold-streams.ts';
import { verifySum, type ClaimedSum, type VerifiedSum } from '../reckoner/verify-sum.ts';

/** What a thread of the pool does, and what it gives. Problems come back as data: an error's class is lost on the way. */
interface Work {
  /** A sum, as its JSON came from outside. */
  sum: { input: { name: string; json: string }; output: SumAnswer };
  /** A sum that is to go into a record. */
  'verify-sum': { input: ClaimedSum; output: VerifiedSum };
  'fleet-file': {
    input: { csv: string; sheets: ReadonlyMap<string, Sheet>; wanted: 'preview' | 'units' };
    output: FleetAnswer;
  };
  'meter-file': { input: { csv: string; today: number }; output: MeterFileRead };
  /** A plan of the shop, the best within some seconds. */
  plan: { input: { shop: ShopPlanInput; seconds: number }; output: ShopPlan };
  mend: { input: { shop: ShopPlanInput; places: Place[] }; output: Mended };
  'open-api': { input: { version: string }; output: string };
  /** Jobs of a rebuild, a page at a time. */
  'fold-jobs': { input: JobsToFold; output: Folded };
  paper: { input: WantedPaper; output: Uint8Array<ArrayBuffer> };
}
export type WorkName = keyof Work;
export type InputOf<N extends WorkName> = Work[N]['input'];
export type OutputOf<N extends WorkName> = Work[N]['output'];

export type SumAnswer =
  | { ok: true; json: string }
  | { ok: false; status: 404 | 422; error: { message: string; issues: { path: string; message: string }[] } };

/** What a running task says on its port: that a thread has begun, and how far it is. */
export type PoolNews = { kind: 'begun' } | { kind: 'progress'; done: number };

const refusal = (status: 404 | 422, message: string, issues: { path: string; message: string }[] = []) =>
  ({ ok: false, status, error: { message, issues } }) satisfies SumAnswer;

function inputOf(json: string): { input: unknown } | { refused: SumAnswer } {
  try {
    return { input: cleanInput(JSON.parse(json)) };
  } catch (error) {
    if (error instanceof HttpProblem) return { refused: refusal(422, error.message, error.issues) };
    if (error instanceof SyntaxError) return { refused: refusal(422, describeBadJson(json, error)) };
    throw error;
  }
}

function sum({ name, json }: InputOf<'sum'>, tell: (news: PoolNews) => void): SumAnswer {
  const read = inputOf(json);
  if ('refused' in read) return read.refused;
  const answer: Reckoned = reckon(name, read.input, ({ done }) => tell({ kind: 'progress', done }));
  if (answer.ok) return { ok: true, json: JSON.stringify(answer.result) };
  return refusal(answer.reason === 'unknown' ? 404 : 422, answer.error.message, answer.error.issues);
}

function plan({ shop, seconds }: InputOf<'plan'>, tell: (news: PoolNews) => void): ShopPlan {
  const begun = performance.now();
  const running = planShop(shop, () => (performance.now() - begun) / (1000 * seconds));
  for (;;) {
    const step = running.next();
    if (step.done) return step.value;
    tell({ kind: 'progress', done: step.value.done });
  }
}

/** Runs one task; called by the pool's threads. */
export async function work({
  name,
  input,
  port,
}: {
  [N in WorkName]: { name: N; input: InputOf<N>; port: MessagePort };
}[WorkName]): Promise<OutputOf<WorkName>> {
  const tell = (news: PoolNews) => port.postMessage(news);
  tell({ kind: 'begun' });
  try {
    switch (name) {
      case 'sum':
        return sum(input, tell);
      case 'verify-sum':
        return verifySum(input);
      case 'fleet-file':
        return answerFleetFile(input.csv, input.sheets, input.wanted);
      case 'meter-file':
        return readMeterCsv(input.csv, input.today, (done) => tell({ kind: 'progress', done }));
      case 'plan':
        return plan(input, tell);
      case 'mend':
        return mendPlan(input.shop, input.places);
      case 'open-api':
        return JSON.stringify(openApi(input.version));
      case 'fold-jobs':
        return foldJobs(input);
      case 'paper':
        return await setPaper(input);
    }
  } finally {
    port.close();
  }
}
