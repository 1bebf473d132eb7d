import { useEffect, useState } from 'react';

const ASK_MS = 120;

/** What somebody typed, once they pause. */
export function usePaused(text: string): string {
  const [paused, setPaused] = useState(text);
  useEffect(() => {
    const later = setTimeout(() => setPaused(text), ASK_MS);
    return () => clearTimeout(later);
  }, [text]);
  return paused;
}
