import { useLayoutEffect, useRef } from 'react';

/** Whether typing goes into a field, so that a letter is a letter there. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

const SEQUENCE_MS = 1_500;

/**
 * Keys of a page: single characters, or two in a row as `g f`. Off while somebody types in a field
 * or holds a modifier, but for those named with it, as `Alt+b`, which work in a field as well. They work as soon as the
 * page is seen, not a moment later.
 */
export function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useLayoutEffect(() => {
    let first = '';
    let at = 0;
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey) return;
      if (e.altKey) {
        // By the key, not the letter: with Alt held, some keyboards write another.
        const held = latest.current[`Alt+${e.code.replace('Key', '').toLowerCase()}`];
        if (held) e.preventDefault();
        return held?.();
      }
      if (isTyping(e.target)) return;
      const pair = `${first} ${e.key}`;
      const action =
        e.timeStamp - at < SEQUENCE_MS && latest.current[pair] ? latest.current[pair] : latest.current[e.key];
      first = e.key;
      at = e.timeStamp;
      if (!action) return;
      e.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
