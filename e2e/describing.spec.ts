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
    await page.getByRole('button', { name: 'Kits' }).click();
    await page.getByRole('menuitem', { name: /^Another/ }).click();
  });
  await expect(page.getByLabel('Unit', { exact: true })).toHaveValue(/Old Patience.* 2/);
  await expectAccessible(page);
  // What lies in the box came along: the sheet of markings that is its own.
  await page.goto('/stores');
  await expect(
    page
      .getByLabel('For', { exact: true })
      .locator('option:checked')
      .filter({ hasText: /Old Patience.* 2/ }),
  ).toHaveCount(1);
  // A kit that is forgotten leaves its units standing, and comes back by undo.
  await page.goto('/muster');
  await page.getByRole('button', { name: 'Kits' }).click();
  await expectAccessible(page);
  await page.getByRole('menuitem', { name: /^Forget/ }).click();
  await expect(page.getByRole('button', { name: 'Kits' })).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Kits' })).toBeVisible();
  await page.getByRole('button', { name: /Old Patience” 2/ }).click();
  await page.getByRole('button', { name: 'Delete unit' }).click();
  // Somewhere among the sheets stands the list, where the last coat of a part goes on.
  await page.getByRole('link', { name: 'Run sheet', exact: true }).click();
  const told = page.getByTestId('look-over').filter({ hasText: 'Lamps · port handle' }).first();
  for (let k = 0; k < 30 && !(await told.isVisible()); k++)
    await page.getByRole('link', { name: 'Next session →' }).click();
  await expect(told).toBeVisible();
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
  // What is chosen is for the piece that is open: it must have opened.
  const opened = page.getByLabel('Piece or tray', { exact: true });
  await page.getByRole('button', { name: /^Net stall/ }).click();
  await expect(opened).toHaveValue('Net stall');
  await page.getByLabel(name, { exact: true }).selectOption('not on this piece');
  await page.getByRole('button', { name: /^Lamp stall/ }).click();
  await expect(opened).toHaveValue('Lamp stall');
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

test('pieces are dragged to another place and onto another unit, one or all that are chosen; keys do the first too', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/muster?unit=punts');
  const list = page.getByRole('list', { name: 'Pieces' });
  const names = async (): Promise<string[]> =>
    (await list.getByRole('listitem').locator('strong').allInnerTexts()).map((n) => n.trim());
  await expect(list.getByRole('listitem')).toHaveCount(12);
  const before = await names();
  const [first, , , , fifth, sixth] = before as [string, string, string, string, string, string];
  const handle = (name: string) =>
    list.getByRole('listitem').filter({ hasText: name }).locator('.cdk-drag-handle');
  const drag = async (name: string, x: number, y: number): Promise<void> => {
    await handle(name).scrollIntoViewIfNeeded();
    const from = (await handle(name).boundingBox())!;
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(from.x, from.y + 12, { steps: 4 });
    await page.mouse.move(x, y, { steps: 12 });
    await page.mouse.up();
  };
  await list.getByRole('listitem').nth(2).scrollIntoViewIfNeeded();
  const third = (await list.getByRole('listitem').nth(2).boundingBox())!;
  await drag(first, third.x + 60, third.y + third.height - 6);
  await expect.poll(names).toEqual([before[1], before[2], before[0], ...before.slice(3)]);
  await list.getByRole('button', { name: first }).press('Alt+ArrowUp');
  await expect.poll(names).toEqual([before[1], before[0], before[2], ...before.slice(3)]);
  await expect(list.getByRole('button', { name: first })).toBeFocused();

  await page.getByRole('checkbox', { name: `Choose ${fifth}` }).check();
  await page.getByRole('checkbox', { name: `Choose ${sixth}` }).check();
  const ferry = page.getByRole('button', { name: /^Reed folk/ });
  const row = (await ferry.boundingBox())!;
  await drag(sixth, row.x + 200, row.y + row.height / 2);
  await expect.poll(async () => (await names()).length).toBe(10);
  await ferry.click();
  await expect(list.getByRole('listitem').filter({ hasText: fifth })).toHaveCount(1);
  await expect(list.getByRole('listitem').filter({ hasText: sixth })).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('a change of a recipe that several follow asks for whom it holds', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/recipes/stall');
  await page.getByRole('button', { name: /^Layer 9/ }).click();
  const note = page.getByLabel('Hands, a piece and coat');
  const was = await note.inputValue();
  await note.fill('33');
  await note.press('Tab');
  const asked = page.getByRole('region', { name: 'For whom the change holds' });
  await expect(asked).toContainText('holds for all');
  await asked.getByRole('button', { name: 'Only for some…' }).click();
  await asked.getByRole('checkbox', { name: /^Net stall/ }).check();
  await expectAccessible(page);
  await asked.getByRole('button', { name: 'Only for 1 piece' }).click();
  await expect(page.getByRole('heading', { name: 'Eel stall 2' })).toBeVisible();
  await page.getByRole('button', { name: /^Layer 9/ }).click();
  await expect(note).toHaveValue('33');
  await page.goto('/recipes/stall');
  await page.getByRole('button', { name: /^Layer 9/ }).click();
  await expect(note).toHaveValue(was);
  await expect(asked).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('recipes and the shelf are narrowed by words and put in order', async ({ page }) => {
  await page.goto('/recipes');
  const recipes = page.getByRole('navigation', { name: 'Recipes' });
  await expect(recipes.getByRole('link').first()).toBeVisible();
  const all = await recipes.getByRole('link').count();
  await recipes.getByLabel('Find').fill('crackle');
  await expect(recipes.getByText('None is called so.').or(recipes.getByRole('link')).first()).toBeVisible();
  expect(await recipes.getByRole('link').count()).toBeLessThan(all);
  await recipes.getByLabel('Find').fill('');
  await recipes.getByLabel('Order').selectOption('by name');
  const names = (await recipes.getByRole('link').allInnerTexts()).map((n) => n.trim());
  expect(names).toHaveLength(all);
  expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));

  await page.goto('/stores');
  await planned(page);
  const shelf = page.getByRole('region', { name: 'The shelf' });
  await shelf.getByLabel('Find a product or family').fill('varnish');
  await expect(shelf.getByRole('status')).toContainText(/^\s*\d+ of \d+ on the shelf/);
  await expect(page.getByRole('link', { name: /ml/ }).first()).toBeVisible();
});
