import { useEffect } from 'react';
import { NavigationType, useLocation, useNavigationType } from 'react-router';

const key = (path: string) => `lanternwright.place.${path}`;
/** How long a page may take until what was looked at is drawn again. */
const DRAWN_MS = 3_000;
const OWN_MOVES = ['wheel', 'touchstart', 'pointerdown', 'keydown'] as const;

/**
 * A page opens at its top. Whoever comes back to one by the browser's own back finds it where they left it, also where
 * it is drawn bit by bit.
 */
export function useScrollPlace(): void {
  const { pathname, search } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  const path = pathname + search;
  useEffect(() => {
    const note = () => sessionStorage.setItem(key(path), String(window.scrollY));
    window.addEventListener('scroll', note, { passive: true });
    return () => window.removeEventListener('scroll', note);
  }, [path]);
  // Not by what is chosen on a page: that leaves it where it stands.
  useEffect(() => {
    const place = back ? Number(sessionStorage.getItem(key(path))) : 0;
    window.scrollTo(0, place);
    if (place === 0) return undefined;
    const growing = new ResizeObserver(() => window.scrollTo(0, place));
    growing.observe(document.body);
    const stop = () => growing.disconnect();
    const late = setTimeout(stop, DRAWN_MS);
    for (const move of OWN_MOVES) window.addEventListener(move, stop);
    return () => {
      stop();
      clearTimeout(late);
      for (const move of OWN_MOVES) window.removeEventListener(move, stop);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only where the page itself changes
  }, [pathname]);
}
