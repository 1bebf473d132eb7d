import type { FleetPreview } from '@lanternwright/contract/exchange';
import type {
  ChangeAxles,
  HistoryLine,
  NewUnitInput,
  Owner,
  UnitDetail,
  UnitSummary,
} from '@lanternwright/contract/fleet';
import { api } from '../api.ts';

export const fleetApi = api.injectEndpoints({
  endpoints: (build) => ({
    units: build.query<UnitSummary[], void>({ query: () => 'api/fleet/units', providesTags: ['fleet'] }),
    unit: build.query<UnitDetail, string>({ query: (id) => `api/fleet/units/${id}`, providesTags: ['unit'] }),
    history: build.query<HistoryLine[], { id: string; position?: string }>({
      query: ({ id, position }) => ({ url: `api/fleet/units/${id}/history`, params: { position } }),
      providesTags: ['unit'],
    }),
    owners: build.query<Owner[], void>({ query: () => 'api/fleet/owners', providesTags: ['fleet'] }),
    addUnit: build.mutation<{ id: string }, NewUnitInput>({
      query: (body) => ({ url: 'api/fleet/units', method: 'POST', body }),
      invalidatesTags: ['fleet'],
    }),
    replaceAxles: build.mutation<{ id: string }, { id: string } & ChangeAxles>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/axles`, method: 'PUT', body }),
      invalidatesTags: ['fleet', 'unit'],
    }),
    previewFleet: build.mutation<FleetPreview, { csv: string }>({
      query: (body) => ({ url: 'api/exchange/fleet/preview', method: 'POST', body }),
    }),
    importFleet: build.mutation<FleetPreview, { csv: string }>({
      query: (body) => ({ url: 'api/exchange/fleet', method: 'POST', body }),
      invalidatesTags: ['fleet'],
    }),
  }),
});

export const {
  useUnitsQuery,
  useUnitQuery,
  useHistoryQuery,
  useOwnersQuery,
  useAddUnitMutation,
  useReplaceAxlesMutation,
  usePreviewFleetMutation,
  useImportFleetMutation,
} = fleetApi;
