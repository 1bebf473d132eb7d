import { useRef, type KeyboardEvent, type MouseEvent } from 'react';

/**
 * Handlers that keep a double tap, or an Enter that is held, from doing the next step as well: what began
 * before a step was on screen does not count for it.
 */
export function useFresh() {
  const fresh = useRef(true);
  return {
    onClickCapture(e: MouseEvent) {
      // A click made by a key has no detail; a tap counts its taps.
      if (e.detail > 1 && fresh.current) {
        e.preventDefault();
        e.stopPropagation();
      } else if (e.detail === 1) fresh.current = false;
    },
    onKeyDownCapture(e: KeyboardEvent) {
      if (e.repeat && fresh.current && (e.key === 'Enter' || e.key === ' ')) {
        e.preventDefault();
        e.stopPropagation();
      } else if (!e.repeat) fresh.current = false;
    },
  };
}
