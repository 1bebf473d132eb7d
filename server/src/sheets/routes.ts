import { Router } from 'express';
import { sheetsRoutes } from '@lanternwright/contract/sheets';
import { serve } from '../http/serve.ts';
import type { SheetsService } from './service.ts';

export function sheetsRouter(sheets: SheetsService): Router {
  const router = Router();
  serve(router, sheetsRoutes.list, () => sheets.list());
  serve(router, sheetsRoutes.revise, ({ params, body, person }) =>
    sheets.revise(params.sheetId, body, person),
  );
  serve(router, sheetsRoutes.copy, ({ body, person }) => sheets.copy(body, person));
  return router;
}
