import type { JoinJobInput } from '@lanternwright/contract/jobs';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { api } from '../api.ts';

/** Taking the other side into a job: rare, and not with what the first screen loads. */
export const { useJoinJobMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    // Its body has an id of its own beside that of the job.
    joinJob: build.mutation<StoredEvent, JoinJobInput & { jobId: string }>({
      query: ({ jobId, ...body }) => ({ url: `api/jobs/${jobId}/wheel-ends`, method: 'POST', body }),
      invalidatesTags: (_event, _error, { jobId }) => [{ type: 'job', id: jobId }, 'jobs', 'fleet', 'unit'],
    }),
  }),
});
