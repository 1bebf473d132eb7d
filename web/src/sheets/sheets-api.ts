import type { z } from 'zod';
import type {
  Behind,
  Carried,
  Carry,
  copySheetSchema,
  RevisedSheet,
  reviseSheetSchema,
  SheetRevision,
} from '@lanternwright/contract/sheets';
import { familySheets, type Sheet } from '@lanternwright/core/procedure';
import { api } from '../api.ts';

export const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    sheets: build.query<RevisedSheet[], void>({ query: () => 'api/sheets', providesTags: ['sheets'] }),
    reviseSheet: build.mutation<SheetRevision, { sheetId: string } & z.input<typeof reviseSheetSchema>>({
      query: ({ sheetId, ...body }) => ({ url: `api/sheets/${sheetId}`, method: 'POST', body }),
      invalidatesTags: ['sheets'],
    }),
    behind: build.query<Behind, string>({
      query: (sheetId) => `api/sheets/${sheetId}/behind`,
      providesTags: ['sheets', 'fleet'],
    }),
    carrySheet: build.mutation<Carried, { sheetId: string } & Carry>({
      query: ({ sheetId, ...body }) => ({ url: `api/sheets/${sheetId}/carry`, method: 'POST', body }),
      invalidatesTags: ['sheets', 'fleet', 'unit'],
    }),
    copySheet: build.mutation<SheetRevision, z.input<typeof copySheetSchema>>({
      query: (body) => ({ url: 'api/sheets', method: 'POST', body }),
      invalidatesTags: ['sheets'],
    }),
  }),
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
