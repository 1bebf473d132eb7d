import type {
  JobDetail,
  JobSummary,
  OpenJobInput,
  SecondPersonInput,
  ShopFollowUps,
} from '@lanternwright/contract/jobs';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { QueryStatus } from '@reduxjs/toolkit/query/react';
import { api } from '../api.ts';
import { addToCopy, noCopies } from '../offline/copies.ts';
import type { AppDispatch, RootState } from '../store.ts';

export const jobsApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], { status: 'open' | 'closed'; page?: number }>({
      query: (params) => ({ url: 'api/jobs', params }),
      providesTags: ['jobs'],
    }),
    followUps: build.query<ShopFollowUps, number>({
      query: (page) => ({ url: 'api/jobs/follow-ups', params: { page } }),
      providesTags: ['jobs'],
    }),
    job: build.query<JobDetail, string>({
      query: (id) => `api/jobs/${id}`,
      providesTags: (_job, _error, id) => [{ type: 'job', id }],
    }),
    openJob: build.mutation<{ id: string; number: number }, OpenJobInput>({
      query: (body) => ({ url: 'api/jobs', method: 'POST', body }),
      invalidatesTags: ['jobs', 'fleet', 'unit'],
    }),
    secondPerson: build.mutation<StoredEvent, SecondPersonInput & { jobId: string }>({
      query: ({ jobId, ...body }) => ({ url: `api/jobs/${jobId}/second-person`, method: 'POST', body }),
      invalidatesTags: (_event, _error, { jobId }) => [{ type: 'job', id: jobId }],
    }),
  }),
});

export const { useJobsQuery, useFollowUpsQuery, useJobQuery, useOpenJobMutation, useSecondPersonMutation } =
  jobsApi;

/**
 * Puts a stored event into a job the browser holds. The job is fetched again where one was missed in between, and
 * where it is being fetched just now: the answer under way may be older. One that is there already changes nothing.
 */
export function eventArrived(jobId: string, event: StoredEvent) {
  return (dispatch: AppDispatch, getState: () => RootState): void => {
    let missed = jobsApi.endpoints.job.select(jobId)(getState()).status === QueryStatus.pending;
    dispatch(
      jobsApi.util.updateQueryData('job', jobId, (job) => {
        const next = job.events.length + 1;
        if (event.version === next) job.events.push(event);
        else if (event.version > next) missed = true;
      }),
    );
    addToCopy(jobId, event).catch(noCopies);
    if (missed) dispatch(jobsApi.util.invalidateTags([{ type: 'job', id: jobId }]));
  };
}
