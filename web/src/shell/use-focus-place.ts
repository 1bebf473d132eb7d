import { useEffect } from 'react';

const PLACES = 'form, li, fieldset, section, aside, nav, [role=dialog], main';

/** The nearest place round something that is no longer there; the page itself where none of them is left either. */
const placeOf = (around: readonly Element[]) =>
  around.find((place) => place.isConnected) ?? document.querySelector('main');

/**
 * Where what has the focus goes away, as a form that is closed or a page that is left, the focus goes to the nearest
 * place round it, and not to the top of everything.
 */
export function useFocusPlace(): void {
  useEffect(() => {
    let last: Element | null = null;
    let around: Element[] = [];
    const note = ({ target }: FocusEvent) => {
      last = target as Element;
      around = [];
      for (let place = last.parentElement; place; place = place.parentElement)
        if (place.matches(PLACES)) around.push(place);
    };
    const gone = new MutationObserver(() => {
      if (!last || last.isConnected || document.activeElement !== document.body) return;
      const place = placeOf(around);
      if (!(place instanceof HTMLElement)) return;
      if (!place.hasAttribute('tabindex')) place.tabIndex = -1;
      place.focus({ preventScroll: true });
    });
    document.addEventListener('focusin', note);
    gone.observe(document.body, { childList: true, subtree: true });
    return () => {
      document.removeEventListener('focusin', note);
      gone.disconnect();
    };
  }, []);
}
