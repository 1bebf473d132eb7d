import { useEffect } from 'react';
import type { LiveMessage } from '@lanternwright/contract/jobs';
import { api, type Tag } from '../api.ts';
import { sawRecord } from '../record-seen.ts';
import { useAppDispatch } from '../store.ts';
import { eventArrived } from './jobs-api.ts';

const LISTS_MS = 400;
/** After what is on screen was fetched, what is wanted without a network. */
const COPY_MS = 2_000;
/** After a stream was refused, not merely lost: a browser does not try again by itself. */
const AGAIN_MS = 5_000;

/** What a record may change on screen, where it is of a job, a unit or the plan. */
const listsOfJobs: readonly Tag[] = ['fleet', 'unit', 'jobs', 'plan'];
/** Records of the store and of tools change nothing else. */
const ownLists: Partial<Record<string, readonly Tag[]>> = {
  stock: ['parts'],
  order: ['parts'],
  tool: ['tools'],
};

/**
 * Listens to the live stream: jobs on screen get each event, lists are fetched again a moment later. For whoever works
 * on jobs, what a day without a network needs is fetched whenever the stream stands again.
 */
export function useLive(seesJobs: boolean, worksOffline: boolean): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (!seesJobs) return undefined;
    let stream: EventSource;
    let lists: ReturnType<typeof setTimeout> | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    let copying: ReturnType<typeof setTimeout> | undefined;
    let lost = false;
    let over = false;
    const stale = new Set<Tag>();
    const freshen = (tags: readonly Tag[]) => {
      for (const tag of tags) stale.add(tag);
      lists ??= setTimeout(() => {
        lists = undefined;
        dispatch(api.util.invalidateTags([...stale]));
        stale.clear();
      }, LISTS_MS);
    };
    const copy = async () => {
      const { fetchForOffline } = await import('../offline/fetch-for-offline.ts');
      if (!over) await dispatch(fetchForOffline());
    };
    const open = () => {
      stream = new EventSource('/api/live');
      stream.onmessage = ({ data, lastEventId }: MessageEvent<string>) => {
        sawRecord(lastEventId);
        const { jobId, event } = JSON.parse(data) as LiveMessage;
        dispatch(eventArrived(jobId, event));
        freshen(listsOfJobs);
      };
      stream.addEventListener('changed', ({ data, lastEventId }: MessageEvent<string>) => {
        sawRecord(lastEventId);
        const { stream: of } = JSON.parse(data) as { stream: string };
        freshen(ownLists[of] ?? listsOfJobs);
      });
      const stands = () => {
        lost = false;
        clearTimeout(copying);
        if (worksOffline) copying = setTimeout(() => void copy(), COPY_MS);
      };
      // Nobody knows what was missed before the stream stood, nor in a long gap of it.
      stream.addEventListener('anew', () => {
        dispatch(api.util.invalidateTags([...listsOfJobs, 'job', 'parts', 'tools']));
        stands();
      });
      // Whatever was missed has just been sent.
      stream.addEventListener('resumed', stands);
      stream.onerror = () => {
        // A stream ends with the right to it: who is signed in may be nobody, or somebody else, by now.
        if (!lost) dispatch(api.util.invalidateTags(['session']));
        lost = true;
        if (stream.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS);
      };
    };
    open();
    return () => {
      over = true;
      clearTimeout(lists);
      clearTimeout(again);
      clearTimeout(copying);
      stream.close();
    };
  }, [dispatch, seesJobs, worksOffline]);
}
