/** Every view fits a phone held upright: nothing is wider than the screen. */
import { expect, test } from './test';
import { planned } from './helpers';

const PATHS = [
  '/plan',
  '/tonight',
  '/sheet/1',
  '/muster',
  '/recipes/dredger?layer=medium',
  '/bench',
  '/stores',
  '/wave',
  '/log',
  '/musters',
];

test('every view fits a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/plan');
  await planned(page);
  for (const path of PATHS) {
    await page.goto(path);
    await expect(page.getByRole('main').getByRole('heading').first()).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide, path).toBeLessThanOrEqual(390);
  }
});
