/** Describing what stands on the shelf: kits, late parts, versions of a recipe, two recipes side by side. */
import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { expectAccessible, planned, replanned, watchErrors } from './helpers';

test('a kit made of a unit gives the next one, and what is forgotten is told before the last coat', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/muster?unit=patience');
  await planned(page);
  await replanned(page, async () => {
    await page.getByLabel('More of it, commas between').fill('Lamps, port handle');
    await page.getByRole('button', { name: 'Note', exact: true }).click();
  });
  await expect(page.getByRole('list', { name: 'Easily forgotten' }).getByRole('listitem')).toHaveText([
    /Lamps/,
    /port handle/,
  ]);
  await page.getByRole('button', { name: 'Make a kit of it' }).click();
  await replanned(page, async () => {
    await page.getByLabel('From a kit').selectOption({ index: 1 });
  });
  await expect(page.getByLabel('Unit', { exact: true })).toHaveValue(/Old Patience.* 2/);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Delete unit' }).click();
  // Somewhere among the sheets stands the list, where the last coat of a part goes on.
  await page.getByRole('link', { name: 'Run sheet', exact: true }).click();
  const told = page.getByTestId('look-over').first();
  for (let k = 0; k < 30 && !(await told.isVisible()); k++)
    await page.getByRole('link', { name: 'Next session →' }).click();
  await expect(told).toContainText('Lamps · port handle');
  expect(errors).toEqual([]);
});

test('a part that is glued late is a step of the plan', async ({ page }) => {
  await page.goto('/muster?unit=market');
  await planned(page);
  await replanned(page, async () => {
    await page.getByLabel(/^More pieces/).fill('signboard, crow’s nest late');
    await page.getByLabel(/^More pieces/).press('Enter');
  });
  await page.getByRole('button', { name: /^Crow’s nest/ }).click();
  await expect(page.getByLabel('Is joined to')).toHaveValue('quay');
  await expect(page.getByLabel('Glued on then, as a step of the plan')).toBeChecked();
  await page.goto('/plan');
  await planned(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away as table' }).click(),
  ]);
  const rows = readFileSync(await file.path(), 'utf8').split('\r\n');
  const glued = rows.filter((row) => row.includes('Glue on, hold'));
  expect(glued).toHaveLength(1);
  expect(glued[0]).toContain('Crow’s nest');
});

test('a version of a recipe is for some of its pieces, and stands beside the first', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/recipes/stall');
  await page.getByText('A version for some of them').click();
  await page.getByRole('checkbox', { name: /^Net stall/ }).check();
  await page.getByRole('button', { name: 'Make a version for 1 piece' }).click();
  await expect(page.getByRole('heading', { name: 'Eel stall 2' })).toBeVisible();
  await page.getByRole('button', { name: /^Layer 9/ }).click();
  await page.getByRole('button', { name: 'Put a layer in above this' }).click();
  await expect(page.getByRole('button', { name: /^Layer 10, New layer/ })).toBeVisible();
  await page.getByRole('button', { name: /^Layer 10, New layer/ }).click();
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByLabel('Compare with').selectOption('Eel stall');
  await expect(page.getByText(/^10 and 9 layers/)).toBeVisible();
  await expect(page.getByRole('row', { name: 'New layer —' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Eel stall', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Layer 9/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Layer 10/ })).toHaveCount(0);

  await page.getByRole('button', { name: 'From the library' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Base with clear water/ }).click();
  await expect(page.getByRole('heading', { name: 'Base with clear water' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('words of the bench are explained where they stand', async ({ page }) => {
  await page.goto('/plan');
  await planned(page);
  await page.getByRole('button', { name: 'gate?' }).click();
  await expect(page.getByText(/^The time in which the next layer must go on/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^The time in which the next layer must go on/)).toBeHidden();
});

test('an optional layer is left off one piece and heavy on another', async ({ page }) => {
  await page.goto('/recipes/stall?layer=chips');
  const name = await page.getByLabel('Name', { exact: true }).inputValue();
  await page.getByText('What else it can be').click();
  await page.getByLabel(/^Optional: a piece may go without it/).check();
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.goto('/muster?unit=market');
  await planned(page);
  await page.getByRole('button', { name: /^Net stall/ }).click();
  await page.getByLabel(name, { exact: true }).selectOption('not on this piece');
  await page.getByRole('button', { name: /^Lamp stall/ }).click();
  await replanned(page, async () => {
    await page.getByLabel(name, { exact: true }).selectOption('heavy');
  });
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.goto('/plan');
  await planned(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away as table' }).click(),
  ]);
  const rows = readFileSync(await file.path(), 'utf8').split('\r\n');
  const of = (piece: string): string[] => rows.filter((r) => r.includes(piece) && r.includes(name));
  expect([of('Net stall').length, of('Smoke stall').length]).toEqual([0, 1]);
  expect(of('Lamp stall')[0]).toContain(`${name}, heavy`);
});
