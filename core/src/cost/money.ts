/** Digits after the point that a currency is counted in: 2 of EUR, 0 of JPY, 3 of KWD. @source ISO 4217, as Unicode CLDR has it */
function coinDigits(currency: string): number {
  return (
    new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2
  );
}

/** An amount in the smallest coin of its currency. @param amount as it is written: 42.50 */
export const toMinor = (amount: number, currency: string): number =>
  Math.round(amount * 10 ** coinDigits(currency));

/** An amount as it is typed into a field: "42.50". @param minor smallest coin */
export const typedMoney = (minor: number, currency: string): string =>
  (minor / 10 ** coinDigits(currency)).toFixed(coinDigits(currency));

/** Money as it is written: "635.16 EUR", "1,200 JPY". @param minor smallest coin of the currency */
export function formatMoney(minor: number, currency: string): string {
  const digits = coinDigits(currency);
  const [whole = '', part] = (Math.abs(minor) / 10 ** digits).toFixed(digits).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return `${minor < 0 ? '−' : ''}${grouped}${part ? `.${part}` : ''} ${currency}`;
}
