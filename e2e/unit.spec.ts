/** A fleet of twelve: dealt, briefed, masked, marked, looked over and put on the table, by keyboard as well. */
import { writeMuster, type Layer, type Muster } from '#core/muster';
import { layer, smallMuster } from '../core/plan/testing';
import type { Locator, Page } from '@playwright/test';
import { expect, test } from './test';
import { expectAccessible, planned, replanned, watchErrors } from './helpers';

const LAYERS: Layer[] = [
  layer('prime', { name: 'Grey primer', family: 'primer', dryMinutes: 60 }),
  layer('deck', { name: 'Deck grey', zones: ['deck'], mixture: 'deck grey' }),
  layer('tape', {
    name: 'Tape the deck',
    task: 'mask',
    family: 'work',
    method: 'hand',
    zones: ['deck'],
    dryMinutes: 0,
  }),
  layer('hull', { name: 'Hull green', mixture: 'hull green', colour: '#4d7a62' }),
  layer('off', {
    name: 'Untape',
    task: 'unmask',
    family: 'work',
    method: 'hand',
    zones: ['deck'],
    dryMinutes: 0,
  }),
  layer('gloss', { name: 'Gloss', family: 'varnish', sheen: 'gloss' }),
  layer('number', { name: 'Fleet number', task: 'decal', family: 'setting', method: 'brush' }),
  layer('rust', { name: 'Rust streaks', family: 'acrylic-wash', colour: '#6b3a20', reach: 'traces' }),
  layer('dust', { name: 'Quay dust', family: 'acrylic-wash', colour: '#b8a888', reach: 'recesses' }),
  layer('matt', { name: 'Matt varnish', family: 'varnish', sheen: 'matt' }),
];

function fleet(): Muster {
  const muster = smallMuster(LAYERS);
  const [piece] = muster.units[0]!.pieces;
  return {
    ...muster,
    name: 'Twelve barges',
    bench: { ...muster.bench, rackPlaces: 40 },
    recipes: [
      {
        ...muster.recipes[0]!,
        zones: [
          { id: 'z', name: 'Sides' },
          { id: 'deck', name: 'Deck' },
        ],
      },
    ],
    units: [
      {
        ...muster.units[0]!,
        name: 'Barges',
        table: '2027-04-05T12:00',
        details: [{ id: 'd', name: 'Stern lamp' }],
        pieces: Array.from({ length: 12 }, (_, k) => ({ ...piece!, id: `b${k}`, name: `Barge ${k + 1}` })),
      },
    ],
    stores: {
      products: [],
      consumables: [],
      jars: [],
      markings: [{ id: 'm', name: 'Fleet numbers', unit: 'u', perPiece: 2, left: 20, policy: 'every-side' }],
    },
  };
}

test('twelve of one recipe are dealt, briefed, masked, marked, looked over and put on the table', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/muster');
  await page
    .locator('pm-file input[type=file]')
    .first()
    .setInputFiles({
      name: 'barges.json',
      mimeType: 'application/json',
      buffer: Buffer.from(writeMuster(fleet())),
    });
  await expect(page.getByText('barges.json is brought in')).toBeVisible();
  await planned(page);
  await page
    .getByRole('button', { name: /^Barges/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Deal, place, look over' }).click();

  // What may vary is said once; then neighbours differ in two traits.
  const verdict = page.getByTestId('deal-verdict');
  await expect(verdict).toContainText('too alike');
  await page.getByRole('button', { name: 'Rust streaks', exact: true }).click();
  await page.getByRole('button', { name: 'Quay dust', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Quay dust', exact: true })).toBeHidden();
  await replanned(page, () => page.getByRole('button', { name: 'Deal them out' }).press('Enter'));
  await expect(verdict).toContainText('differ in 2 traits or more');
  await expectAccessible(page);

  // One is set by hand and stays so when it is dealt again; two change their looks.
  const barge = (n: number) =>
    page.getByLabel('Pieces as they stand').getByRole('button', { name: new RegExp(`^Barge ${n}\\b`) });
  await barge(5).press('Enter');
  await page.getByRole('combobox', { name: 'Age of the damage' }).selectOption('old');
  await expect(barge(5)).toContainText('as I say');
  const others = await barge(2).innerText();
  await page.getByRole('button', { name: 'Deal again' }).click();
  await expect(barge(2)).not.toHaveText(others);
  await expect(barge(5)).toContainText('old');
  await barge(2).click();
  const [two, three] = [await barge(2).innerText(), await barge(3).innerText()];
  await page.getByRole('button', { name: 'Swap with another' }).click();
  await barge(3).click();
  await expect
    .poll(async () => (await barge(2).innerText()).replace('Barge 2', ''))
    .toBe(three.replace('Barge 3', ''));
  expect((await barge(3).innerText()).replace('Barge 3', '')).toBe(two.replace('Barge 2', ''));

  // Where its marks go, and another way.
  const sums = page.getByTestId('brief-sums');
  await expect(sums).toContainText('Left and right differ by');
  await page.getByLabel('What it has been through').selectOption('wreck');
  const where = page.getByLabel('Effects and where they go');
  const first = await where.innerText();
  await page.getByRole('button', { name: 'Another brief' }).click();
  await expect(where).not.toHaveText(first);

  // What is masked, and what therefore does not go on it.
  await page.getByRole('link', { name: 'Masks' }).click();
  const mask = page.getByRole('region', { name: 'Tape the deck' });
  await expect(mask).toContainText('on Sides only');
  await expect(mask.getByLabel('In the plan').getByRole('listitem')).toHaveCount(12);
  await expectAccessible(page);

  // Numbers without doubles; a sheet that is too small says so.
  await page.getByRole('link', { name: 'Markings' }).click();
  await expect(page.getByRole('alert')).toContainText('has 20 of the 24 that are wanted');
  await page.getByLabel('left', { exact: true }).check();
  await page.getByLabel('Numbers, each once').check();
  await expect(page.getByTestId('given')).toContainText('12 of 12');
  await expect(page.getByLabel('Fleet numbers by piece').getByRole('listitem').nth(11)).toContainText(
    'number 12',
  );
  await page.getByLabel('to', { exact: true }).fill('9');
  await page.getByLabel('to', { exact: true }).blur();
  await expect(page.getByRole('alert')).toContainText('too few numbers: 3 pieces go without');
  await expectAccessible(page);

  // The look before the table: what is not right becomes work in the plan.
  await page.getByRole('link', { name: 'Tonight', exact: true }).click();
  await replanned(page, () => page.getByRole('button', { name: /^Done/ }).click());
  await page.goBack();
  const count = page.getByTestId('look-count');
  await page.getByRole('link', { name: 'Look over' }).click();
  await expect(count).toContainText('0 of');
  await expect(page.getByText('“Tape the deck”: all of it taken off')).toBeVisible();
  await page.getByRole('button', { name: /^Stern lamp/ }).press('Enter');
  await expect(count).toContainText('1 of');
  await page.getByRole('button', { name: 'Not right' }).nth(1).press('Enter');
  await page.getByLabel('What is done about it').fill('Touch in the corner');
  await replanned(page, () => page.getByRole('button', { name: 'Into the plan' }).click());
  await expect(page.getByText('was not right: look again')).toBeVisible();
  await expect(page.getByTestId('look-standing')).toContainText('to spare');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'On the table' }).click();
  await expect(page.getByText('On the table since')).toBeVisible();
  await page.getByRole('link', { name: 'Record' }).click();
  await expect(page.getByRole('cell', { name: 'Grey primer', exact: true })).toBeVisible();
  await expect(page.getByText('Touch in the corner')).toBeVisible();
  // All of it outlives the page.
  await page.reload();
  await expect(page.getByText('stood there')).toBeVisible();
  expect(errors).toEqual([]);
});

test('a unit without pieces, one alone and five hundred are told what they are', async ({ page }) => {
  const muster = fleet();
  const [unit] = muster.units;
  const [piece] = unit!.pieces;
  const many = Array.from({ length: 500 }, (_, k) => ({ ...piece!, id: `m${k}`, name: `Hulk ${k + 1}` }));
  const wide: Muster = {
    ...muster,
    recipes: muster.recipes.map((r) => ({
      ...r,
      layers: r.layers.map((l) => (l.id === 'rust' || l.id === 'dust' ? { ...l, isOptional: true } : l)),
    })),
    units: [
      { ...unit!, id: 'none', name: 'Nobody', pieces: [] },
      {
        ...unit!,
        id: 'one',
        name: 'W'.repeat(120),
        pieces: [{ ...piece!, id: 'alone', name: 'W'.repeat(120) }],
      },
      { ...unit!, id: 'many', name: 'Hulks', table: '2028-02-05T12:00', pieces: many },
    ],
    stores: undefined,
  };
  await page.goto('/muster');
  await page
    .locator('pm-file input[type=file]')
    .first()
    .setInputFiles({
      name: 'wide.json',
      mimeType: 'application/json',
      buffer: Buffer.from(writeMuster(wide)),
    });
  await expect(page.getByText('wide.json is brought in')).toBeVisible();
  await page.goto('/unit/none');
  await expect(page.getByText('It has no pieces yet')).toBeVisible();
  await page.goto('/unit/one');
  await expect(page.getByTestId('deal-verdict')).toContainText('No two of its pieces follow one recipe');
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  await page.goto('/unit/many');
  await page.getByRole('button', { name: 'Deal them out' }).click();
  await expect(page.getByTestId('deal-verdict')).toContainText('No two that stand together are alike', {
    timeout: 60_000,
  });
  await page.getByRole('link', { name: 'Markings' }).click();
  await expect(page.getByText('No sheet lies ready for this unit')).toBeVisible();
});

test('at the bench several markings are under way at once, each with its number, side and clock', async ({
  page,
}) => {
  const muster = fleet();
  const [unit] = muster.units;
  const three: Muster = {
    ...muster,
    recipes: muster.recipes.map((r) => ({
      ...r,
      layers: [layer('base', { name: 'Green' }), r.layers.find((l) => l.id === 'number')!],
    })),
    units: [{ ...unit!, pieces: unit!.pieces.slice(0, 3) }],
    stores: {
      ...muster.stores!,
      markings: muster.stores!.markings.map((m) => ({
        ...m,
        sides: ['left' as const],
        numbers: { from: 7, to: 9 },
      })),
    },
  };
  await page.goto('/muster');
  await page
    .locator('pm-file input[type=file]')
    .first()
    .setInputFiles({
      name: 'three.json',
      mimeType: 'application/json',
      buffer: Buffer.from(writeMuster(three)),
    });
  await expect(page.getByText('three.json is brought in')).toBeVisible();
  await planned(page);
  await page.goto('/tonight');
  await replanned(page, () => page.getByRole('button', { name: /^Done/ }).click());
  await expect(page.getByLabel('Which marking where').getByRole('listitem')).toHaveText([
    'Barge 1 Fleet numbers: number 7 · left',
    'Barge 2 Fleet numbers: number 8 · left',
    'Barge 3 Fleet numbers: number 9 · left',
  ]);
  const clock = page.getByRole('region', { name: 'Markings under way' });
  const rows = clock.getByRole('listitem');
  const trim = clock.getByRole('button', { name: /: Trim it/ });
  // Whichever comes first in the plan: the next may be trimmed while it soaks.
  const [first, second] = await rows.locator('strong').allInnerTexts();
  await trim.click();
  await expect(rows.filter({ hasText: first! })).toContainText('in the water');
  await expect(trim).toContainText(second!);
  await trim.press('Enter');
  await expect(rows.filter({ hasText: second! })).toContainText('in the water');
  await page.reload();
  await expect(rows.filter({ hasText: first! })).toContainText('in the water');
  await expectAccessible(page);
});

/** Three colours sprayed beside one another, and chips that want a place. */
function scheme(): Muster {
  const sprayed = (id: string, name: string, zones: string[], colour: string): Layer =>
    layer(id, { name, zones, mixture: name.toLowerCase(), method: 'airbrush', colour });
  const muster = smallMuster([
    layer('prime', { name: 'Grey primer', family: 'primer', method: 'airbrush', dryMinutes: 60 }),
    sprayed('deck', 'Deck ochre', ['deck'], '#b08a3c'),
    sprayed('stripe', 'White stripe', ['stripe'], '#e8e4d8'),
    layer('tape', {
      name: 'Tape both',
      task: 'mask',
      family: 'work',
      method: 'hand',
      zones: ['deck', 'stripe'],
      dryMinutes: 0,
    }),
    sprayed('hull', 'Hull green', ['z'], '#4d7a62'),
    layer('off', {
      name: 'Untape',
      task: 'unmask',
      family: 'work',
      method: 'hand',
      zones: ['deck', 'stripe'],
      dryMinutes: 0,
    }),
    layer('chips', { name: 'Sponge chips', method: 'sponge', colour: '#3b2418', reach: 'traces' }),
    layer('matt', { name: 'Matt varnish', family: 'varnish', sheen: 'matt' }),
  ]);
  return {
    ...muster,
    name: 'Two barges',
    recipes: [
      {
        ...muster.recipes[0]!,
        zones: [
          { id: 'z', name: 'Sides' },
          { id: 'deck', name: 'Deck' },
          { id: 'stripe', name: 'Stripe' },
        ],
      },
    ],
    units: [{ ...muster.units[0]!, name: 'Barges', table: '2027-04-05T12:00' }],
  };
}

test('colours take the order with the fewest masks, which are drawn in the plan', async ({ page }) => {
  const errors = watchErrors(page);
  await bringIn(page, scheme());
  await page.goto('/recipes');
  const note = page.locator('pm-mask-order-note');
  await expect(note).toContainText('Deck when “White stripe” goes on: nothing covers it');
  await page.getByText('What touches what').click();
  const touches = page.getByRole('group', { name: 'Deck touches' });
  await touches.getByRole('button', { name: 'Stripe' }).click();
  await expect(touches.getByRole('button', { name: 'Stripe' })).toHaveAttribute('aria-pressed', 'false');
  await expect(note).toContainText('2 masks a piece as it stands; all that has to be covered takes 1');
  await replanned(page, () => note.getByRole('button', { name: 'Take this order, with its masks' }).click());
  await expect(note).toContainText('1 mask a piece: no order needs fewer');
  await expect(page.getByRole('button', { name: /Layer 3, Mask: sides/ })).toBeVisible();
  await expectAccessible(page);
  await page.goto('/plan');
  await planned(page);
  await expect(page.locator('.cover title').first()).toHaveText('masked: Sides');
  await page.getByRole('button', { name: /^Undo: .*fewest masks/ }).click();
  await page.goto('/unit/u?show=masks');
  await expect(page.getByRole('heading', { name: 'Tape both: Deck and Stripe' })).toBeVisible();
  await expect(page.getByText('Edge along Sides')).toBeVisible();
  expect(errors).toEqual([]);
});

test('where marks went is ticked and drawn, beside what the recipe goes by; and printed', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await bringIn(page, scheme());
  await page.goto('/recipes');
  await page.getByRole('button', { name: 'Add a reference' }).click();
  await page.getByLabel('Year').fill('1934');
  await page.getByLabel('Year').press('Enter');
  await page.locator('pm-references-editor input[type=file]').setInputFiles('docs/screenshots/unit.png');
  await expect(page.locator('pm-references-editor img')).toBeVisible();

  await page.goto('/unit/u?piece=p2');
  await expect(page.getByRole('list', { name: 'References' })).toContainText('Reference 1, 1934');
  const effects = page.getByRole('list', { name: 'Effects and where they go' });
  await effects.getByRole('button', { name: /Sponge chips/ }).click();
  const places = page.locator('pm-place-ticks');
  await places.getByRole('checkbox').first().check();
  await expect(places).toContainText(/1 of \d+ places done\./);
  await places.getByRole('button', { name: 'Draw where it went' }).click();
  const faces = page.locator('pm-piece-panel pm-faces svg');
  await faces.click({ position: { x: 60, y: 40 } });
  await expect(places).toContainText('left: drawn by hand');
  await page.reload();
  await effects.getByRole('button', { name: /Sponge chips/ }).click();
  await expect(places).toContainText(/1 of \d+ places done, 1 besides/);
  await expect(places.getByRole('checkbox').first()).toBeChecked();
  await places.getByRole('button', { name: 'Take off left: drawn by hand' }).click();
  await places.getByRole('checkbox').first().uncheck();
  await expect(places).toContainText(/0 of \d+ places done\./);
  await expectAccessible(page);

  // For paper every brief of the unit is drawn, and only then.
  const sheet = page.getByRole('list', { name: 'Where marks go, piece by piece' });
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await expect(sheet.getByRole('heading')).toHaveCount(2);
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  await expect(sheet).toHaveCount(0);

  await page.getByRole('link', { name: 'Look over' }).click();
  await expect(page.getByRole('img', { name: 'Reference 1' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('two tabs deal one unit: both show the same deal', async ({ page, context }) => {
  await bringIn(page, fleet());
  await page.goto('/unit/u');
  const other = await context.newPage();
  await other.goto('/unit/u');
  const deal = (p: Page): Locator => p.locator('pm-deal-panel ol');
  await page.getByRole('button', { name: 'Rust streaks', exact: true }).click();
  await other.getByRole('button', { name: 'Quay dust', exact: true }).click();
  await expect(deal(page)).toContainText('Quay dust');
  await expect(deal(other)).toContainText('Rust streaks');
  await Promise.all(
    [page, other].map((p) => p.getByRole('button', { name: 'Deal them out' }).click({ timeout: 60_000 })),
  );
  for (const p of [page, other])
    await expect(p.getByTestId('deal-verdict')).toContainText('No two that stand together are alike', {
      timeout: 60_000,
    });
  await expect
    .poll(async () => (await deal(other).innerText()) === (await deal(page).innerText()))
    .toBe(true);
});

async function bringIn(page: Page, muster: Muster): Promise<void> {
  await page.goto('/muster');
  await page
    .locator('pm-file input[type=file]')
    .first()
    .setInputFiles({
      name: 'own.json',
      mimeType: 'application/json',
      buffer: Buffer.from(writeMuster(muster)),
    });
  await expect(page.getByText('own.json is brought in')).toBeVisible();
  await planned(page);
}
