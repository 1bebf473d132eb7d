import type { sheetsRoutes } from '@lanternwright/contract/sheets';
import { fromContract } from '../from-contract.ts';
import { familySheets, type Sheet } from '@lanternwright/core/procedure';
import { api } from '../api.ts';

type SheetsRoutes = typeof sheetsRoutes;

export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      sheets: read<SheetsRoutes['list']>('/api/sheets', { providesTags: ['sheets'] }),
      reviseSheet: write<SheetsRoutes['revise']>('post', '/api/sheets/:sheetId', {
        invalidatesTags: ['sheets'],
      }),
      behind: read<SheetsRoutes['behind']>('/api/sheets/:sheetId/behind', {
        providesTags: ['sheets', 'fleet'],
      }),
      carrySheet: write<SheetsRoutes['carry']>('post', '/api/sheets/:sheetId/carry', {
        invalidatesTags: ['sheets', 'fleet', 'unit'],
      }),
      copySheet: write<SheetsRoutes['copy']>('post', '/api/sheets', { invalidatesTags: ['sheets'] }),
    };
  },
});

export const {
  useSheetsQuery,
  useReviseSheetMutation,
  useCopySheetMutation,
  useBehindQuery,
  useCarrySheetMutation,
} = sheetsApi;

/** The newest revision of every sheet; until the server has answered, those that come with the product. */
export function useNewestSheets(): readonly Sheet[] {
  const { data } = useSheetsQuery();
  return data?.map((s) => s.revisions[0]!.sheet) ?? familySheets;
}
