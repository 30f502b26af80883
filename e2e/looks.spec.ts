/** How it will look: colour through the stack, what becomes of effects, test cards, and cures that edit the muster. */
import { expect, test } from './test';
import { expectAccessible, watchErrors } from './helpers';

test('a recipe shows what it will look like layer by layer, and brings a lost effect back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/recipes/dredger?demo');
  const look = page.locator('pm-look-panel');
  await expect(look.getByRole('heading', { name: 'When all is done' })).toBeVisible();
  const block = look.getByRole('img');
  const done = await block.getAttribute('aria-label');
  // The bare primer is another picture than the finished hull.
  await look.getByLabel('Layer by layer, from the bare model up').fill('2');
  await expect(look.getByRole('heading', { name: 'After “Black primer”' })).toBeVisible();
  expect(await block.getAttribute('aria-label')).not.toBe(done);
  await look.getByLabel('Layer by layer, from the bare model up').press('End');
  await expect(block).toHaveAttribute('aria-label', done!);
  await expectAccessible(page);

  const streaks = look.getByRole('listitem').filter({ hasText: 'Rust streaks' });
  const atEnd = async (): Promise<number> => {
    const words = await streaks.innerText();
    return Number(/(\d+) at the end/.exec(words)![1]);
  };
  const before = await atEnd();
  await expect(streaks).toContainText('Eaten by');
  await streaks.getByRole('button', { name: 'Take it stronger now' }).click();
  await expect.poll(atEnd).toBeGreaterThan(before);
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect.poll(atEnd).toBe(before);

  // Another zone, and another recipe beside it.
  await look.getByLabel('Looked at').selectOption({ label: 'Fittings' });
  await expect(look).toContainText('Graphite on worn edges');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByLabel('Compare with').selectOption({ label: 'Punt, green over tar' });
  await expect(page.locator('pm-recipe-compare').getByRole('img')).toHaveCount(2);

  // How much a layer covers is said at the layer, and changes the picture.
  await look.getByLabel('Looked at').selectOption({ label: 'Sides' });
  const hull = await block.getAttribute('aria-label');
  await page.getByRole('button', { name: /^Layer 18, Silt powder/ }).click();
  await page.getByText('What else it can be').click();
  await page.getByLabel('Covers').selectOption({ label: 'edges and raised parts' });
  await page.getByRole('button', { name: /^Layer 18, Silt powder/ }).click();
  await expect(block).not.toHaveAttribute('aria-label', hull!);
  expect(errors).toEqual([]);
});

test('a test card corrects how a product covers', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/recipes/dredger?demo');
  const block = page.locator('pm-look-panel').getByRole('img');
  const nominal = await block.getAttribute('aria-label');
  await page.goto('/stores');
  await page.getByRole('button', { name: /^cream:/ }).click();
  const card = page.locator('pm-test-card');
  // A picture drawn here: one coat over white and over black that only tints.
  const picture = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    canvas.width = 800;
    canvas.height = 500;
    const pen = canvas.getContext('2d')!;
    const fields: [string, number, number, number, number][] = [
      ['#f6f4ee', 0, 0, 400, 500],
      ['#1c1b1a', 400, 0, 400, 500],
      ['#e8dfc6', 50, 150, 350, 200],
      ['#6d6857', 400, 150, 350, 200],
    ];
    for (const [colour, ...box] of fields) {
      pen.fillStyle = colour;
      pen.fillRect(...box);
    }
    return canvas.toDataURL('image/png').split(',')[1]!;
  });
  await card.locator('input[type=file]').setInputFiles({
    name: 'card.png',
    mimeType: 'image/png',
    buffer: Buffer.from(picture, 'base64'),
  });
  const canvas = card.locator('canvas');
  await expect(card.getByText('Touch the bare white.')).toBeVisible();
  const box = (await canvas.boundingBox())!;
  for (const [x, y, next] of [
    [0.25, 0.1, 'Touch the bare black.'],
    [0.75, 0.1, 'Touch the paint over white.'],
    [0.25, 0.5, 'Touch the paint over black.'],
    [0.75, 0.5, 'One coat is a tint'],
  ] as const) {
    await canvas.click({ position: { x: box.width * x, y: box.height * y } });
    await expect(card).toContainText(next);
  }
  await expect(card.getByLabel('paint over black')).toHaveValue('#6d6857');
  await expectAccessible(page);
  await page.goto('/recipes/dredger');
  await expect(page.locator('pm-look-panel')).toContainText('by your own test cards');
  await expect(block).not.toHaveAttribute('aria-label', nominal!);

  // What is no picture is told, and the card can be forgotten.
  await page.goto('/stores');
  await page.getByRole('button', { name: /^cream:/ }).click();
  await card
    .locator('input[type=file]')
    .setInputFiles({ name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(card.getByRole('alert')).toContainText('no picture');
  await card.getByRole('button', { name: 'Forget the card' }).click();
  await expect(card.getByRole('button', { name: 'Give the four colours by hand' })).toBeVisible();
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await page
    .getByRole('navigation', { name: 'Recipes' })
    .getByRole('link', { name: /^Dredger hull/ })
    .click();
  await expect(page.locator('pm-look-panel')).toContainText('none of them measured');
  await expect(block).toHaveAttribute('aria-label', nominal!);
  await expect(page.getByText('kept', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.locator('pm-look-panel')).toContainText('none of them measured');
  expect(errors).toEqual([]);
});

test('copies are varied by one press, and wishes against one another are cured by one', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/muster?demo');
  await page
    .getByRole('button', { name: /^Reed folk/ })
    .first()
    .click();
  const aside = page.locator('aside');
  await expect(aside).toContainText('they will look like copies');
  await aside.getByRole('button', { name: /^Deal “/ }).click();
  await expect(aside).not.toContainText('they will look like copies');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(aside).toContainText('they will look like copies');

  await page.goto('/recipes');
  await page.getByRole('button', { name: 'New recipe' }).click();
  const diff = page.getByRole('region', { name: 'What it would change' });
  await page.getByRole('button', { name: 'Metal: normal', exact: true }).click();
  await expect(diff.getByRole('img')).toHaveCount(2);
  await diff.getByRole('button', { name: 'Compose' }).click();
  await expect(page.getByText('a matt coat over metal makes it grey paint')).toBeVisible();
  await page.getByRole('button', { name: 'End whole piece satin' }).click();
  await expect(page.getByText('a matt coat over metal makes it grey paint')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /Last satin coat/ })).toBeVisible();
  expect(errors).toEqual([]);
});
