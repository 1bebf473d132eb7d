import { expect, type Locator, type Page } from '@playwright/test';

const MOST_TABS = 90;

/** Presses Tab until something has the focus. */
export async function tabTo(wanted: Locator): Promise<void> {
  await expect(wanted).toBeVisible();
  const page = wanted.page();
  for (let i = 0; i < MOST_TABS; i++) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`${wanted.toString()} is not reached by Tab`);
}

/** Fills a form's fields by their labels, with no hand at a mouse: text, dates, choices, ticks. */
export async function typeIn(
  part: Page | Locator,
  fields: readonly (readonly [label: string | RegExp, text: string])[],
): Promise<void> {
  for (const [label, text] of fields) {
    const field = part.getByLabel(label, { exact: typeof label === 'string' }).first();
    await tabTo(field);
    const keyboard = field.page().keyboard;
    const kind = await field.evaluate((e) => (e instanceof HTMLInputElement ? e.type : e.tagName));
    if (kind === 'checkbox') await keyboard.press('Space');
    else if (kind === 'date') {
      const [year, month, day] = text.split('-');
      await keyboard.type(`${month}${day}${year}`);
    } else {
      if (kind !== 'SELECT' && kind !== 'time') await keyboard.press('Control+a');
      await keyboard.type(text);
    }
  }
}

/** Comes to a button or a link by Tab and presses it; the focus does not fall to the page by that. */
export async function press(button: Locator): Promise<void> {
  await tabTo(button);
  const page = button.page();
  await page.keyboard.press('Enter');
  await expect
    .poll(() => page.evaluate(() => document.activeElement?.tagName ?? 'BODY'), {
      message: 'what has the focus',
    })
    .not.toBe('BODY');
}
