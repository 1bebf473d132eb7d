import { coded, type Coded } from '../refusal/index.ts';
import type { refusalWords } from './refusal-words.ts';

/** Why `decide` refuses: a code, and the ids and figures it is about. Words are made where they are shown. */
export type Refusal = Coded<typeof refusalWords>;
export const refusal = coded<typeof refusalWords>();
