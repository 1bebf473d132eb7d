import { useAppSelector } from '../store.ts';

/** The lower edge of the band while a page waits for what it has nothing of yet, once that takes long enough to wonder. */
export function BeingFetched() {
  const waits = useAppSelector((s) =>
    Object.values(s.api.queries).some((q) => q?.status === 'pending' && q.data === undefined),
  );
  if (!waits) return null;
  return (
    <div
      role="progressbar"
      aria-label="Being fetched"
      className="absolute inset-x-0 top-full h-1 animate-pulse bg-lamp-edge opacity-0 [animation-delay:400ms] motion-reduce:animate-none motion-reduce:opacity-100"
    />
  );
}
