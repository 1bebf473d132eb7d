import { formatTime } from '../shell/words.ts';
import { useAppSelector } from '../store.ts';

/** Says that the server cannot be reached, and how old what is shown may be. */
export function OfflineBar() {
  const since = useAppSelector((s) => s.offline.since);
  if (since === null) return null;
  return (
    <div role="status" className="border-b border-lamp-edge bg-lamp px-5 py-2 text-14">
      No network. This is what the device had at {formatTime(since)}; what you record waits here and is sent
      by itself.
    </div>
  );
}
