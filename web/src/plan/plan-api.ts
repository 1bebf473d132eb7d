import type {
  AskProposal,
  Booked,
  Calendar,
  CancelBooking,
  ChangeShift,
  DueUnit,
  Floor,
  MadeCalendar,
  MoveBooking,
  NewAbsence,
  NewBooking,
  NewCalendar,
  Proposal,
  Shift,
  ToldAbsence,
  WeekLoad,
} from '@lanternwright/contract/plan';
import { api } from '../api.ts';

interface DuePage {
  total: number;
  overdue: number;
  rows: DueUnit[];
}
interface DueQuery {
  page: number;
  state: 'known' | 'unknown';
  owner?: string | undefined;
  within: number;
}

const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    floor: build.query<Floor, void>({ query: () => 'api/plan/floor', providesTags: ['plan', 'jobs'] }),
    due: build.query<DuePage, DueQuery>({
      query: (params) => ({ url: 'api/plan/due', params }),
      providesTags: ['plan', 'unit'],
    }),
    book: build.mutation<{ id: string }, NewBooking>({
      query: (body) => ({ url: 'api/plan/bookings', method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    moveBooking: build.mutation<{ id: string }, { id: string } & MoveBooking>({
      query: ({ id, ...body }) => ({ url: `api/plan/bookings/${id}`, method: 'PUT', body }),
      invalidatesTags: ['plan'],
    }),
    endBooking: build.mutation<{ id: string }, { id: string; seenVersion: number }>({
      query: ({ id, ...body }) => ({ url: `api/plan/bookings/${id}/end`, method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    cancelBooking: build.mutation<{ id: string }, { id: string } & CancelBooking>({
      query: ({ id, ...body }) => ({ url: `api/plan/bookings/${id}/cancel`, method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    bookings: build.query<Booked[], { from: string; until: string }>({
      query: (params) => ({ url: 'api/plan/bookings', params }),
      providesTags: ['plan'],
    }),
    lockBooking: build.mutation<{ id: string }, { id: string; seenVersion: number; locked: boolean }>({
      query: ({ id, ...body }) => ({ url: `api/plan/bookings/${id}/lock`, method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    absences: build.query<ToldAbsence[], { from: string; until: string }>({
      query: (params) => ({ url: 'api/plan/absences', params }),
      providesTags: ['plan'],
    }),
    tellAbsence: build.mutation<{ id: string }, NewAbsence>({
      query: (body) => ({ url: 'api/plan/absences', method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    cancelAbsence: build.mutation<{ id: string }, { id: string; seenVersion: number }>({
      query: ({ id, ...body }) => ({ url: `api/plan/absences/${id}/cancel`, method: 'POST', body }),
      invalidatesTags: ['plan'],
    }),
    shifts: build.query<Shift[], void>({ query: () => 'api/plan/shifts', providesTags: ['plan'] }),
    changeShift: build.mutation<Shift[], { id: string } & ChangeShift>({
      query: ({ id, ...body }) => ({ url: `api/plan/shifts/${id}`, method: 'PUT', body }),
      invalidatesTags: ['plan'],
    }),
    askProposal: build.mutation<{ id: string }, AskProposal>({
      query: (body) => ({ url: 'api/plan/proposals', method: 'POST', body }),
    }),
    proposal: build.query<Proposal, string>({ query: (id) => `api/plan/proposals/${id}` }),
    stopProposal: build.mutation<{ id: string }, string>({
      query: (id) => ({ url: `api/plan/proposals/${id}/stop`, method: 'POST' }),
    }),
    acceptProposal: build.mutation<{ booked: number }, { id: string; units: string[] }>({
      query: ({ id, units }) => ({ url: `api/plan/proposals/${id}/accept`, method: 'POST', body: { units } }),
      invalidatesTags: ['plan'],
    }),
    calendars: build.query<Calendar[], void>({
      query: () => 'api/plan/calendars',
      providesTags: ['calendars'],
    }),
    makeCalendar: build.mutation<MadeCalendar, NewCalendar>({
      query: (body) => ({ url: 'api/plan/calendars', method: 'POST', body }),
      invalidatesTags: ['calendars'],
    }),
    revokeCalendar: build.mutation<{ id: string }, string>({
      query: (id) => ({ url: `api/plan/calendars/${id}/revoke`, method: 'POST' }),
      invalidatesTags: ['calendars'],
    }),
    capacity: build.query<WeekLoad[], void>({ query: () => 'api/plan/capacity', providesTags: ['plan'] }),
  }),
});

export const {
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
  useEndBookingMutation,
  useCancelBookingMutation,
} = planApi;
