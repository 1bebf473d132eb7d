import { fold, type StoredEvent } from '@lanternwright/core/traveller';
import { shopClock } from '../shop/clock.ts';
import type { PaperContext } from './head.ts';
import { labelPaper, type LabelPaper } from './label-paper.ts';
import { moneyPaper } from './money-paper.ts';
import { orderPaper, type OrderPaper } from './order-paper.ts';
import { recordPaper } from './record-paper.ts';
import { tagPaper, type TagContext } from './tag-paper.ts';
import { travellerPaper } from './traveller-paper.ts';
import { weekPaper, type WeekPaper } from './week-paper.ts';

/** How times are said on a paper: in this zone, an IANA name. */
interface InZone {
  zone: string;
}

/** A paper that is wanted, as plain data: it is set on a thread of its own. */
export type WantedPaper =
  | {
      kind: 'traveller' | 'record' | 'estimate';
      events: readonly StoredEvent[];
      context: Omit<PaperContext, 'formatTime' | 'formatDay'> & InZone;
    }
  | { kind: 'tags'; events: readonly StoredEvent[]; context: TagContext }
  | { kind: 'week'; week: Omit<WeekPaper, 'formatTime'> & InZone }
  | { kind: 'labels'; labels: LabelPaper }
  | { kind: 'order'; order: Omit<OrderPaper, 'formatTime'> & InZone };

const ofJob = { traveller: travellerPaper, record: recordPaper, estimate: moneyPaper };

/**
 * Sets a paper.
 * @returns a PDF
 * @throws Error when an estimate is wanted that is not written
 */
export function setPaper(wanted: WantedPaper): Promise<Uint8Array<ArrayBuffer>> {
  if (wanted.kind === 'tags') return tagPaper(fold(wanted.events), wanted.context);
  if (wanted.kind === 'labels') return labelPaper(wanted.labels);
  const { zone } =
    wanted.kind === 'week' ? wanted.week : wanted.kind === 'order' ? wanted.order : wanted.context;
  const { say: formatTime, sayDay: formatDay } = shopClock(() => zone);
  if (wanted.kind === 'week') return weekPaper({ ...wanted.week, formatTime });
  if (wanted.kind === 'order') return orderPaper({ ...wanted.order, formatTime });
  return ofJob[wanted.kind](fold(wanted.events), { ...wanted.context, formatTime, formatDay });
}
