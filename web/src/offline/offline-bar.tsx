import { useSyncExternalStore } from 'react';
import { formatTime } from '../shell/words.ts';
import { useAppSelector } from '../store.ts';
import { listenToParts, partsWaitFor } from './load-part.ts';

/** Says that the server cannot be reached, and how old what is shown may be. */
export function OfflineBar() {
  const since = useAppSelector((s) => s.offline.since);
  const partsWait = useSyncExternalStore(listenToParts, partsWaitFor) === 'network';
  if (since === null && !partsWait) return null;
  return (
    <div role="status" className="border-b border-lamp-edge bg-lamp px-5 py-2 text-14">
      {since === null
        ? 'No network. What you asked for opens as soon as there is one.'
        : `No network. This is what the device had at ${formatTime(since)}; what you record waits here and is sent by itself.`}
    </div>
  );
}
