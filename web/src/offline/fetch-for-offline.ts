import { QueryStatus } from '@reduxjs/toolkit/query/react';
import { fleetApi } from '../fleet/fleet-api.ts';
import { jobsApi } from '../jobs/jobs-api.ts';
import { sheetsApi } from '../sheets/sheets-api.ts';
import type { AppDispatch, RootState } from '../store.ts';
import { toolsApi } from '../tools/tools-api.ts';

/** Open jobs that are fetched for a day without a network; newest first. */
const MOST_JOBS = 60;

/** Fetches what a tablet needs to work without a network: open jobs with their units, the fleet's first page, sheets, tools. */
export function fetchForOffline() {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const fresh = { subscribe: false, forceRefetch: true } as const;
    const { data: jobs } = await dispatch(
      jobsApi.endpoints.jobs.initiate({ status: 'open', page: 1 }, fresh),
    );
    await Promise.all([
      dispatch(fleetApi.endpoints.fleet.initiate({ page: 1 }, fresh)),
      dispatch(fleetApi.endpoints.owners.initiate(undefined, fresh)),
      dispatch(sheetsApi.endpoints.sheets.initiate(undefined, fresh)),
      dispatch(toolsApi.endpoints.tools.initiate(undefined, fresh)),
    ]);
    // One after another: this must not stand before what somebody waits for.
    for (const { id, unit } of (jobs ?? []).slice(0, MOST_JOBS)) {
      // One that is on screen is fetched and kept there: an older answer must not come between.
      const onScreen = jobsApi.endpoints.job.select(id)(getState()).status !== QueryStatus.uninitialized;
      if (!onScreen) await dispatch(jobsApi.endpoints.job.initiate(id, fresh));
      await dispatch(fleetApi.endpoints.unit.initiate(unit.id, fresh));
    }
  };
}
