/** An evening at the bench: on a phone by thumb from the first tap to “good night”, and by two keys. */
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { expectAccessible, planned, replanned, watchErrors } from './helpers';

/** More presses than this no evening of the demo takes. */
const MOST_RUNS = 60;

const escaped = (words: string): string => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

async function doneSoFar(page: Page): Promise<number> {
  return Number(/\d+/.exec(await page.getByTestId('progress').innerText())![0]);
}

/** A run at a time, each when it is due, until there is nothing left for tonight. */
async function toGoodNight(
  page: Page,
  done: () => Promise<void>,
  press: (name: string) => Promise<void>,
): Promise<void> {
  const night = page.getByRole('heading', { name: 'Good night' });
  const inHand = page.locator('section[aria-labelledby=in-hand]');
  for (let run = 0; run < MOST_RUNS; run++) {
    for (let k = 0; k < 200 && (await inHand.innerText()).includes(' · from '); k++)
      await press('Jump to what comes next');
    if (await night.isVisible()) return;
    const before = await doneSoFar(page);
    await done();
    await expect.poll(() => doneSoFar(page)).toBeGreaterThan(before);
    await planned(page);
  }
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('an evening goes by thumb from the first tap to good night', async ({ page }) => {
    test.setTimeout(300_000);
    const errors = watchErrors(page);
    await page.goto('/tonight');
    await planned(page);
    await page.getByRole('button', { name: 'Rehearse this session' }).tap();
    for (const speed of [20, 200])
      await page.getByRole('button', { name: `Speed ×${speed}; press for another` }).tap();
    // A piece is ticked by itself, and the deeds are under the thumb wherever one reads.
    await page.getByRole('list', { name: 'Pieces' }).getByRole('button').first().tap();
    const deed = page.getByRole('button', { name: /^Done: 1 of/ });
    const box = (await deed.boundingBox())!;
    expect(box.y + box.height).toBeGreaterThan(844 - 120);
    expect(box.height).toBeGreaterThanOrEqual(44);
    await deed.tap();
    await planned(page);
    await toGoodNight(
      page,
      () => page.getByRole('button', { name: /^Done/ }).first().tap(),
      (name) => page.getByRole('button', { name }).tap(),
    );
    await expect(page.getByRole('heading', { name: 'Good night' })).toBeVisible();
    await expect(page.getByText('Leave alone.').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expectAccessible(page);
    expect(errors).toEqual([]);
  });
});

test('an evening goes by two keys, read from two metres', async ({ page }) => {
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  await page.keyboard.press('f');
  const far = page.getByRole('dialog', { name: 'Far view' });
  const size = await far.getByTestId('far-clock').evaluate((e) => parseFloat(getComputedStyle(e).fontSize));
  expect(size).toBeGreaterThanOrEqual(96);
  // A press a piece; the last one of them is the run's.
  const pieces = await page.getByRole('list', { name: 'Pieces' }).getByRole('listitem').count();
  expect(pieces).toBeGreaterThan(0);
  for (let piece = 1; piece < pieces; piece++) {
    await page.keyboard.press('PageDown');
    await expect(far.getByText(`${piece} of ${pieces} ticked`)).toBeVisible();
  }
  expect(await doneSoFar(page)).toBe(0);
  await page.keyboard.press('PageDown');
  await expect.poll(() => doneSoFar(page)).toBe(pieces);
  await planned(page);
  // What it waits for is not dry: the other key.
  await page.keyboard.press('Escape');
  await expect(far).toHaveCount(0);
  await expectAccessible(page);
});

test('a missed window really starts the sandwich again: trouble says what it costs, and the coats come back', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  for (const speed of [20, 200])
    await page.getByRole('button', { name: `Speed ×${speed}; press for another` }).click();
  const shelf = page.getByRole('region', { name: 'Drying shelf' });
  const inHand = page.locator('section[aria-labelledby=in-hand]');
  for (let run = 0; run < 120 && (await shelf.getByText(/: opens in|OPEN: /).count()) === 0; run++) {
    for (let k = 0; k < 300 && /Good night| · from /.test(await inHand.innerText()); k++)
      await page.getByRole('button', { name: 'Jump to what comes next' }).click();
    const before = await doneSoFar(page);
    await page.keyboard.press('d');
    await expect.poll(() => doneSoFar(page)).toBeGreaterThan(before);
    await planned(page);
  }
  const missed = shelf.getByText(/^MISSED: shut/);
  for (let k = 0; k < 300 && (await missed.count()) === 0; k++)
    await page.getByRole('button', { name: 'Jump to what comes next' }).click();
  await expect(missed.first()).toBeVisible();
  // The row itself asks what now; what it costs stands there before it is chosen.
  const what = shelf.getByRole('button', { name: /: what now\?$/ }).first();
  const coat = (await what.getAttribute('aria-label'))!;
  await what.click();
  const trouble = page.getByRole('region', { name: /^What went wrong/ });
  const again = trouble.getByRole('button', { name: /the sandwich again/ });
  await expect(again).toContainText(/of hands/);
  await expect(again).toContainText(/all dates are kept|late|no plan found/, { timeout: 60_000 });
  await expect(trouble.getByRole('button', { name: /^Leave it as it is/ })).toContainText('costs nothing');
  const before = await doneSoFar(page);
  await again.click();
  await expect(page.getByText(/sandwich again.*The rest is planned again/)).toBeVisible();
  // The coats are to be put on once more.
  await expect.poll(() => doneSoFar(page)).toBeLessThan(before);
  await planned(page);
  // Another window may have shut meanwhile; that of this coat is no matter any more.
  await expect(shelf.getByRole('button', { name: coat, exact: true })).toHaveCount(0);
});

test('something goes wrong with a coat that dries: it is told at the shelf, and its cure is planned', async ({
  page,
}) => {
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  for (const speed of [20, 200])
    await page.getByRole('button', { name: `Speed ×${speed}; press for another` }).click();
  const piece = page.getByRole('list', { name: 'Pieces' }).getByRole('button').first();
  const name = (await piece.innerText()).replace(/^\d+\s+|\s+\(\d+\)$/g, '');
  await piece.click();
  await replanned(page, () => page.getByRole('button', { name: /^Done: 1 of/ }).click());
  const all = async (): Promise<number> =>
    Number(/of (\d+) steps/.exec(await page.getByTestId('progress').innerText())![1]);
  const before = await all();
  await page.getByTestId('coat').first().getByRole('button', { expanded: false }).click();
  await page.getByRole('button', { name: new RegExp(`^${escaped(name)}, .*: trouble$`) }).click();
  await expect(page.getByRole('heading', { name: `What went wrong on ${name}?` })).toBeVisible();
  await replanned(page, () => page.getByRole('button', { name: /^Glue it, touch in/ }).click());
  expect(await all()).toBe(before + 1);
});

test('what was really mixed, what goes into a jar, and what is for next time are told again when the same mix comes', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  const inHand = page.locator('section[aria-labelledby=in-hand]');
  const title = await inHand.getByRole('heading', { level: 1 }).innerText();
  // One piece is done; the others of the run are still in hand.
  await page.getByRole('list', { name: 'Pieces' }).getByRole('button').first().click();
  await page.getByRole('button', { name: /^Done: 1 of/ }).click();
  await expect.poll(() => doneSoFar(page)).toBe(1);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  const more = page.getByRole('region', { name: 'More' });
  await more.getByLabel('Note for the log').fill('one drop less thinner');
  await more.getByLabel(/^Tell me again/).check();
  await more.getByRole('button', { name: 'Note it' }).click();
  await more.getByLabel(/^Left in the cup/).fill('1.5');
  await more.getByRole('button', { name: 'Into a jar' }).click();
  await expect(inHand).toContainText(title);
  await expect(inHand).toContainText('1.5 ml out of the jar');
  await expect(page.getByTestId('next-time')).toContainText('one drop less thinner');
  // All of it fresh, and more than was planned.
  await page.getByRole('button', { name: 'Mix all of it fresh' }).click();
  await expect(inHand).not.toContainText('out of the jar');
  await page.getByRole('button', { name: 'Use the jar first' }).click();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  const part = more
    .getByRole('group', { name: /^Really mixed/ })
    .getByRole('textbox')
    .first();
  await part.fill('9.25');
  await part.press('Tab');
  await expect(inHand).toContainText(/9\.[23] ml/);
  await expectAccessible(page);
  await page.keyboard.press('d');
  await expect.poll(() => doneSoFar(page)).toBeGreaterThan(1);
  await planned(page);
  // The log says so, and the jar is lower.
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText('out of the jar').first()).toBeVisible();
  await page.getByRole('link', { name: 'Stores', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Left-over mixes in labelled jars' })).toBeVisible();
  // As much as the run took: all of it, or a rest.
  const jar = page.getByTestId('logged-jar');
  if ((await jar.count()) > 0) expect(Number(await jar.getByRole('textbox').inputValue())).toBeLessThan(1.5);
  expect(errors).toEqual([]);
});

test('a pilot that is begun is judged at the bench: its recipe is frozen, and thaws when somebody says so', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/muster');
  await planned(page);
  await page.getByRole('button', { name: /^Reed folk/ }).click();
  await page.getByRole('button', { name: /^Cutters, tray 1/ }).click();
  await page.getByLabel(/^Pilot: goes ahead/).check();
  await page.getByRole('link', { name: 'Tonight', exact: true }).click();
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  const pilot = page.getByRole('group', { name: 'Pilot Cutters, tray 1' });
  // It comes in one of the first runs; once something is done on it, it can be judged.
  for (let run = 0; run < 10 && (await pilot.count()) === 0; run++) {
    const before = await doneSoFar(page);
    await page.keyboard.press('d');
    await expect.poll(() => doneSoFar(page)).toBeGreaterThan(before);
    await planned(page);
    await page.getByRole('button', { name: 'More', exact: true }).click();
    if ((await pilot.count()) === 0) await page.keyboard.press('Escape');
  }
  await pilot.getByRole('link', { name: /^The recipe must change/ }).click();
  const note = page.getByRole('region', { name: 'What the pilot has shown' });
  await expect(note).toContainText('has shown that it must change');
  await page.getByRole('textbox', { name: /^Hands, a piece and coat/ }).fill('9');
  await page.keyboard.press('Tab');
  await expect(note.getByTestId('pilot-cost')).toContainText(/more of hands/);
  await note.getByRole('button', { name: /^It is right now/ }).click();
  await expect(note).toContainText('Frozen:');
  // Frozen, a change is refused at its field, with the reason.
  await page.getByRole('textbox', { name: /^Hands, a piece and coat/ }).fill('3');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/^It is frozen since/)).toBeVisible();
  await expectAccessible(page);
  await note.getByRole('button', { name: 'Change it all the same' }).click();
  await expect(note).toContainText('Thawed:');
  await page.getByRole('textbox', { name: /^Hands, a piece and coat/ }).fill('4');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/^It is frozen since/)).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('the eye is practised on the coats of the plan, with a record that lasts and no trace in the log', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('link', { name: 'Practise your eye' }).click();
  for (let k = 0; k < 2; k++) {
    await page.getByRole('button', { name: /^(Put the coat on|Another coat)$/ }).click();
    await expect(page.getByText(/wet gloss|satin|dull/).first()).toBeVisible();
    await page.getByRole('button', { name: 'Now', exact: true }).click();
    await expect(page.getByTestId('verdict')).toHaveText(/\d+ min too (soon|late)|Right/);
  }
  await expect(page.getByTestId('record')).toContainText('Your last 2');
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByTestId('record')).toContainText('Your last 2');
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  expect(errors).toEqual([]);
});
