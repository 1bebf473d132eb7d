import { Router } from 'express';
import { sheetsRoutes } from '@lanternwright/contract/sheets';
import { serve } from '../http/serve.ts';
import type { SheetsService } from './service.ts';

export function sheetsRouter(sheets: SheetsService): Router {
  const router = Router();
  serve(router, sheetsRoutes.list, () => sheets.list());
  serve(router, sheetsRoutes.revise, ({ params, body, viewer }) =>
    sheets.revise(params.sheetId, body, viewer),
  );
  serve(router, sheetsRoutes.copy, ({ body, viewer }) => sheets.copy(body, viewer));
  return router;
}
