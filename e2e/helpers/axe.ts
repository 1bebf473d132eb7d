import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** The step a technician works on. */
export const stepPart = 'section[aria-label="Step at hand"]';

/** No fault that axe finds, on the whole page or on the part that a selector names. */
export async function axe(page: Page, where: string, part?: string): Promise<void> {
  const whole = new AxeBuilder({ page });
  const { violations } = await (part ? whole.include(part) : whole).analyze();
  expect(
    violations.map(
      (v) => `${where}: ${v.id} ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`,
    ),
  ).toEqual([]);
}
