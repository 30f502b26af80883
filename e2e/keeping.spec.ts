/** What is typed is kept, in every tab, and only what is whole and sound; several musters lie side by side. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { logFileSchema } from '#core/log';
import { fenMuster } from '#demo/fen';
import { expectAccessible, planned, watchErrors } from './helpers';

const kept = (page: Page) => expect(page.getByTestId('keeping')).toHaveText('kept');
const undo = (page: Page) => page.getByRole('button', { name: /^(Undo: |Nothing to undo)/ });
const musterName = (page: Page) => page.getByLabel('This muster');

test('two tabs show one truth: edits come over, undo is shared, the later of two edits of one field holds', async ({
  page,
  context,
}) => {
  const errors = watchErrors(page);
  await page.goto('/muster?unit=herons');
  await expect(page.getByLabel('Unit', { exact: true })).toHaveValue('Heron riders');
  const other = await context.newPage();
  await other.goto('/muster?unit=herons');
  await expect(musterName(other)).toHaveValue('Moth Fair at Candlewick Fen');

  await musterName(page).fill('Reed fair');
  await musterName(page).press('Tab');
  await expect(musterName(other)).toHaveValue('Reed fair');
  await other.getByLabel('Unit', { exact: true }).fill('Grey herons');
  await other.getByLabel('Unit', { exact: true }).press('Tab');
  await expect(page.getByLabel('Unit', { exact: true })).toHaveValue('Grey herons');
  await undo(page).click();
  await expect(other.getByLabel('Unit', { exact: true })).toHaveValue('Heron riders');

  // Both at once, on one field.
  await Promise.all(
    [page, other].map(async (tab, k) => {
      await tab.getByLabel('Unit', { exact: true }).fill(`Herons of tab ${k}`);
      await tab.getByLabel('Unit', { exact: true }).press('Tab');
    }),
  );
  await kept(page);
  await kept(other);
  const value = (tab: Page): Promise<string> => tab.getByLabel('Unit', { exact: true }).inputValue();
  await expect.poll(async () => (await value(page)) === (await value(other))).toBe(true);
  expect(await value(page)).toMatch(/^Herons of tab [01]$/);
  expect(errors).toEqual([]);
});

test('a date is one change once it is whole; a mistyped one is refused at its field and nothing of it kept', async ({
  page,
}) => {
  await page.goto('/muster?unit=herons');
  const table = page.getByLabel('On the table');
  const before = await table.inputValue();
  await table.fill('2077-03-01T12:00');
  await expect(undo(page)).toHaveAttribute('aria-label', 'Nothing to undo');
  await table.blur();
  await expect(
    page.getByText(/lies 50 years after the beginning of the plan.*at most two years/),
  ).toBeVisible();
  await expect(undo(page)).toHaveAttribute('aria-label', 'Nothing to undo');
  await table.press('Escape');
  await expect(table).toHaveValue(before);
  const later = `${Number(before.slice(0, 4)) + 1}${before.slice(4)}`;
  await table.fill(later);
  await table.press('Enter');
  await expect(undo(page)).toHaveAttribute('aria-label', 'Undo: Heron riders: table date');
  await kept(page);
  await page.reload();
  await expect(table).toHaveValue(later);
  await undo(page).click();
  await expect(table).toHaveValue(before);
  await expect(undo(page)).toHaveAttribute('aria-label', 'Nothing to undo');
});

test('the longest name can be copied, and a note without a space pushes nothing apart', async ({ page }) => {
  const muster = fenMuster('2027-03-01');
  const long = 'Ä'.repeat(120);
  const file = {
    ...muster,
    units: muster.units.map((u) => (u.id === 'folk' ? { ...u, name: long } : u)),
    recipes: muster.recipes.map((r) => ({
      ...r,
      layers: r.layers.map((l) => ({ ...l, note: 'x'.repeat(1500) })),
    })),
  };
  await page.goto('/muster');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'long.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(file)),
    });
  await expect(page.getByText('is brought in as a muster of its own')).toBeVisible();
  await page.goto('/muster?unit=folk');
  await page.getByRole('button', { name: 'Duplicate unit' }).click();
  await kept(page);
  await page.reload();
  await expect(page.getByText(`${'Ä'.repeat(118)} 2`)).toBeVisible();
  for (const path of ['/tonight', '/sheet/1', '/muster?unit=folk', '/recipes/reed-folk', '/musters']) {
    await page.goto(path);
    if (path.startsWith('/sheet') || path === '/tonight') await planned(page);
    await expect(page.getByTestId('keeping')).toBeVisible();
    const wide = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(wide, path).toBeLessThanOrEqual(0);
  }
});

test('several musters lie side by side, go to the archive and the bin, and come back', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/musters');
  await page.getByRole('button', { name: 'New, empty' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'in hand' })).toContainText('New muster');
  await page.goto('/muster');
  await musterName(page).fill('Own quay');
  await musterName(page).press('Tab');
  await page.getByRole('button', { name: 'Add the first unit' }).click();
  await kept(page);
  await page.goto('/musters');
  const own = page.getByRole('listitem').filter({ hasText: 'Own quay' });
  const demo = page.getByRole('listitem').filter({ hasText: 'Moth Fair' });
  await expect(own).toContainText('in hand');
  await expectAccessible(page);

  await own.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Own quay, copy' })).toContainText('in hand');
  await demo.getByRole('button', { name: 'Archive' }).click();
  await demo.getByRole('button', { name: 'Out of the archive' }).click();
  await demo.getByRole('button', { name: 'To the bin' }).click();
  await demo.getByRole('button', { name: 'Back from the bin' }).click();
  await demo.getByRole('button', { name: 'Open' }).click();
  await expect(page).toHaveURL(/\/muster$/);
  await expect(page.getByRole('button', { name: /Heron riders/ })).toBeVisible();
  // The other has its own history: nothing of it is undone here.
  await expect(undo(page)).toHaveAttribute('aria-label', 'Nothing to undo');

  await page.goto('/musters');
  const copy = page.getByRole('listitem').filter({ hasText: 'Own quay, copy' });
  await copy.getByRole('button', { name: 'To the bin' }).click();
  await copy.getByRole('button', { name: 'Delete for good…' }).click();
  await copy.getByRole('button', { name: 'Yes, delete for good' }).click();
  await expect(copy).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('listitem').filter({ hasText: 'Own quay' })).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('a level that leaves off the layer at which parts join is planned all the same', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/muster?unit=patience');
  await planned(page);
  await page.getByLabel('Finished to').selectOption({ label: 'level 1, table-ready' });
  await kept(page);
  await expect(page.getByTestId('plan-word')).toHaveText(/planning|planned/);
  await planned(page);
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByRole('button', { name: /^(▸ ?|▾ ?)?Dredger/ })).toBeVisible();
  await expect(page.getByText(/failed|Cannot read/)).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('the log says what was done when its recipe is gone, and a Done in two tabs counts once', async ({
  page,
  context,
}) => {
  const errors = watchErrors(page);
  await page.goto('/tonight');
  await planned(page);
  const other = await context.newPage();
  await other.goto('/tonight');
  await planned(other);
  const done = (tab: Page) => tab.getByRole('button', { name: /^Done/ }).click();
  const progress = (tab: Page): Promise<string> => tab.getByTestId('progress').innerText();
  const before = await progress(page);
  await Promise.all([done(page), done(other)]);
  await expect.poll(() => progress(page)).not.toBe(before);
  await expect.poll(async () => (await progress(page)) === (await progress(other))).toBe(true);
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away (JSON)' }).click(),
  ]);
  const log = logFileSchema.parse(JSON.parse(readFileSync(await file.path(), 'utf8'))).entries;
  const steps = log.flatMap((e) => (e.kind === 'done' ? [e.step] : []));
  expect(steps.length).toBeGreaterThan(0);
  expect(new Set(steps).size).toBe(steps.length);

  const entry = page.getByRole('listitem').filter({ hasText: 'done' }).first();
  const text = (await entry.innerText()).replace(/\s+/g, ' ');
  await page.goto('/musters');
  await page.goto('/recipes');
  for (let k = 0; k < 14; k++) {
    const remove = page.getByRole('button', { name: 'Delete recipe' });
    if ((await remove.count()) === 0) break;
    await remove.click();
    await kept(page);
  }
  await page.goto('/log');
  await expect(entry).toContainText(/:/);
  expect((await entry.innerText()).replace(/\s+/g, ' ').slice(0, 40)).toBe(text.slice(0, 40));
  await expect(page.getByRole('heading', { name: 'Cards: how each piece was made' })).toBeVisible();
  expect(errors).toEqual([]);
});
