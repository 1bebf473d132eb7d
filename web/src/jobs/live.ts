import { useEffect } from 'react';
import type { LiveMessage } from '@lanternwright/contract/jobs';
import { api } from '../api.ts';
import { useAppDispatch } from '../store.ts';
import { eventArrived } from './jobs-api.ts';

const LISTS_MS = 400;

/** Listens to the live stream: jobs on screen get each event, lists are fetched again a moment later. */
export function useLive(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const stream = new EventSource('/api/live');
    let timer: ReturnType<typeof setTimeout> | undefined;
    const freshenLists = () => {
      timer ??= setTimeout(() => {
        timer = undefined;
        dispatch(api.util.invalidateTags(['fleet', 'unit', 'jobs']));
      }, LISTS_MS);
    };
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const { jobId, event } = JSON.parse(data) as LiveMessage;
      dispatch(eventArrived(jobId, event));
      freshenLists();
    };
    // Nobody knows what was missed before the stream stood, nor in a gap of it.
    stream.onopen = () => {
      dispatch(api.util.invalidateTags(['fleet', 'unit', 'jobs', 'job']));
    };
    return () => {
      clearTimeout(timer);
      stream.close();
    };
  }, [dispatch]);
}
