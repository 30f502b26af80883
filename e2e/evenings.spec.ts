/** Evenings worth sitting down to: runs kept and moved, what a plan wishes for, a helper, quiet hours, a budget. */
import { expect, test } from './test';
import { expectAccessible, planned, replanned, watchErrors } from './helpers';

test('a run is kept, moved by key and by hand, and let go; the plan says what moved', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/plan');
  await planned(page);
  await page.locator('[data-step]').nth(2).click();
  const card = page.getByRole('region', { name: 'The chosen step' });
  const when = card.getByTestId('when');
  const before = await when.innerText();
  await replanned(page, () => card.getByRole('button', { name: /^Not in/ }).click());
  await expect(card.getByText(/^not in /)).toBeVisible();
  expect((await when.innerText()).slice(0, 6)).not.toBe(before.slice(0, 6));
  await page.getByTestId('moved').click();
  await expect(page.getByRole('heading', { name: 'What has moved to another session' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Close' }).first().click();
  await replanned(page, () => card.getByRole('button', { name: 'Let it go' }).click());

  // By key, to the session after.
  const there = (await when.innerText()).slice(0, 6);
  await page.locator('[data-step].is-selected').first().focus();
  await replanned(page, () => page.keyboard.press('Shift+ArrowRight'));
  await expect(card.getByText(/^kept in /)).toBeVisible();
  expect((await when.innerText()).slice(0, 6)).not.toBe(there);
  await replanned(page, () => page.keyboard.press('Control+z'));

  // By hand, from the strip of one evening to the next.
  await page.keyboard.press('Escape');
  await page.getByRole('region', { name: 'The plan' }).evaluate((e) => (e.scrollLeft = 0));
  const lamps = page.locator('pm-lamp-head');
  const run = lamps.nth(0).locator('.hand-run').last();
  const from = (await run.boundingBox())!;
  const to = (await lamps.nth(1).boundingBox())!;
  await page.mouse.move(from.x + 2, from.y + 6);
  await expect(lamps.nth(0).locator('.cdk-drag').first()).toBeAttached();
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 8, { steps: 4 });
  await page.mouse.move(to.x + 60, to.y + to.height - 8, { steps: 8 });
  await replanned(page, () => page.mouse.up());
  await expect(card.getByText(/^kept in /)).toBeVisible();
  // A reload keeps it.
  await page.reload();
  await planned(page);
  await expect(page.locator('.run-body .pin').first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('what a plan wishes for is chosen in words, and changes the plan', async ({ page }) => {
  await page.goto('/plan');
  await planned(page);
  const heads = (): Promise<string[]> => page.locator('pm-lamp-head').allInnerTexts();
  const balanced = await heads();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await replanned(page, () => page.getByRole('radio', { name: /Finish early/ }).check());
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  // Other evenings come of it; which are better is measured by the bench, not here.
  await expect.poll(async () => (await heads()).length).toBeGreaterThan(0);
  expect(await heads()).not.toEqual(balanced);
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.goto('/bench');
  await expect(page.getByRole('radio', { name: /Finish early/ })).toBeChecked();
});

test('a helper has hours and a name on the sheet; quiet hours over everything are told with their cure', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/bench');
  await planned(page);
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('Person 2').fill('Pim');
  await page.getByLabel('Person 2').press('Tab');
  await page.getByLabel('Pim may do').selectOption('careful');
  await replanned(page, () => page.getByLabel('Pim comes at hours of their own').check());
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await page
    .getByRole('link', { name: /^Sat \d/ })
    .first()
    .click();
  await expect(page.getByText('Pim ·').first()).toBeVisible();
  // Never with an airbrush.
  await expect(page.getByRole('heading', { name: /^Pim · Spray/ })).toHaveCount(0);
  await expectAccessible(page);
  // At the bench each sees what is theirs.
  await page.getByRole('link', { name: 'Tonight', exact: true }).click();
  await page.getByRole('group', { name: 'Whose hands' }).getByRole('button', { name: 'Pim' }).click();
  await expect(page.locator('strong', { hasText: 'Pim' }).first()).toBeVisible();
  await expectAccessible(page);

  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add quiet hours' }).click();
  await page.getByLabel('Quiet hours, from').fill('12:00');
  await page.getByLabel('Quiet hours, from').press('Tab');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/Quiet hours leave no session/).first()).toBeVisible();
  await expect(page.getByText(/Shorten the quiet hours/).first()).toBeVisible();
  await page.goto('/bench');
  await replanned(page, () => page.getByRole('button', { name: 'Take out Quiet hours 1' }).click());

  await page.getByLabel('The place of the bench is known').check();
  await page.getByLabel('Latitude, north positive').fill('80');
  await page.getByLabel('Latitude, north positive').press('Tab');
  await expect(page.getByTestId('daylight')).toContainText(/the sun (does not rise|is up)/);
  await expectAccessible(page);
  expect(errors).toEqual([]);
});

test('a unit over its budget says what could be left off', async ({ page }) => {
  await page.goto('/muster?unit=herons');
  await planned(page);
  await page.getByLabel('May cost').fill('3');
  await replanned(page, () => page.getByLabel('May cost').press('Tab'));
  await expect(page.getByTestId('budget')).toContainText(/planned of\s+3 h: .* over/);
  await expect(page.getByTestId('over-budget').getByRole('listitem').first()).toContainText('saves');
});

test('will I make it? The odds of every date are told at once, narrow, and rise when no evening is lost', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const errors = watchErrors(page);
  await page.goto('/plan');
  await planned(page);
  await page.getByRole('button', { name: 'Will I make it?' }).click();
  const panel = page.getByRole('region', { name: 'Will I make it?' });
  await expect(panel.getByText('1000 futures played')).toBeVisible({
    timeout: 90_000,
  });
  await expect(panel.getByTestId('unit-odds')).toHaveCount(5);
  await expect(panel).toContainText('Reed folk');
  await expect(panel).toContainText('Hangs on evenings that are lost');
  await expect(panel).toContainText('it rests on what is usual');
  await expect(panel).not.toContainText(/NaN|Infinity|%/);
  // What would raise them is weighed by the same futures.
  await panel.getByRole('button', { name: 'Find ways out' }).click();
  await expect(panel.locator('pm-ways-out')).toContainText(/every date: .* → /, { timeout: 60_000 });
  await expect(panel.locator('pm-ways-out')).toContainText(/costs .+; .+ work/);
  // The least margin of each unit, and how late it can be begun.
  await expect(panel).toContainText(/Any one evening may be lost|No evening to spare among/);
  await expect(panel.getByTestId('latest-start').first()).toContainText('9 in 10', { timeout: 60_000 });
  await expect(page.getByTestId('odds-head')).toHaveText(await panel.getByTestId('odds-all').innerText());
  await expectAccessible(page);
  // Nobody ever loses an evening: the odds rise.
  const before = await panel.getByTestId('unit-odds').nth(1).innerText();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page.getByLabel(/^Of the evenings in the plan/).selectOption('0');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await planned(page);
  await page.getByRole('button', { name: 'Will I make it?' }).click();
  await expect(panel.getByText('1000 futures played')).toBeVisible({ timeout: 90_000 });
  await expect(panel).not.toContainText('evenings that are lost');
  expect(await panel.getByTestId('unit-odds').nth(1).innerText()).not.toBe(before);
  await panel.getByRole('button', { name: 'Close' }).click();
  await expect(panel).toHaveCount(0);
  // Once the bench is in use the first odds are kept, to be seen beside what comes.
  await page.getByRole('link', { name: 'Tonight', exact: true }).click();
  await page.getByRole('button', { name: /^Done/ }).first().click();
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText('5 units have been given odds')).toBeVisible({ timeout: 60_000 });
  expect(errors).toEqual([]);
});

test('evenings that nobody came to are told until the rest is planned from now, and a reload keeps that', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/plan');
  await planned(page);
  const note = page.getByTestId('gone-by');
  await expect(note).toHaveCount(0);
  const firstEvening = page.locator('pm-lamp-head').first();
  const before = await firstEvening.innerText();

  // The demo begins within a week.
  await page.clock.install({ time: Date.now() + 15 * 86_400_000 });
  await page.reload();
  await planned(page);
  await expect(note).toContainText(/sessions have gone by, the first Mon/);
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Tonight', exact: true }).click();
  await expect(note).toBeVisible();
  await expectAccessible(page);
  await replanned(page, () => note.getByRole('button', { name: 'Plan the rest from now' }).click());
  await expect(note).toHaveCount(0);

  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect.poll(() => firstEvening.innerText()).not.toBe(before);
  await page.reload();
  await planned(page);
  await expect(note).toHaveCount(0);
  expect(errors).toEqual([]);
});
