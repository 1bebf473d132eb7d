import { createContext, useContext, useState, type Dispatch, type SetStateAction } from 'react';

const KEPT = 'lanternwright.draft.';
const Scope = createContext<string | null>(null);

/** What is typed below is kept in this tab under this name, until it is recorded. */
export const DraftScope = Scope.Provider;

/**
 * State of a field that outlives a reload: what was typed and not yet recorded is there again.
 * @param name of the field, once in its scope; the value must be plain data
 */
export function useDraft<T>(name: string, initial: T | (() => T)): [T, Dispatch<SetStateAction<T>>] {
  const scope = useContext(Scope);
  const key = scope === null ? null : `${KEPT}${scope}/${name}`;
  const [value, setValue] = useState<T>(() => {
    const kept = key === null ? null : sessionStorage.getItem(key);
    if (kept !== null) return JSON.parse(kept) as T;
    return initial instanceof Function ? initial() : initial;
  });
  const set = (next: SetStateAction<T>) =>
    setValue((before) => {
      const after = next instanceof Function ? next(before) : next;
      if (key !== null) sessionStorage.setItem(key, JSON.stringify(after));
      return after;
    });
  return [value, set];
}

/** Forgets what was typed in a scope: it is recorded now. */
export function forgetDrafts(scope: string): void {
  for (const key of Object.keys(sessionStorage)) {
    if (key.startsWith(`${KEPT}${scope}/`)) sessionStorage.removeItem(key);
  }
}
