import type { storesRoutes } from '@lanternwright/contract/stores';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

type StoresRoutes = typeof storesRoutes;

const storesApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      parts: read<StoresRoutes['parts']>('/api/stores/parts', { providesTags: ['parts'] }),
      partsByMeasure: read<StoresRoutes['byMeasure']>('/api/stores/by-measure', { providesTags: ['parts'] }),
      part: read<StoresRoutes['part']>('/api/stores/parts/:id', { providesTags: ['parts'] }),
      savePart: write<StoresRoutes['list']>('put', '/api/stores/parts', { invalidatesTags: ['parts'] }),
      movePart: write<StoresRoutes['move']>('post', '/api/stores/parts/:id/movements', {
        invalidatesTags: ['parts'],
      }),
      shortages: read<StoresRoutes['shortages']>('/api/stores/shortages', {
        providesTags: ['parts', 'plan'],
      }),
      jobParts: read<StoresRoutes['jobParts']>('/api/stores/jobs/:id', { providesTags: ['parts'] }),
      reservePart: write<StoresRoutes['reserve']>('post', '/api/stores/parts/:id/reservations', {
        invalidatesTags: ['parts'],
      }),
      endReservation: write<StoresRoutes['endReservation']>(
        'delete',
        '/api/stores/parts/:id/reservations/:reservationId',
        { invalidatesTags: ['parts'] },
      ),
      usePart: write<StoresRoutes['use']>('post', '/api/stores/parts/:id/uses', {
        invalidatesTags: ['parts'],
      }),
    };
  },
});

export const {
  usePartsQuery,
  usePartsByMeasureQuery,
  usePartQuery,
  useSavePartMutation,
  useMovePartMutation,
  useShortagesQuery,
  useUsePartMutation,
  useJobPartsQuery,
  useReservePartMutation,
  useEndReservationMutation,
} = storesApi;
