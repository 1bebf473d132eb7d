import type { ordersRoutes, storesRoutes } from '@lanternwright/contract/stores';
import type { supplierRoutes } from '@lanternwright/contract/supplier';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

type StoresRoutes = typeof storesRoutes;
type OrdersRoutes = typeof ordersRoutes;
type SupplierRoutes = typeof supplierRoutes;
const changes = { invalidatesTags: ['parts' as const] };

const storesApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      parts: read<StoresRoutes['parts']>('/api/stores/parts', { providesTags: ['parts'] }),
      partsByMeasure: read<StoresRoutes['byMeasure']>('/api/stores/by-measure', { providesTags: ['parts'] }),
      storeDay: read<StoresRoutes['day']>('/api/stores/day', { providesTags: ['parts', 'plan'] }),
      part: read<StoresRoutes['part']>('/api/stores/parts/:id', { providesTags: ['parts'] }),
      savePart: write<StoresRoutes['list']>('put', '/api/stores/parts', { invalidatesTags: ['parts'] }),
      movePart: write<StoresRoutes['move']>('post', '/api/stores/parts/:id/movements', {
        invalidatesTags: ['parts'],
      }),
      unitCosts: read<StoresRoutes['unitCosts']>('/api/stores/units/:id/costs', {
        providesTags: ['parts', 'unit'],
      }),
      batch: read<StoresRoutes['batch']>('/api/stores/parts/:id/batch', { providesTags: ['parts'] }),
      jobParts: read<StoresRoutes['jobParts']>('/api/stores/jobs/:id', { providesTags: ['parts'] }),
      reservePart: write<StoresRoutes['reserve']>('post', '/api/stores/parts/:id/reservations', {
        invalidatesTags: ['parts'],
      }),
      reserveAllParts: write<StoresRoutes['reserveAll']>(
        'post',
        '/api/stores/jobs/:id/reservations',
        changes,
      ),
      endReservation: write<StoresRoutes['endReservation']>(
        'delete',
        '/api/stores/parts/:id/reservations/:reservationId',
        { invalidatesTags: ['parts'] },
      ),
      usePart: write<StoresRoutes['use']>('post', '/api/stores/parts/:id/uses', {
        invalidatesTags: ['parts'],
      }),
      orders: read<OrdersRoutes['list']>('/api/stores/orders', { providesTags: ['parts'] }),
      proposedOrders: read<OrdersRoutes['proposed']>('/api/stores/orders/proposed', {
        providesTags: ['parts'],
      }),
      order: read<OrdersRoutes['one']>('/api/stores/orders/:id', { providesTags: ['parts'] }),
      draftOrder: write<OrdersRoutes['draft']>('put', '/api/stores/orders', changes),
      sendOrder: write<OrdersRoutes['send']>('post', '/api/stores/orders/:id/sent', changes),
      promiseOrder: write<OrdersRoutes['promise']>('post', '/api/stores/orders/:id/promised', changes),
      deliverOrder: write<OrdersRoutes['deliver']>('post', '/api/stores/orders/:id/delivered', changes),
      endOrderLine: write<OrdersRoutes['endLine']>('post', '/api/stores/orders/:id/ended', changes),
      supplier: read<SupplierRoutes['stand']>('/api/supplier', { providesTags: ['parts'] }),
      askSupplier: write<SupplierRoutes['ask']>('post', '/api/supplier/ask', changes),
      cancelOrder: write<OrdersRoutes['cancel']>('post', '/api/stores/orders/:id/cancelled', changes),
    };
  },
});

export const {
  usePartsQuery,
  useLazyPartsQuery,
  usePartsByMeasureQuery,
  useStoreDayQuery,
  usePartQuery,
  useSavePartMutation,
  useMovePartMutation,
  useUsePartMutation,
  useOrdersQuery,
  useProposedOrdersQuery,
  useOrderQuery,
  useDraftOrderMutation,
  useSendOrderMutation,
  usePromiseOrderMutation,
  useDeliverOrderMutation,
  useEndOrderLineMutation,
  useCancelOrderMutation,
  useSupplierQuery,
  useAskSupplierMutation,
  useUnitCostsQuery,
  useBatchQuery,
  useJobPartsQuery,
  useReservePartMutation,
  useReserveAllPartsMutation,
  useEndReservationMutation,
} = storesApi;
