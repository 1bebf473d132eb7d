import { Link } from 'react-router';
import type { Shortage } from '@lanternwright/contract/stores';
import { PageProblem } from '../form-problem.tsx';
import { formatDate } from '../shell/words.ts';
import { stockWords } from './part-words.ts';
import { useShortagesQuery } from '../plan/plan-api.ts';

/** Until when to order, and whether that is past. */
function orderWords({ orderBy, late, leadDays, shortOn }: Shortage): string {
  if (orderBy === null) return `Lead time unknown: ask before ${formatDate(shortOn!)}`;
  const days = `${leadDays} ${leadDays === 1 ? 'day' : 'days'} to come`;
  return late ? `Ordered today it is late: ${days}` : `Order by ${formatDate(orderBy)}: ${days}`;
}

function Row({ short }: { short: Shortage }) {
  const { part, shortOn, missing, demands, late, onOrder } = short;
  return (
    <li className="grid gap-x-6 gap-y-2 border-b border-rule py-3 md:grid-cols-[1fr_1fr]">
      <div>
        <Link to={`/stores/${part.id}`} className="flex min-h-12 items-center text-16 hover:underline">
          <span>
            <span className="figure font-semibold">{part.number}</span> {part.title}
          </span>
        </Link>
        <p className="text-14">
          <span className="font-semibold">
            {missing} short from {formatDate(shortOn!)}
          </span>
          , {stockWords(part).toLowerCase()}
        </p>
        {onOrder.map((o) => (
          <p key={o.orderNumber} className={`text-13 ${o.late ? 'font-semibold text-rust' : ''}`}>
            {o.quantity} on order {o.orderNumber},{' '}
            {o.late
              ? `late since ${formatDate(o.expected)}: not counted on`
              : `for ${formatDate(o.expected)}`}
          </p>
        ))}
        <p className={`text-14 ${late ? 'font-semibold text-rust' : ''}`}>{orderWords(short)}</p>
      </div>
      <table className="w-full self-start text-13">
        <caption className="sr-only">What is wanted of {part.number}</caption>
        <tbody>
          {demands.slice(0, 6).map(({ date, quantity, what }) => (
            <tr key={date} className="border-b border-rule align-top">
              <td className="w-28 py-1 pr-3 whitespace-nowrap">{formatDate(date)}</td>
              <td className="figure w-10 py-1 pr-3 text-right">{quantity}</td>
              <td className="py-1 text-muted">{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </li>
  );
}

/** Parts that will be short: what is planned, due and open against what lies here. */
export function ShortageList() {
  const { currentData: data, error } = useShortagesQuery();
  if (error) return <PageProblem error={error} />;
  if (!data) return <p className="text-16 text-muted">Looking eight weeks ahead.</p>;
  if (data.length === 0)
    return <p className="text-16 text-muted">Nothing will be short in the next eight weeks.</p>;
  return (
    <ul aria-label="Shortages" className="border-t border-rule">
      {data.map((short) => (
        <Row key={short.part.id} short={short} />
      ))}
    </ul>
  );
}
