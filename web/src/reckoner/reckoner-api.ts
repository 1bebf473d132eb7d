import type { reckonerRoutes } from '@lanternwright/contract/reckoner';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

type ReckonerRoutes = typeof reckonerRoutes;

const reckonerApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read } = fromContract(build);
    return {
      sums: read<ReckonerRoutes['list']>('/api/reckon'),
    };
  },
});

export const { useSumsQuery } = reckonerApi;
