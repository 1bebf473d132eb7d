import { QueryTypes } from 'sequelize';
import { ratesSchema, type ShopRates } from '@lanternwright/contract/estimates';
import type { Rates } from '@lanternwright/core/cost';
import type { Database } from '../database/connect.ts';
import { MovedOn } from '../record/append.ts';
import type { SettingsService } from '../shop/settings.ts';

const unset: ShopRates = { hour: null, suppliesPercent: 0, taxes: [], taxNumber: '', validDays: null };

const BEGIN = `insert into setting (name, value) values ('rates', $1 ::jsonb) on conflict do nothing`;
const CHANGE = `
  update setting set value = $1 ::jsonb where name = 'rates' and value = $2 ::jsonb returning name`;

/** What the shop charges, kept beside its settings: whoever sees no prices does not see it. */
export function ratesService(db: Database, settings: Pick<SettingsService, 'current'>) {
  async function current(): Promise<ShopRates> {
    const row = await db.setting.findByPk('rates');
    return row ? ratesSchema.parse(row.value) : unset;
  }

  return {
    current,

    /** @param seen as they were when they were looked at @throws HttpProblem 409 where somebody changed them meanwhile */
    async change(rates: ShopRates, seen: ShopRates): Promise<ShopRates> {
      const bind = [JSON.stringify(rates), JSON.stringify(seen)];
      await db.sequelize.query(BEGIN, { bind: [JSON.stringify(unset)] });
      const [changed] = await db.sequelize.query(CHANGE, { type: QueryTypes.SELECT, bind });
      if (!changed) throw new MovedOn();
      return rates;
    },

    /** What of the rates is known in the currency of the shop: an hour that was set in another is not. */
    inCurrency({ hour, suppliesPercent, taxes }: ShopRates): Rates {
      const { currency } = settings.current();
      return { currency, hourMinor: hour?.currency === currency ? hour.minor : null, suppliesPercent, taxes };
    },
  };
}
export type RatesService = ReturnType<typeof ratesService>;
