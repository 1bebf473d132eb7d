import type { Page } from '@playwright/test';

/**
 * Counts what a person does on the pages that are opened from now on: presses of whatever answers one, by key or by
 * finger, and fields that are filled in.
 */
export async function countEffort(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const add = (what: string) =>
      sessionStorage.setItem(what, String(Number(sessionStorage.getItem(what) ?? 0) + 1));
    const is = (target: EventTarget | null, selector: string) =>
      target instanceof Element && target.closest(selector) !== null;
    const pressed = 'button, a, summary, input[type=radio], input[type=checkbox]';
    const filled = 'input:not([type=radio]):not([type=checkbox]), textarea, select';
    addEventListener('click', (e) => is(e.target, pressed) && add('pressed'), true);
    addEventListener('change', (e) => is(e.target, filled) && add('filled'), true);
  });
}

/** Prints what a story took, beside how much it left on record. */
export async function tellEffort(page: Page, story: string, records: number): Promise<void> {
  const counted = await page.evaluate(() =>
    ['pressed', 'filled'].map((what) => Number(sessionStorage.getItem(what) ?? 0)),
  );
  console.log(`${story}: ${counted[0]} presses and ${counted[1]} fields for ${records} records`);
}
