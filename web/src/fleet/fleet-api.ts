import type { FleetPreview } from '@lanternwright/contract/exchange';
import type {
  ChangeAxles,
  CorrectMeter,
  FleetOverview,
  FleetPage,
  FleetQuery,
  Found,
  HistoryLine,
  MeterPage,
  NewMeterRead,
  NewUnitInput,
  Owner,
  SetDuty,
  SwapMeter,
  TellService,
  UnitDetail,
} from '@lanternwright/contract/fleet';
import { api } from '../api.ts';

/** What is asked of the fleet; what is left out is not asked. */
export type FleetAsked = Partial<Omit<FleetQuery, 'page'>> & { page: number };

export const fleetApi = api.injectEndpoints({
  endpoints: (build) => ({
    fleet: build.query<FleetPage, FleetAsked>({
      query: (params) => ({ url: 'api/fleet/units', params }),
      providesTags: ['fleet'],
    }),
    fleetOverview: build.query<FleetOverview, number>({
      query: (page) => ({ url: 'api/fleet/overview', params: { page } }),
      providesTags: ['fleet'],
    }),
    find: build.query<Found, string>({
      query: (text) => ({ url: 'api/find', params: { text } }),
      // What was found a while ago may be called otherwise.
      keepUnusedDataFor: 5,
    }),
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
    meters: build.query<MeterPage, { id: string; page: number }>({
      query: ({ id, page }) => ({ url: `api/fleet/units/${id}/meters`, params: { page } }),
      providesTags: ['unit'],
    }),
    addMeter: build.mutation<{ id: string }, { id: string } & NewMeterRead>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/meters`, method: 'POST', body }),
      invalidatesTags: ['fleet', 'unit', 'jobs'],
    }),
    swapMeter: build.mutation<{ id: string }, { id: string } & SwapMeter>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/meters/swaps`, method: 'POST', body }),
      invalidatesTags: ['fleet', 'unit', 'jobs'],
    }),
    correctMeter: build.mutation<{ id: string }, { id: string } & CorrectMeter>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/meters/corrections`, method: 'POST', body }),
      invalidatesTags: ['fleet', 'unit', 'jobs'],
    }),
    tellService: build.mutation<{ id: string }, { id: string } & TellService>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/services`, method: 'POST', body }),
      invalidatesTags: ['unit'],
    }),
    setDuty: build.mutation<{ id: string }, { id: string } & SetDuty>({
      query: ({ id, ...body }) => ({ url: `api/fleet/units/${id}/duty`, method: 'PUT', body }),
      invalidatesTags: ['unit', 'plan'],
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
  useAddMeterMutation,
  useCorrectMeterMutation,
  useMetersQuery,
  useSwapMeterMutation,
  useTellServiceMutation,
  useSetDutyMutation,
  useFindQuery,
  useFleetOverviewQuery,
  useFleetQuery,
  useUnitQuery,
  useHistoryQuery,
  useOwnersQuery,
  useAddUnitMutation,
  useReplaceAxlesMutation,
  usePreviewFleetMutation,
  useImportFleetMutation,
} = fleetApi;
