import type { planRoutes } from '@lanternwright/contract/plan';
import type { storesRoutes } from '@lanternwright/contract/stores';
import { fromContract } from '../from-contract.ts';
import { api } from '../api.ts';

type PlanRoutes = typeof planRoutes;
type StoresRoutes = typeof storesRoutes;

const planApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      floor: read<PlanRoutes['floor']>('/api/plan/floor', { providesTags: ['plan', 'jobs'] }),
      due: read<PlanRoutes['due']>('/api/plan/due', { providesTags: ['plan', 'unit'] }),
      shortages: read<StoresRoutes['shortages']>('/api/stores/shortages', { providesTags: ['parts'] }),
      book: write<PlanRoutes['book']>('post', '/api/plan/bookings', { invalidatesTags: ['plan'] }),
      moveBooking: write<PlanRoutes['move']>('put', '/api/plan/bookings/:id', { invalidatesTags: ['plan'] }),
      sayWhere: write<PlanRoutes['sayWhere']>('post', '/api/plan/bookings/:id/where', {
        invalidatesTags: ['plan'],
      }),
      cancelBooking: write<PlanRoutes['cancel']>('post', '/api/plan/bookings/:id/cancel', {
        invalidatesTags: ['plan'],
      }),
      bookings: read<PlanRoutes['bookings']>('/api/plan/bookings', { providesTags: ['plan'] }),
      lockBooking: write<PlanRoutes['lock']>('post', '/api/plan/bookings/:id/lock', {
        invalidatesTags: ['plan'],
      }),
      absences: read<PlanRoutes['absences']>('/api/plan/absences', { providesTags: ['plan'] }),
      tellAbsence: write<PlanRoutes['tellAbsence']>('post', '/api/plan/absences', {
        invalidatesTags: ['plan'],
      }),
      cancelAbsence: write<PlanRoutes['cancelAbsence']>('post', '/api/plan/absences/:id/cancel', {
        invalidatesTags: ['plan'],
      }),
      shifts: read<PlanRoutes['shifts']>('/api/plan/shifts', { providesTags: ['plan'] }),
      changeShift: write<PlanRoutes['changeShift']>('put', '/api/plan/shifts/:id', {
        invalidatesTags: ['plan'],
      }),
      askProposal: write<PlanRoutes['ask']>('post', '/api/plan/proposals'),
      proposal: read<PlanRoutes['proposal']>('/api/plan/proposals/:id'),
      stopProposal: write<PlanRoutes['stop']>('post', '/api/plan/proposals/:id/stop'),
      acceptProposal: write<PlanRoutes['accept']>('post', '/api/plan/proposals/:id/accept', {
        invalidatesTags: ['plan'],
      }),
      calendars: read<PlanRoutes['calendars']>('/api/plan/calendars', { providesTags: ['calendars'] }),
      makeCalendar: write<PlanRoutes['makeCalendar']>('post', '/api/plan/calendars', {
        invalidatesTags: ['calendars'],
      }),
      revokeCalendar: write<PlanRoutes['revokeCalendar']>('post', '/api/plan/calendars/:id/revoke', {
        invalidatesTags: ['calendars'],
      }),
      capacity: read<PlanRoutes['capacity']>('/api/plan/capacity', { providesTags: ['plan'] }),
    };
  },
});

export const {
  useShortagesQuery,
  useBookingsQuery,
  useLockBookingMutation,
  useAbsencesQuery,
  useTellAbsenceMutation,
  useCancelAbsenceMutation,
  useAskProposalMutation,
  useProposalQuery,
  useStopProposalMutation,
  useAcceptProposalMutation,
  useCalendarsQuery,
  useMakeCalendarMutation,
  useRevokeCalendarMutation,
  useCapacityQuery,
  useChangeShiftMutation,
  useShiftsQuery,
  useFloorQuery,
  useDueQuery,
  useBookMutation,
  useMoveBookingMutation,
  useSayWhereMutation,
  useCancelBookingMutation,
} = planApi;
