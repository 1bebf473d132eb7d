import { useEffect, useSyncExternalStore } from 'react';
import { Button } from '../ui/button.tsx';
import { changeToNewVersion, installProgram, listenToVersion, newVersionWaits } from './install-program.ts';
import { listenToParts, partsWaitFor } from './load-part.ts';

/** Installs the program on the device, and offers a new version when one is there. */
export function NewVersion() {
  const isThere = useSyncExternalStore(listenToVersion, newVersionWaits);
  useEffect(() => void installProgram(), []);
  const filesAreGone = useSyncExternalStore(listenToParts, partsWaitFor) === 'version';
  if (!isThere && !filesAreGone) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-between gap-3 border-b border-lamp-edge bg-lamp px-5 py-2 text-14"
    >
      <span>
        {filesAreGone
          ? 'Lanternwright was updated, and this page can open no other until it is loaded again. Finish what you are typing first.'
          : 'A new version of Lanternwright is here. What waits on this device stays.'}
      </span>
      <Button onClick={() => (isThere ? changeToNewVersion() : window.location.reload())}>Use it now</Button>
    </div>
  );
}
