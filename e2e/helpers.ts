import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Waits until the whole planning run is over. */
export async function planned(page: Page): Promise<void> {
  await expect(page.getByText('planned', { exact: true })).toBeVisible({ timeout: 90_000 });
}

/** WCAG 2.2 A and AA by axe, for the view as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  // The deeds at the foot of the bench cover what is scrolled under them; at the end of the page they stand in their own place.
  if ((await page.locator('.deeds').count()) > 0)
    await page.evaluate(() => window.scrollTo(0, document.documentElement.scrollHeight));
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    violations.map(
      (v) =>
        `${v.id}: ${v.nodes
          .map((n) => n.target.join(' '))
          .slice(0, 3)
          .join(', ')}`,
    ),
  ).toEqual([]);
}

/** Fails the test on any error in the page or on its console. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  page.on('console', (m) => {
    if (m.type() === 'error') errors.push(m.text());
  });
  return errors;
}

/** Does what makes the rest be planned again, and waits until that has been done. */
export async function replanned(page: Page, act: () => Promise<void>): Promise<void> {
  const ended = async (): Promise<number> =>
    Number(await page.getByTestId('plan-word').getAttribute('data-ended'));
  const before = await ended();
  await act();
  await expect.poll(ended, { timeout: 90_000 }).toBeGreaterThan(before);
  await planned(page);
}

/**
 * Waits for a plan in which all units are on time. Beside much other work the seconds of one search may not do: then it is searched longer,
 * as the user would.
 */
export async function plannedOnTime(page: Page): Promise<void> {
  const onTime = page.getByText(/all \d+ units on time/);
  await planned(page);
  for (let k = 0; k < 4 && !(await onTime.isVisible()); k++)
    await replanned(page, () => page.getByRole('button', { name: 'Search 30 s longer' }).click());
  await expect(onTime).toBeVisible();
}
