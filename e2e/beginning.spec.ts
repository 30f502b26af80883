/** A browser that has kept nothing: from empty to a first own plan, and all the ways there. */
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, planned, plannedOnTime, watchErrors } from './helpers';

const MOST_ACTIONS = 40;
const MOST_SECONDS = 180;

/** A person who presses and types, and counts it. */
class Counting {
  actions = 0;
  constructor(private readonly page: Page) {}
  async press(name: string | RegExp): Promise<void> {
    this.actions++;
    await this.page.getByRole('button', { name }).first().click();
  }
  /** One action to get to the field, one to type, one to confirm. */
  async line(text: string): Promise<void> {
    this.actions += 3;
    await this.page.getByLabel('A unit').fill(text);
    await this.page.getByLabel('A unit').press('Enter');
  }
}

test('eleven pieces of one’s own are planned in three minutes and forty actions', async ({ page }) => {
  const errors = watchErrors(page);
  const begun = Date.now();
  await page.goto('/');
  const user = new Counting(page);
  await user.press('Begin my own');
  await expectAccessible(page);
  await user.press('Next');
  await user.line('3 trays of 8 dockhands, quick tray');
  await user.line('5 barges');
  // What was answered outlives a reload.
  await page.reload();
  await expect(page.getByText('3 pieces: Tray 1, Tray 2, Tray 3, 8 figures each')).toBeVisible();
  await user.press('Choose its recipe');
  await user.press(/^Chipped over rust/);
  await user.line('Salt Prince: hull, rudder, roof late, peeling planks');
  await expect(page.getByText('3 pieces: Hull, Rudder, Roof')).toBeVisible();
  await expectAccessible(page);
  await user.press('Next');
  await expect(page.getByText(/About .* of hands/)).toBeVisible();
  await expectAccessible(page);
  await user.press('Make the plan');
  await planned(page);
  await expect(page.getByText('11 pieces', { exact: false }).first()).toBeVisible();
  await plannedOnTime(page);
  expect(user.actions).toBeLessThanOrEqual(MOST_ACTIONS);
  expect((Date.now() - begun) / 1000).toBeLessThan(MOST_SECONDS);
  // Nothing of the demo has come along, and it is kept.
  await page.reload();
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Recipes' }).getByRole('link')).toHaveText([
    'Tray of figures, quick',
    'Chipped over rust, within the hour',
    'Peeling planks by crackle',
  ]);
  expect(errors).toEqual([]);
});

test('the plain address asks, whatever view it names; the demo is one press', async ({ page }) => {
  await page.goto('/recipes');
  await expect(page.getByRole('heading', { name: 'Paint one thing while another dries' })).toBeVisible();
  await page.getByRole('button', { name: 'See the demo' }).click();
  await expect(page.getByRole('heading', { name: 'Moth Fair at Candlewick Fen' })).toBeVisible();
});

test('a shelf without an airbrush, in a damp cellar, gets recipes by brush and a plan', async ({ page }) => {
  await page.goto('/begin');
  await page.getByRole('button', { name: 'Begin my own' }).click();
  await page.getByLabel('I have an airbrush').uncheck();
  await page.getByLabel(/Cellar, damp/).check();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByLabel('A unit').fill('0 barges');
  await page.getByLabel('A unit').press('Enter');
  await expect(page.getByText('Makes none: say how many, from one on.')).toBeVisible();
  await page.getByLabel('A unit').fill('Gull x 2, peeling planks, shiny');
  await page.getByLabel('A unit').press('Enter');
  await expect(page.getByText('Not understood and left out: shiny.')).toBeVisible();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await planned(page);
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Peeling planks by crackle' })).toBeVisible();
  await page.getByRole('button', { name: /^Layer 1, Grey primer/ }).click();
  await expect(page.getByLabel('Put on by')).toHaveValue('brush');
  await expect(page.getByTestId('concerns')).toHaveCount(0);
});

test('everything skipped is an empty muster that says what to do', async ({ page }) => {
  await page.goto('/begin');
  await page.getByRole('button', { name: 'Begin my own' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Begin with an empty shelf' }).click();
  await expect(page.getByText('Nobody stands in the muster yet.')).toBeVisible();
});

test('a list from a spreadsheet is looked at, made in one press, and taken back in one', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/muster?demo');
  await page.getByRole('button', { name: 'Many at once' }).click();
  await page
    .getByLabel(/A line a unit/)
    .fill(
      'Unit\tModel\tQty\tScheme\tDeadline\nGulls\tGull\t3\tquick tray\t14.3.2030\nGulls\tNest\t1\tcrackle\tsoon\n',
    );
  await expect(page.getByRole('heading', { name: '1 unit, 3 pieces' })).toBeVisible();
  await expect(page.getByText('Line 3 “soon” is no date.')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Deadline').selectOption('not taken');
  await page.getByRole('button', { name: 'Make 1 unit, 4 pieces' }).click();
  await page.getByLabel('Find a unit, piece or recipe').fill('gull');
  await expect(page.getByText('1 of 6 units')).toBeVisible();
  await page.getByRole('button', { name: /Undo: 1 unit, 4 pieces made/ }).click();
  await expect(page.getByText('0 of 5 units')).toBeVisible();

  // What was said of the columns is remembered.
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.reload();
  await page.getByRole('button', { name: 'Many at once' }).click();
  await page.getByLabel(/A line a unit/).fill('Unit\tModel\tQty\tScheme\tDeadline\nEels\tEel\t2\t\tsoon\n');
  await expect(page.getByRole('heading', { name: '1 unit, 2 pieces' })).toBeVisible();

  // Lines in words, and the file of another program with everything wrong.
  await page.getByLabel(/A line a unit/).fill('2 trays of 6 netmenders, quick tray\n0 eels\n');
  await expect(page.getByText('Line 2: Makes none: say how many, from one on.')).toBeVisible();
  await page
    .locator('pm-many-panel input[type=file]')
    .setInputFiles({ name: 'picture.csv', mimeType: 'text/csv', buffer: Buffer.from([0x89, 0x50, 0, 0, 1]) });
  await expect(page.getByText('picture.csv is no text that can be read; nothing was taken.')).toBeVisible();
  await page
    .locator('pm-many-panel input[type=file]')
    .setInputFiles({ name: 'herd.csv', mimeType: 'text/csv', buffer: Buffer.from('unit;number\nHerd;7\n') });
  await expect(page.getByRole('heading', { name: '1 unit, 7 pieces' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('several pieces are changed, moved and deleted at once', async ({ page }) => {
  await page.goto('/muster?demo&unit=punts');
  const pieces = page.getByRole('list', { name: 'Pieces' });
  await pieces.getByLabel('Choose Punt 1').check();
  await pieces.getByLabel('Choose Punt 2').click({ modifiers: ['Shift'] });
  const all = page.getByRole('region', { name: 'All that are chosen' });
  await expect(all.getByText('3 pieces at once')).toBeVisible();
  await all.getByLabel('Figures on each').fill('4');
  await all.getByLabel('Figures on each').press('Tab');
  await expect(pieces.getByText('4 figures')).toHaveCount(3);
  await all.getByLabel('To another unit').selectOption('Eel market');
  await expect(page.getByText('9 pieces', { exact: false }).first()).toBeVisible();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'Delete 9 pieces' }).click();
  await expect(page.getByText('0 pieces')).toBeVisible();
  await page.getByRole('button', { name: /^Undo: Lantern punts: 9 pieces deleted/ }).click();
  await expect(page.getByText('9 pieces').first()).toBeVisible();
});

test('anything is found by a few words, and an extra session is lit by them', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/plan?demo');
  await planned(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find, or do' }).fill('punt 3');
  await expect(page.getByRole('option').first()).toContainText('Punt 3');
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Piece or tray')).toHaveValue('Punt 3');
  await page.getByRole('button', { name: /^Find anything/ }).click();
  await page.getByRole('combobox', { name: 'Find, or do' }).fill('extra session on sunday');
  await expect(page.getByRole('option').first()).toContainText('Extra session on');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Extra session on .*: the plan is made anew/)).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find, or do' }).fill('what to look');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'What to look at' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Words of the bench' })).toBeVisible();
  await expectAccessible(page);
  expect(errors).toEqual([]);
});
