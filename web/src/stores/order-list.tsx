import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { Order, Proposed } from '@lanternwright/contract/stores';
import { formatMoney } from '@lanternwright/core/cost';
import { orderStates } from '@lanternwright/core/record';
import { problemText } from '../api.ts';
import { PageProblem } from '../form-problem.tsx';
import { formatDate, formatTime, shopToday } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import {
  useAskSupplierMutation,
  useDraftOrderMutation,
  useOrdersQuery,
  useProposedOrdersQuery,
  useSupplierQuery,
} from './stores-api.ts';

/** When it is to come, or what became of it. */
export function orderStands({
  status,
  supplier,
  online,
  reference,
  expected,
  late,
  reason,
  lines,
}: Order): string {
  if (status === 'cancelled') return `Cancelled: ${reason ?? ''}`;
  if (status === 'done' && lines.some((l) => l.ended !== null)) return 'Closed short';
  if (status !== 'sent') return orderStates[status];
  if (online && reference === '') return `Waits for ${supplier} to answer`;
  if (expected === null) return 'On its way, no delivery date';
  return late
    ? `Late: promised for ${formatDate(expected)}`
    : `On its way, promised for ${formatDate(expected)}`;
}

/** Why so many of a part are to be ordered. */
function whyWords({ missing, shortOn, orderBy, low }: Proposed['lines'][number]): string {
  const late = orderBy !== null && orderBy < shopToday();
  return [
    shortOn && `${missing} short from ${formatDate(shortOn)}`,
    orderBy && (late ? 'late already' : `order by ${formatDate(orderBy)}`),
    low && `${low.free} free${low.coming > 0 ? `, ${low.coming} coming` : ''}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** What to order of one supplier; nothing is ordered before somebody looks at it. */
function Proposal({ proposed }: { proposed: Proposed }) {
  const navigate = useNavigate();
  const [draft, { isLoading, error }] = useDraftOrderMutation();
  const [id] = useState(() => uuid());
  const { supplier, lines } = proposed;
  const write = async () => {
    const asked = lines.map(({ partId, quantity }) => ({ partId, quantity }));
    const { data } = await draft({ id, seenVersion: 0, supplier, lines: asked });
    if (data) void navigate(`/stores/orders/${data.id}`);
  };
  return (
    <section className="flex flex-col gap-2" aria-label={`To order: ${supplier || 'no supplier told'}`}>
      <h3 className="text-16">{supplier || 'No supplier set for these parts'}</h3>
      <ul>
        {lines.map((line) => (
          <li
            key={line.partId}
            className="grid gap-x-4 border-b border-rule py-2 text-14 sm:grid-cols-[60px_1fr_1fr]"
          >
            <span className="figure font-semibold">{line.quantity}</span>
            <Link to={`/stores/${line.partId}`} className="underline underline-offset-2">
              {line.title}
            </Link>
            <span className="text-13 text-muted">
              {whyWords(line)}
              {line.price && `; ${formatMoney(line.price.minor, line.price.currency)} each`}
            </span>
          </li>
        ))}
      </ul>
      {supplier && (
        <div>
          <Button disabled={isLoading} onClick={() => void write()}>
            Write this order to {supplier}
          </Button>
        </div>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </section>
  );
}

/** The supplier that takes orders online: whether it answers. */
function OnlineSupplier() {
  const { currentData: stand } = useSupplierQuery(undefined, { pollingInterval: 60_000 });
  const [ask, { isLoading, error }] = useAskSupplierMutation();
  if (!stand?.name) return null;
  const { name, answeredAt, trouble } = stand;
  return (
    <section aria-label={`${name}, online`} className="flex flex-col gap-2 border-t border-rule pt-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p className="text-14">
          {name} takes orders online and is asked every quarter of an hour how they stand.{' '}
          {answeredAt ? `It answered last ${formatTime(answeredAt)}.` : 'It has not been asked yet.'}
        </p>
        <Button disabled={isLoading} onClick={() => void ask()}>
          Ask {name} now
        </Button>
      </div>
      {trouble && <Note tone="trouble">{trouble}. It is asked again.</Note>}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </section>
  );
}

/** Orders that are open, and what to order next. */
export function OrderList() {
  const { currentData: open, error } = useOrdersQuery({ status: 'open' });
  const { currentData: closed } = useOrdersQuery({ status: 'closed' });
  const { currentData: proposed } = useProposedOrdersQuery();
  if (error) return <PageProblem error={error} />;
  const list = (name: string, orders: readonly Order[]) => (
    <ul aria-label={name} className="border-t border-rule">
      {orders.map((order) => (
        <li key={order.id} className="border-b border-rule">
          <Link
            to={`/stores/orders/${order.id}`}
            className="grid min-h-14 items-center gap-x-4 gap-y-1 py-2 hover:bg-side md:grid-cols-[1fr_320px]"
          >
            <span className="text-16">
              <span className="font-semibold">
                Order {order.number}, {order.supplier}
              </span>
              <span className="block text-13 text-muted">
                {order.lines.map((l) => `${l.quantity} × ${l.number}`).join(', ')}
              </span>
            </span>
            <span className={`text-13 md:text-right ${order.late ? 'font-semibold text-rust' : ''}`}>
              {orderStands(order)}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
  return (
    <>
      {open && open.length > 0 && list('Open orders', open)}
      {open?.length === 0 && <p className="text-16 text-muted">No order is open.</p>}
      <OnlineSupplier />
      {proposed && proposed.length > 0 && (
        <section className="flex flex-col gap-4">
          <h2 className="text-18">To order</h2>
          {proposed.map((of) => (
            <Proposal key={of.supplier} proposed={of} />
          ))}
        </section>
      )}
      {closed && closed.length > 0 && (
        <details>
          <summary className="flex min-h-12 cursor-pointer items-center text-16 font-semibold">
            Orders that are done with
          </summary>
          {list('Closed orders', closed)}
        </details>
      )}
    </>
  );
}
