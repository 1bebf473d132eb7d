import { ratesSchema, type ShopRates } from '@lanternwright/contract/estimates';
import type { Rates } from '@lanternwright/core/cost';
import type { Database } from '../database/connect.ts';
import type { SettingsService } from '../shop/settings.ts';

const unset: ShopRates = { hour: null, suppliesPercent: 0, taxes: [], taxNumber: '', validDays: null };

/** What the shop charges, kept beside its settings: whoever sees no prices does not see it. */
export function ratesService(db: Database, settings: Pick<SettingsService, 'current'>) {
  async function current(): Promise<ShopRates> {
    const row = await db.setting.findByPk('rates');
    return row ? ratesSchema.parse(row.value) : unset;
  }

  return {
    current,

    async change(rates: ShopRates): Promise<ShopRates> {
      await db.setting.upsert({ name: 'rates', value: rates });
      return rates;
    },

    /** The rates in the currency of the shop: one that was set in another is not known in this. */
    async inCurrency(): Promise<Rates> {
      const { hour, suppliesPercent, taxes } = await current();
      const { currency } = settings.current();
      return { currency, hourMinor: hour?.currency === currency ? hour.minor : null, suppliesPercent, taxes };
    },
  };
}
export type RatesService = ReturnType<typeof ratesService>;
