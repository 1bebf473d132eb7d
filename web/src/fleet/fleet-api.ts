import type { FleetQuery, fleetRoutes, meterRoutes } from '@lanternwright/contract/fleet';
import type { exchangeRoutes } from '@lanternwright/contract/exchange';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

/** What is asked of the fleet; what is left out is not asked. */
export type FleetAsked = Partial<Omit<FleetQuery, 'page'>> & { page: number };

type FleetRoutes = typeof fleetRoutes;
type MeterRoutes = typeof meterRoutes;
type ExchangeRoutes = typeof exchangeRoutes;

export const fleetApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      fleet: read<FleetRoutes['list']>('/api/fleet/units', { providesTags: ['fleet'] }),
      fleetOverview: read<FleetRoutes['overview']>('/api/fleet/overview', { providesTags: ['fleet'] }),
      find: read<FleetRoutes['find']>('/api/find', {
        // What was found a while ago may be called otherwise.
        keepUnusedDataFor: 5,
      }),
      unit: read<FleetRoutes['unit']>('/api/fleet/units/:id', { providesTags: ['unit'] }),
      history: read<FleetRoutes['history']>('/api/fleet/units/:id/history', { providesTags: ['unit'] }),
      visits: read<FleetRoutes['visits']>('/api/fleet/units/:id/visits', { providesTags: ['unit'] }),
      owners: read<FleetRoutes['owners']>('/api/fleet/owners', { providesTags: ['fleet'] }),
      addUnit: write<FleetRoutes['add']>('post', '/api/fleet/units', { invalidatesTags: ['fleet'] }),
      replaceAxles: write<FleetRoutes['replaceAxles']>('put', '/api/fleet/units/:id/axles', {
        invalidatesTags: ['fleet', 'unit'],
      }),
      meters: read<MeterRoutes['page']>('/api/fleet/units/:id/meters', { providesTags: ['unit'] }),
      addMeter: write<MeterRoutes['add']>('post', '/api/fleet/units/:id/meters', {
        invalidatesTags: ['fleet', 'unit', 'jobs'],
      }),
      swapMeter: write<MeterRoutes['swap']>('post', '/api/fleet/units/:id/meters/swaps', {
        invalidatesTags: ['fleet', 'unit', 'jobs'],
      }),
      correctMeter: write<MeterRoutes['correct']>('post', '/api/fleet/units/:id/meters/corrections', {
        invalidatesTags: ['fleet', 'unit', 'jobs'],
      }),
      tellService: write<FleetRoutes['tellService']>('post', '/api/fleet/units/:id/services', {
        invalidatesTags: ['unit'],
      }),
      tellServices: write<FleetRoutes['tellServices']>('post', '/api/fleet/services', {
        invalidatesTags: ['unit', 'plan'],
      }),
      setDuty: write<FleetRoutes['setDuty']>('put', '/api/fleet/units/:id/duty', {
        invalidatesTags: ['unit', 'plan'],
      }),
      setRemarks: write<FleetRoutes['setRemarks']>('put', '/api/fleet/units/:id/remarks', {
        invalidatesTags: ['unit'],
      }),
      previewFleet: write<ExchangeRoutes['preview']>('post', '/api/exchange/fleet/preview'),
      importFleet: write<ExchangeRoutes['importFleet']>('post', '/api/exchange/fleet', {
        invalidatesTags: ['fleet'],
      }),
    };
  },
});

export const {
  useAddMeterMutation,
  useCorrectMeterMutation,
  useMetersQuery,
  useSwapMeterMutation,
  useTellServiceMutation,
  useTellServicesMutation,
  useSetDutyMutation,
  useSetRemarksMutation,
  useFindQuery,
  useFleetOverviewQuery,
  useFleetQuery,
  useUnitQuery,
  useHistoryQuery,
  useVisitsQuery,
  useOwnersQuery,
  useAddUnitMutation,
  useReplaceAxlesMutation,
  usePreviewFleetMutation,
  useImportFleetMutation,
} = fleetApi;
