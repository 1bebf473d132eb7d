import { Router } from 'express';
import { sheetsRoutes } from '@lanternwright/contract/sheets';
import { serve } from '../http/serve.ts';
import type { SheetCarrier } from './carry.ts';
import type { SheetsService } from './service.ts';

export function sheetsRouter(sheets: SheetsService, carrier: SheetCarrier): Router {
  const router = Router();
  serve(router, sheetsRoutes.list, () => sheets.list());
  serve(router, sheetsRoutes.revise, ({ params, body, viewer }) =>
    sheets.revise(params.sheetId, body, viewer),
  );
  serve(router, sheetsRoutes.behind, ({ params }) => carrier.behind(params.sheetId));
  serve(router, sheetsRoutes.carry, ({ params, body, viewer }) =>
    carrier.carry(params.sheetId, body, viewer),
  );
  serve(router, sheetsRoutes.copy, ({ body, viewer }) => sheets.copy(body, viewer));
  return router;
}
