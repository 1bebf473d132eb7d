import { billTotals, describeTax, lineMinor, formatMoney, type Bill } from '@lanternwright/core/cost';

/** An estimate or a bill, with its sums. */
export function BillView({ bill }: { bill: Bill }) {
  const money = (minor: number) => formatMoney(minor, bill.currency);
  const totals = billTotals(bill);
  const sums: (readonly [string, number])[] = [
    ['Supplies', totals.suppliesMinor],
    ...totals.taxes.map((tax) => [describeTax(tax), tax.minor] as const),
  ];
  return (
    <table className="w-full text-14">
      <tbody>
        {bill.lines.map((l, i) => (
          <tr key={i} className="border-b border-rule">
            <th scope="row" className="py-1.5 text-left font-normal">
              {l.at && <span className="font-semibold">{l.at.position} </span>}
              {l.what}
              <span className="figure block text-13 text-muted sm:hidden">
                {l.quantity} × {money(l.unitMinor)} per {l.per}
              </span>
            </th>
            <td className="figure hidden text-right text-muted sm:table-cell">
              {l.quantity} × {money(l.unitMinor)} per {l.per}
            </td>
            <td className="figure text-right whitespace-nowrap">{money(lineMinor(l))}</td>
          </tr>
        ))}
        {sums
          .filter(([, minor]) => minor > 0)
          .map(([label, minor]) => (
            <tr key={label} className="border-b border-rule">
              <th scope="row" className="py-1.5 text-left font-normal">
                {label}
              </th>
              <td className="hidden sm:table-cell" />
              <td className="figure text-right whitespace-nowrap">{money(minor)}</td>
            </tr>
          ))}
        <tr>
          <th scope="row" className="py-2 text-left text-16">
            Total
          </th>
          <td className="hidden sm:table-cell" />
          <td className="figure text-right text-16 font-semibold whitespace-nowrap">
            {money(totals.totalMinor)}
          </td>
        </tr>
      </tbody>
    </table>
  );
}
