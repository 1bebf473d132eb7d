import type { JobDetail, jobsRoutes, SecondPersonInput } from '@lanternwright/contract/jobs';
import { fromContract } from '../from-contract.ts';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { original } from '@reduxjs/toolkit';
import { copyWithStructuralSharing, QueryStatus } from '@reduxjs/toolkit/query/react';
import { api } from '../api.ts';
import { addToCopy, noCopies } from '../offline/copies.ts';
import type { AppDispatch, RootState } from '../store.ts';

type JobsRoutes = typeof jobsRoutes;

/**
 * What is known of a job after an answer: a record that came while the answer was under way is not in it, and stays.
 * Records are only ever added.
 */
function withAnswer(known: JobDetail, answer: JobDetail): JobDetail {
  const events = [...known.events, ...answer.events.slice(known.events.length)];
  return copyWithStructuralSharing(known, { ...answer, events });
}

export const jobsApi = api.injectEndpoints({
  endpoints: (build) => {
    const { read, write } = fromContract(build);
    return {
      jobs: read<JobsRoutes['list']>('/api/jobs', { providesTags: ['jobs'] }),
      followUps: read<JobsRoutes['followUps']>('/api/jobs/follow-ups', { providesTags: ['jobs'] }),
      job: read<JobsRoutes['job']>('/api/jobs/:id', {
        providesTags: (_job, _error, id) => [{ type: 'job', id }],
        merge: (known, answer) => withAnswer(original(known)!, answer),
      }),
      openJob: write<JobsRoutes['open']>('post', '/api/jobs', {
        invalidatesTags: ['jobs', 'fleet', 'unit', 'plan'],
      }),
      // Its body has an id of its own beside that of the job.
      secondPerson: build.mutation<StoredEvent, SecondPersonInput & { jobId: string }>({
        query: ({ jobId, ...body }) => ({ url: `api/jobs/${jobId}/second-person`, method: 'POST', body }),
        invalidatesTags: (_event, _error, { jobId }) => [{ type: 'job', id: jobId }],
      }),
    };
  },
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
