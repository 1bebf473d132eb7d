import { useCallback, useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { Button } from '../ui/button.tsx';
import { sendWaiting } from './outbox.ts';
import { sendPhotos } from './photo-queue.ts';

const RETRY_MS = 3_000;

/** Says what waits to be sent while the network is gone, and keeps trying. */
export function OutboxBar() {
  const dispatch = useAppDispatch();
  const { waiting, offline } = useAppSelector((s) => s.outbox);
  const photos = useAppSelector((s) => s.photoQueue.waiting.length);
  const count = waiting.length + photos;
  const sendAll = useCallback(() => {
    void dispatch(sendWaiting());
    void dispatch(sendPhotos());
  }, [dispatch]);
  useEffect(() => {
    if (count === 0) return;
    const timer = setInterval(sendAll, RETRY_MS);
    window.addEventListener('online', sendAll);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', sendAll);
    };
  }, [count, sendAll]);
  if (!offline || count === 0) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-between gap-3 border-b border-lamp-edge bg-lamp px-5 py-2 text-14"
    >
      <span>
        The server cannot be reached. {count} {count === 1 ? 'record waits' : 'records wait'} on this device
        and will be sent by itself.
      </span>
      <Button onClick={sendAll}>Try now</Button>
    </div>
  );
}
