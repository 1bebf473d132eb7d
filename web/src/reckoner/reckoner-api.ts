import type { CalculationTitle } from '@lanternwright/core/reckoner';
import { api } from '../api.ts';

const reckonerApi = api.injectEndpoints({
  endpoints: (build) => ({
    sums: build.query<CalculationTitle[], void>({ query: () => 'api/reckon' }),
  }),
});

export const { useSumsQuery } = reckonerApi;
