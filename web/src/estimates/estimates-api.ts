import type { estimatesRoutes } from '@lanternwright/contract/estimates';
import { api } from '../api.ts';
import { fromContract } from '../from-contract.ts';

type EstimatesRoutes = typeof estimatesRoutes;

const estimatesApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      rates: read<EstimatesRoutes['rates']>('/api/estimates/rates', { providesTags: ['rates'] }),
      changeRates: write<EstimatesRoutes['changeRates']>('put', '/api/estimates/rates', {
        invalidatesTags: ['rates'],
      }),
      draftEstimate: read<EstimatesRoutes['draft']>('/api/estimates/jobs/:id'),
      ownAhead: read<EstimatesRoutes['ahead']>('/api/estimates/ahead', {
        providesTags: ['jobs', 'job', 'plan', 'fleet', 'unit'],
      }),
    };
  },
});

export const { useRatesQuery, useChangeRatesMutation, useLazyDraftEstimateQuery, useOwnAheadQuery } =
  estimatesApi;
