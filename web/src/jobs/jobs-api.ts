import type { JobDetail, JobSummary, OpenJobInput, SecondPersonInput } from '@lanternwright/contract/jobs';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { api } from '../api.ts';
import type { AppDispatch } from '../store.ts';

export const jobsApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], 'open' | 'closed'>({
      query: (status) => ({ url: 'api/jobs', params: { status } }),
      providesTags: ['jobs'],
    }),
    job: build.query<JobDetail, string>({ query: (id) => `api/jobs/${id}`, providesTags: ['job'] }),
    openJob: build.mutation<{ id: string; number: number }, OpenJobInput>({
      query: (body) => ({ url: 'api/jobs', method: 'POST', body }),
      invalidatesTags: ['jobs', 'fleet', 'unit'],
    }),
    secondPerson: build.mutation<StoredEvent, SecondPersonInput & { jobId: string }>({
      query: ({ jobId, ...body }) => ({ url: `api/jobs/${jobId}/second-person`, method: 'POST', body }),
      invalidatesTags: ['job'],
    }),
  }),
});

export const { useJobsQuery, useJobQuery, useOpenJobMutation, useSecondPersonMutation } = jobsApi;

/**
 * Puts a stored event into a job the browser holds. One that was missed in between makes the job be
 * fetched again; one that is there already changes nothing.
 */
export function eventArrived(jobId: string, event: StoredEvent) {
  let missed = false;
  const update = jobsApi.util.updateQueryData('job', jobId, (job) => {
    const next = job.events.length + 1;
    if (event.version === next) job.events.push(event);
    else if (event.version > next) missed = true;
  });
  return (dispatch: AppDispatch): void => {
    dispatch(update);
    if (missed) dispatch(jobsApi.util.invalidateTags(['job']));
  };
}
