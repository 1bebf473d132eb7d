import { shopSettingsSchema, type ShopSettings } from '@lanternwright/contract/shop';
import { metricReader, usualReader } from '@lanternwright/core/quantity';
import type { Database } from '../database/connect.ts';

/** Channel on which a change of the settings is announced. */
export const SETTINGS_CHANNEL = 'shop_settings';

/**
 * What is set for the whole shop, held in memory by every server.
 * @param zone the shop's zone until one is set, an IANA name
 */
export function settingsService(db: Database, zone: string) {
  const unset: ShopSettings = {
    name: 'Our shop',
    address: '',
    terms: '',
    zone,
    units: usualReader,
    currency: 'USD',
    paper: 'a4',
    bays: [],
    week: Array.from({ length: 7 }, () => []),
    holidays: [],
  };
  let current = unset;

  /** A setting as it is shaped now; one of an earlier program had a unit of end play only. */
  function shaped({
    endPlayUnit,
    ...found
  }: Partial<ShopSettings> & { endPlayUnit?: 'in' | 'mm' }): ShopSettings {
    const units = endPlayUnit === 'mm' ? metricReader : unset.units;
    return shopSettingsSchema.parse({ ...unset, units, ...found });
  }

  /** Writes the settings and tells every server; what is held here changes when they are read again. */
  async function store(settings: ShopSettings): Promise<void> {
    await db.setting.upsert({ name: 'shop', value: settings });
    await db.sequelize.query(`select pg_notify('${SETTINGS_CHANNEL}', '')`);
  }

  return {
    current: () => current,

    /** Reads what is set; what is missing in an older setting is as it was before. */
    async load(): Promise<void> {
      const row = await db.setting.findByPk('shop');
      current = shaped((row?.value as Partial<ShopSettings> | undefined) ?? {});
    },

    store,

    async change(settings: ShopSettings): Promise<ShopSettings> {
      await store(settings);
      current = settings;
      return settings;
    },
  };
}
export type SettingsService = ReturnType<typeof settingsService>;
