import { Router } from 'express';
import { shopRoutes } from '@lanternwright/contract/shop';
import { backupsIn } from '../backup/backup.ts';
import type { Config } from '../config.ts';
import type { Database } from '../database/connect.ts';
import { serve } from '../http/serve.ts';
import type { MorningService } from '../morning/service.ts';
import { addressOf, startSession } from '../people/routes.ts';
import type { TriesService } from '../people/tries.ts';
import type { beginOwnShop } from './begin.ts';
import { firstHour } from './first-hour.ts';
import type { SettingsService } from './settings.ts';

export function shopRouter(
  settings: SettingsService,
  begin: ReturnType<typeof beginOwnShop>,
  tries: TriesService,
  { db, backups, morning }: { db: Database; backups: Config['backups']; morning: MorningService },
): Router {
  const router = Router();
  serve(router, shopRoutes.backups, async () => ({
    kept: backups?.kept ?? null,
    made: backups ? (await backupsIn(backups.folder)).map((b) => b.made) : [],
  }));
  serve(router, shopRoutes.morning, () => morning.stand());
  serve(router, shopRoutes.changeMorning, ({ body }) => morning.change(body));
  serve(router, shopRoutes.sendMorning, async () => {
    await morning.send();
    return { ok: true } as const;
  });
  serve(router, shopRoutes.firstHour, () => firstHour(db, settings));
  serve(router, shopRoutes.change, ({ body }) => settings.change(body));
  serve(router, shopRoutes.begin, async ({ req, body }) =>
    startSession(req, await tries.one(addressOf(req), 'first person', () => begin(body)), 'password'),
  );
  return router;
}
