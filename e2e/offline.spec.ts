/** The app away from its server: all other browser tests go without the service worker, which reads every file as it begins. */
import { expect, test } from './test';

test.use({ serviceWorkers: 'allow' });

test('works offline after the first load', async ({ page, context }) => {
  await page.goto('/muster');
  // Ready is when every file that the worker is to keep lies in its caches.
  await expect
    .poll(
      () =>
        page.evaluate(async () => {
          await navigator.serviceWorker.ready;
          const { assetGroups } = (await (await fetch('/ngsw.json?ngsw-bypass=1')).json()) as {
            assetGroups: { urls: string[] }[];
          };
          const kept = await Promise.all(assetGroups.flatMap((g) => g.urls).map((url) => caches.match(url)));
          return kept.filter((k) => k === undefined).length;
        }),
      { timeout: 60_000 },
    )
    .toBe(0);
  await page.reload();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('button', { name: /Heron riders/ })).toBeVisible();
});
