import type { Order } from '@lanternwright/contract/stores';
import { formatMoney } from '@lanternwright/core/cost';
import { letterhead } from './head.ts';
import { figures, MUTED, printed, table, words, type PaperSize } from './paper.ts';

export interface OrderPaper {
  shop: { name: string; address: string };
  order: Order;
  formatTime: (iso: string) => string;
  size: PaperSize;
}

/** An order on paper, as it is handed or sent to the supplier. */
export function orderPaper({ shop, order, formatTime, size }: OrderPaper): Promise<Uint8Array<ArrayBuffer>> {
  const { number, supplier, lines, reference, changedAt, changedBy } = order;
  const title = `Order ${number}`;
  const said = formatTime(changedAt);
  return printed(
    [
      letterhead(shop, title, `${said}, ${changedBy}`),
      words(`To ${supplier}`, { bold: true, fontSize: 11, margin: [0, 4, 0, 8] }),
      ...(reference ? [words(`Your number ${reference}`, { color: MUTED, margin: [0, 0, 0, 6] })] : []),
      table(
        [
          words('Number', { bold: true }),
          words('What', { bold: true }),
          words('How many', { bold: true }),
          words('Each, as expected', { bold: true }),
        ],
        lines.map((line) => [
          figures(line.number),
          words(line.title),
          figures(String(line.quantity)),
          figures(line.price ? formatMoney(line.price.minor, line.price.currency) : ''),
        ]),
        [120, '*', 60, 110],
      ),
      words(
        'Please name this order’s number on what you send, and tell us of what comes later or not at all.',
        {
          color: MUTED,
          margin: [0, 8, 0, 0],
        },
      ),
    ],
    { size, title, date: new Date(changedAt), foot: `${shop.name}, order ${number}.` },
  );
}
