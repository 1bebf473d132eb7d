import { Link } from 'react-router';
import type { StoreDay } from '@lanternwright/contract/stores';
import { PageProblem } from '../form-problem.tsx';
import { useShop } from '../people/people-api.ts';
import { formatClock, formatDate } from '../shell/words.ts';
import { useStoreDayQuery } from './stores-api.ts';

type Laid = StoreDay['picks'][number];
type Comes = StoreDay['comes'][number];

function Line({ line }: { line: Laid['lines'][number] }) {
  const short = line.onHand < line.quantity;
  return (
    <li className="grid min-h-12 grid-cols-[40px_1fr] items-center gap-x-3 py-1 text-14 sm:grid-cols-[40px_1fr_200px]">
      <span className="figure text-right font-semibold">{line.quantity}</span>
      <span>
        <Link to={`/stores/${line.partId}`} className="underline underline-offset-2">
          <span className="figure">{line.number}</span> {line.title}
        </Link>
        <span className="text-muted">, {line.positions.join(' ')}</span>
      </span>
      <span className={`col-start-2 sm:col-start-3 ${short ? 'font-semibold text-rust' : 'text-muted'}`}>
        {line.places.map((p) => `${p.place}: ${p.quantity}`).join(', ') || 'None on hand'}
        {short && line.onHand > 0 && `, ${line.quantity - line.onHand} short`}
      </span>
    </li>
  );
}

function PickRow({ pick }: { pick: Laid }) {
  const bay = useShop()?.bays.find((b) => b.id === pick.bayId)?.name ?? 'A bay that is gone';
  return (
    <li className="border-b border-rule py-3">
      <p className="text-16">
        <span className="figure pr-3 text-14">{formatClock(pick.from)}</span>
        {pick.jobId ? (
          <Link to={`/jobs/${pick.jobId}`} className="font-semibold underline underline-offset-2">
            {pick.unit}, job {pick.jobNumber}
          </Link>
        ) : (
          <span className="font-semibold">{pick.unit}</span>
        )}
        <span className="text-14 text-muted">, {bay}</span>
      </p>
      {pick.lines.length > 0 ? (
        <ul className="pt-1">
          {pick.lines.map((line) => (
            <Line key={line.partId} line={line} />
          ))}
        </ul>
      ) : (
        <p className="text-13 text-muted">
          {pick.jobId ? 'No parts are kept for it.' : 'Its job is not opened yet: no parts are kept for it.'}
        </p>
      )}
    </li>
  );
}

function ComesRow({ order }: { order: Comes }) {
  return (
    <li className="border-b border-rule">
      <Link
        to={`/stores/orders/${order.orderId}`}
        className="grid min-h-14 items-center gap-x-4 gap-y-1 py-2 hover:bg-side md:grid-cols-[1fr_320px]"
      >
        <span className="text-16">
          <span className="font-semibold">
            Order {order.orderNumber}, {order.supplier}
          </span>
          <span className="block text-13 text-muted">
            {order.lines.map((l) => `${l.quantity} × ${l.number}`).join(', ')}
          </span>
        </span>
        <span className="text-13 md:text-right">
          <span className={order.late ? 'font-semibold text-rust' : ''}>
            {order.late ? `Late since ${formatDate(order.expected)}` : 'Promised for today'}
          </span>
          {order.waiting.length > 0 && (
            <span className="block">Waiting for it: {order.waiting.map((j) => j.unit).join(', ')}</span>
          )}
        </span>
      </Link>
    </li>
  );
}

function Counts({ counts, toCount }: Pick<StoreDay, 'counts' | 'toCount'>) {
  return (
    <section aria-labelledby="to-count">
      <h2 id="to-count" className="text-18">
        To count
      </h2>
      <p className="pb-1 text-14 text-muted">
        {toCount === 0
          ? 'Every part was counted in the last six months.'
          : `${toCount} ${toCount === 1 ? 'part was' : 'parts were'} not counted for six months. Twice a year is common practice.`}
      </p>
      <ul className="border-t border-rule">
        {counts.map((part) => (
          <li key={part.partId} className="border-b border-rule">
            <Link
              to={`/stores/${part.partId}`}
              className="grid min-h-12 items-center gap-x-4 py-1 text-14 hover:bg-side sm:grid-cols-[1fr_320px]"
            >
              <span>
                <span className="figure font-semibold">{part.number}</span> {part.title}
              </span>
              <span className="text-13 text-muted sm:text-right">
                {part.onHand} on hand,{' '}
                {part.countedOn ? `counted ${formatDate(part.countedOn)}` : 'never counted'}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The storekeeper's day: what to lay out for today's bookings, what comes and what is late, what to count. */
export function DayList() {
  const { currentData: day, error } = useStoreDayQuery();
  if (error) return <PageProblem error={error} />;
  if (!day) return <p className="text-16 text-muted">Opening.</p>;
  const { picks, comes } = day;
  return (
    <>
      <section aria-labelledby="to-pick">
        <h2 id="to-pick" className="pb-1 text-18">
          To lay out for today
        </h2>
        {picks.length === 0 && <p className="text-16 text-muted">Nothing is booked for today.</p>}
        <ul className="border-t border-rule">
          {picks.map((pick) => (
            <PickRow key={pick.bookingId} pick={pick} />
          ))}
        </ul>
      </section>
      <section aria-labelledby="to-come">
        <h2 id="to-come" className="pb-1 text-18">
          To receive
        </h2>
        {comes.length === 0 && <p className="text-16 text-muted">No order is promised for today or late.</p>}
        <ul className="border-t border-rule">
          {comes.map((order) => (
            <ComesRow key={order.orderId} order={order} />
          ))}
        </ul>
      </section>
      <Counts counts={day.counts} toCount={day.toCount} />
    </>
  );
}
