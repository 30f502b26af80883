/** Composing a recipe: from wishes to a stack, its diff before it is done, by hand afterwards, and schools that mean something. */
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { expectAccessible, watchErrors } from './helpers';

const layers = (page: Page): Promise<string[]> =>
  page
    .getByRole('list', { name: 'Layers, the top one first' })
    .getByRole('listitem')
    .locator('strong.leading-tight')
    .allInnerTexts();

test('a finish is wished for, composed, edited by hand, and composed again around the hand’s work', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/recipes');
  await page.getByRole('button', { name: 'New recipe' }).click();
  await expect.poll(() => layers(page)).toEqual(['Last matt coat', 'Base colour ×2', 'Grey primer']);
  const wish = (name: string) => page.getByRole('button', { name, exact: true });
  await wish('Chipped, showing beneath: normal').click();
  await wish('Lines and recesses: normal').click();
  const diff = page.getByRole('region', { name: 'What it would change' });
  await expect(diff).toContainText('Chipping medium');
  await expect(diff).toContainText('Satin coat, keeps the thinner off');
  await expectAccessible(page);
  // Looked at, it is not done yet.
  expect(await layers(page)).toHaveLength(3);
  await diff.getByRole('button', { name: 'Compose' }).click();
  await expect
    .poll(() => layers(page))
    .toEqual([
      'Last matt coat',
      'Wipe: line wash',
      'Line wash',
      'Satin coat, keeps the thinner off ×2',
      'Moisten and lift chips',
      'Base colour ×2',
      'Chipping medium ×2',
      'Satin coat, lifting stops here',
      'What shows beneath, broken in tone ×2',
      'Grey primer',
    ]);
  await expect(page.getByText('breaks', { exact: true })).toHaveCount(0);

  // Edited by hand, it stays so when another wish comes and goes.
  await page.getByRole('button', { name: /^Layer 8, Line wash/ }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tar in the corners');
  await page.getByLabel('Name', { exact: true }).press('Tab');
  await page.getByRole('button', { name: /^Layer 8, Tar in the corners/ }).click();
  await wish('Dust: trace').click();
  await expect(diff).toContainText('Kept as your hand made them: Tar in the corners');
  await diff.getByRole('button', { name: 'Compose' }).click();
  await expect.poll(() => layers(page)).toContain('Tar in the corners');
  await wish('Dust: trace').click();
  await expect(diff).toContainText('Dust, powder with fixer');
  await diff.getByRole('button', { name: 'Leave it as it is' }).click();
  await expect(diff).toHaveCount(0);

  // A school is looked at before it is chosen.
  await page.getByText('Schools', { exact: true }).click();
  await page.getByLabel('Washes', { exact: true }).selectOption({ label: 'acrylic' });
  await expect(diff).toContainText('Wipe: line wash');
  await diff.getByRole('button', { name: 'Choose it' }).click();
  await expect.poll(() => layers(page)).not.toContain('Wipe: line wash');
  await expect(page.getByLabel('Washes', { exact: true })).toHaveValue('acrylic');
  expect(errors).toEqual([]);
});

test('a mixture is made of products: it is called as they are, tried on scrap, and told at the bench', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/recipes');
  await page.getByRole('link', { name: 'Reed folk, wet boots' }).click();
  await page
    .getByRole('button', { name: /Grey primer/ })
    .first()
    .click();
  const loaded = page.getByLabel(/^As it is loaded/);
  await page.getByRole('button', { name: 'One part more' }).click();
  await expect(loaded).toHaveValue('grey primer, acrylic thinner 1:1');
  await page.getByText('What else it can be').click();
  await page.getByLabel(/^Judged how/).fill('against the left door');
  await page.getByLabel(/^Judged how/).press('Enter');
  await page.getByLabel(/^Done for the first time/).check();
  await page.getByRole('button', { name: /^Try it on scrap before/ }).click();
  await expect(page.getByRole('button', { name: /^Try it on scrap before/ })).toHaveCount(0);
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Stores' }).click();
  await page.getByRole('button', { name: /^grey primer:/ }).click();
  await page.getByLabel('Name, as mixtures call it').fill('Storm primer');
  await page.getByLabel('Name, as mixtures call it').press('Enter');
  await page.getByLabel('Would you take it again?').selectOption('with care');
  await page.getByRole('button', { name: 'One that may' }).click();
  await expect(page.getByLabel('Part 1')).toBeVisible();

  await page.getByRole('link', { name: 'Recipes' }).click();
  await page.getByRole('link', { name: 'Reed folk, wet boots' }).click();
  await page
    .getByRole('button', { name: /Grey primer/ })
    .first()
    .click();
  await expect(loaded).toHaveValue('Storm primer, acrylic thinner 1:1');
  await page.reload();
  await page.getByRole('link', { name: 'Reed folk, wet boots' }).click();
  await page
    .getByRole('button', { name: /Grey primer/ })
    .first()
    .click();
  await expect(loaded).toHaveValue('Storm primer, acrylic thinner 1:1');
  expect(errors).toEqual([]);
});
