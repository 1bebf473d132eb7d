import { formatMoney } from '@lanternwright/core/cost';
import { convert } from '@lanternwright/core/quantity';
import { formatDate, formatDistance } from '../shell/words.ts';
import { useReader } from '../shell/use-reader.ts';
import { useUnitCostsQuery } from '../stores/stores-api.ts';

/** What the wheel ends of a unit have cost; for those who bill. */
export function UnitCosts({ unitId }: { unitId: string }) {
  const reader = useReader();
  const { currentData: costs } = useUnitCostsQuery(unitId);
  if (!costs || costs.wheelEnds.length + costs.otherCurrency === 0) return null;
  const { currency, since, km, wheelEnds, otherCurrency } = costs;
  const per = reader.distance === 'mi' ? convert(1, 'mi', 'km') : 1;
  return (
    <section>
      <h2 className="pb-1 text-16">What it costs</h2>
      <table className="w-full text-14">
        <thead>
          <tr className="text-12 text-muted">
            <th scope="col" className="pb-1 text-left font-normal">
              Wheel end
            </th>
            <th scope="col" className="pb-1 text-right font-normal">
              Billed
            </th>
            <th scope="col" className="pb-1 text-right font-normal">
              Per 10,000 {reader.distance}
            </th>
          </tr>
        </thead>
        <tbody>
          {wheelEnds.map(({ position, jobs, minor, minorPer10000Km }) => (
            <tr key={position} className="border-t border-rule">
              <th scope="row" className="py-1.5 text-left font-semibold">
                {position}{' '}
                <span className="font-normal text-muted">{jobs === 1 ? '1 job' : `${jobs} jobs`}</span>
              </th>
              <td className="figure text-right text-13">{formatMoney(minor, currency)}</td>
              <td className="figure text-right text-13">
                {minorPer10000Km === null ? '–' : formatMoney(Math.round(minorPer10000Km * per), currency)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="pt-1 text-12 text-muted">
        Bills without taxes, each shared evenly by the wheel ends of its job
        {km !== null && since !== null && `, over ${formatDistance(km, reader)} since ${formatDate(since)}`}.
        {otherCurrency > 0 && ` ${otherCurrency} in another currency left out.`}
      </p>
    </section>
  );
}
