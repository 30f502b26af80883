/** The whole story in the built app: muster, recipe, bench, plan, run sheet, files, reload. */
import { readFileSync } from 'node:fs';
import { expect, onDemo, test } from './test';
import { expectAccessible, planned, plannedOnTime, watchErrors } from './helpers';

test('from the demo muster to tonight’s sheet, changed, taken away and found again', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Moth Fair at Candlewick Fen' })).toBeVisible();
  test.slow();
  await plannedOnTime(page);
  await expect(page.getByText(/days.* late/).first()).toBeVisible();

  // A step says why it is then.
  await page.locator('[data-step]').first().click();
  const card = page.getByRole('region', { name: 'The chosen step' });
  await expect(card).toContainText('Why then, and not sooner?');
  await expect(card.locator('ol li').first()).toBeVisible();
  await page.keyboard.press('Escape');

  // The calendar and the table.
  const [calendar] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away as calendar' }).click(),
  ]);
  expect(readFileSync(await calendar.path(), 'utf8')).toContain('BEGIN:VEVENT');
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away as table' }).click(),
  ]);
  expect(readFileSync(await table.path(), 'utf8').split('\r\n').length).toBeGreaterThan(300);

  // Something changes: a new plan answers.
  await page.getByRole('link', { name: 'Muster', exact: true }).click();
  await page.getByRole('button', { name: 'Add a unit' }).click();
  await page.getByLabel('Unit', { exact: true }).fill('Ferry crew');
  await page.getByLabel('Unit', { exact: true }).press('Tab');
  await expect(page.getByRole('button', { name: /^Ferry crew/ })).toBeVisible();
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.reload();
  await expect(page.getByRole('button', { name: /^Ferry crew/ })).toBeVisible();
  await planned(page);
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Ferry crew/ })).toBeVisible();

  // Deleted, and brought back by undo.
  await page.goto('/muster');
  await page.getByRole('button', { name: /^(▸ ?|▾ ?)?Ferry crew/ }).click();
  await page.getByRole('button', { name: 'Delete unit' }).click();
  await expect(page.getByRole('button', { name: /^(▸ ?|▾ ?)?Ferry crew/ })).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Ferry crew/ })).toBeVisible();

  // The muster as a file, and a bad file that changes nothing.
  await page.getByRole('button', { name: 'Take away' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^This muster/ }).click(),
  ]);
  const text = readFileSync(await file.path(), 'utf8');
  expect((JSON.parse(text) as { units: unknown[] }).units).toHaveLength(6);
  const input = page.locator('input[type=file]').first();
  await input.setInputFiles({
    name: 'bad.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replace('"importance": 3', '"importance": 9')),
  });
  await expect(page.getByRole('alert')).toContainText('importance');
  await expect(page.getByRole('button', { name: /^Ferry crew/ })).toBeVisible();
  await input.setInputFiles({
    name: 'other.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replaceAll('Ferry crew', 'Pilot crew')),
  });
  await expect(page.getByText('is brought in as a muster of its own')).toBeVisible();
  await expect(page.getByRole('button', { name: /Pilot crew/ })).toBeVisible();
  await page.getByRole('link', { name: 'All musters' }).last().click();
  await expect(page.getByRole('listitem').filter({ hasText: 'in hand' })).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Open', exact: true })).toHaveCount(2);
  expect(errors).toEqual([]);
});

test('layers are moved by keyboard and by hand, and findings stand at their layer', async ({ page }) => {
  await page.goto('/recipes/stall');
  const rows = page.getByRole('listitem').filter({ has: page.locator('[id^="layer-"]') });
  await expect(rows.first()).toContainText('Matt coat');
  await page.locator('#layer-matt').focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(rows.nth(1)).toContainText('Matt coat');
  await expect(page.locator('#layer-matt')).toBeFocused();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(rows.first()).toContainText('Matt coat');

  const handle = rows.first().locator('[cdkdraghandle], .cdk-drag-handle').first();
  const from = (await handle.boundingBox())!;
  const to = (await rows.nth(2).boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 12, from.y + 30, { steps: 5 });
  await page.mouse.move(to.x + 120, to.y + to.height - 3, { steps: 12 });
  await page.mouse.up();
  await expect(rows.nth(2)).toContainText('Matt coat');

  await page.goto('/recipes/dredger?layer=medium');
  await page.getByLabel('No later than (then it has shut)').fill('10');
  await page.getByLabel('No later than (then it has shut)').press('Tab');
  await expect(page.getByText(/the window closes 10 min after it/).first()).toBeVisible();
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText('not planned', { exact: true })).toBeVisible();
});

test('a plan can be stopped, and the page never freezes while it is made', async ({ page }) => {
  await page.goto('/plan');
  // On a slow machine the first search may be over before it can be stopped: then it is asked for more.
  await expect(async () => {
    const longer = page.getByRole('button', { name: 'Search 30 s longer' });
    if (await longer.isVisible()) await longer.click();
    await expect(page.getByRole('button', { name: 'Stop here' })).toBeVisible({ timeout: 1000 });
    // Were the plan made on the page's own thread, these turns would come only after it, with nothing left to stop.
    await page.evaluate(
      () =>
        new Promise<void>((resolve) => {
          let turns = 0;
          const turn = (): void => void (++turns === 50 ? resolve() : setTimeout(turn, 10));
          turn();
        }),
    );
    await page.getByRole('button', { name: 'Stop here' }).click({ timeout: 5000 });
    await expect(page.getByText('planning stopped')).toBeVisible({ timeout: 5000 });
  }).toPass({ timeout: 90_000 });
});

for (const [name, path] of [
  ['plan', '/plan'],
  ['run sheet', '/sheet/3'],
  ['muster', '/muster?unit=herons'],
  ['recipes', '/recipes/dredger?layer=medium'],
  ['bench', '/bench'],
  ['stores', '/stores'],
  ['wave', '/wave'],
] as const)
  test(`the ${name} view meets WCAG 2.2 AA, by night and by day`, async ({ page }) => {
    await page.goto(path);
    await planned(page);
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Daylight theme' }).click();
    await expectAccessible(page);
  });

test('a broken layer order is cured in one click, or silenced with a reason', async ({ page }) => {
  await page.goto('/recipes/dredger?layer=name-seal');
  await page.getByRole('button', { name: 'Delete layer' }).click();
  const note = page.getByText(/Its thinner eats the unsealed/);
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Put a gloss coat between' }).click();
  await expect(note).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo: .*gloss coat/i }).click();
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Silence…' }).first().click();
  await page.getByLabel('Why this rule is not to be heard here').fill('lacquer-based details');
  await page.getByRole('button', { name: 'Silence it' }).click();
  await expect(note).toHaveCount(0);
  await page.reload();
  await expect(page.getByText(/lacquer-based details/)).toBeVisible();
});

test('the forecast with its fog drives the plan, and bad readings change nothing', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Read the thermo-hygrometer' }).click();
  await expect(page.getByTestId('reading')).toContainText('°C');
  await page.getByRole('button', { name: 'Take the three-day forecast' }).click();
  await expect(page.getByRole('button', { name: 'Forget all 72 readings' })).toBeVisible();
  await expect(page.getByText(/Paint cannot go on for .* dew point/).first()).toBeVisible();
  await expect(page.locator('pm-air-chart .main-svg').first()).toBeVisible();
  await page.locator('pm-instruments input[type=file]').setInputFiles({
    name: 'damp.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('time,celsius,humidity_percent\n2027-03-02 20:00,18,130\n'),
  });
  await expect(page.getByRole('alert')).toContainText('130 % humidity');
  await expect(page.getByRole('button', { name: 'Forget all 72 readings' })).toBeVisible();
});

test('the wave gives its check value, and the shelves say what runs out', async ({ page }) => {
  await page.goto('/wave');
  await expect(page.getByTestId('wave')).toContainText('9 pieces together');
  await page.getByLabel('Closes after').fill('10');
  await page.getByLabel('Closes after').press('Tab');
  await expect(page.getByRole('alert')).toContainText('closes after 10 min');
  await page.goto('/stores');
  await planned(page);
  await expect(page.getByText(/runs out/).first()).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away (CSV)' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toMatch(/^needed_on,what,name/);
  await page.getByLabel('Ratio, two to four parts').fill('0:0');
  await page.getByLabel('Ratio, two to four parts').press('Tab');
  await expect(page.getByRole('alert').first()).toContainText('mixes nothing');
});

test('an evening is rehearsed: ticked off, gone wrong, planned again, reloaded, and logged', async ({
  page,
  browser,
}) => {
  const errors = watchErrors(page);
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: 'Rehearse this session' }).click();
  await expect(page.getByText('nothing of it is kept')).toBeVisible();
  for (const speed of [20, 200])
    await page.getByRole('button', { name: `Speed ×${speed}; press for another` }).click();
  await page.getByRole('list', { name: 'Pieces' }).getByRole('button').first().click();
  await page.getByRole('button', { name: /^Done: 1 of/ }).click();
  await expect(page.getByTestId('progress')).toContainText('1 of 358 steps done');
  await page.keyboard.press('d');
  await expect(page.getByTestId('progress')).not.toHaveText(/^1 of 358/);
  await planned(page);

  // Every tick made is there after the tab is gone.
  const text = await page.getByTestId('progress').innerText();
  await page.reload();
  await expect(page.getByTestId('progress')).toHaveText(text);

  await page.getByRole('button', { name: /^Trouble/ }).click();
  await page.getByRole('button', { name: /^Glue it, touch in/ }).click();
  await expect(page.getByText('Part fell off: Glue it, touch in. The rest is planned again.')).toBeVisible();
  await planned(page);
  // The whole press is taken back, however many pieces it was about.
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Take back what was last' }).click();
  await expect(page.getByText(/^Taken back: .*rework/)).toBeVisible();
  await planned(page);
  await page
    .getByRole('button', { name: /: dry$/ })
    .first()
    .click();
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText('taken back', { exact: true }).first()).toBeVisible();
  // Only what is seen of a long log is drawn: each kind is looked for by itself.
  const countOf = async (kind: string): Promise<number> => {
    await page.getByLabel('Search the log').fill(kind);
    const found = page.getByRole('list', { name: 'What happened' }).getByText(kind, { exact: true });
    await expect(found.first()).toBeVisible();
    return found.count();
  };
  const reworks = await countOf('rework');
  expect(reworks).toBeGreaterThan(0);
  expect(await countOf('taken back')).toBeGreaterThanOrEqual(reworks);
  await page.getByLabel('Search the log').fill('');
  await expectAccessible(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away (JSON)' }).click(),
  ]);
  const log = readFileSync(await file.path());
  const entries = (JSON.parse(log.toString()) as { entries: unknown[] }).entries.length;

  // Another device takes the log over; twice changes nothing.
  const other = onDemo(await (await browser.newContext()).newPage());
  await other.goto(new URL('/log', page.url()).href);
  for (const said of [`${entries} entries merged`, 'All of these entries were here already']) {
    await other
      .locator('input[type=file]')
      .setInputFiles({ name: 'log.json', mimeType: 'application/json', buffer: log });
    await expect(other.getByText(said)).toBeVisible();
  }
  await other.close();
  expect(errors).toEqual([]);
});

test('a late unit says why, and what would bring it home', async ({ page }) => {
  await page.goto('/muster?unit=market');
  await planned(page);
  await page.getByLabel('On the table').fill('2027-01-01T00:00');
  const start = await page.getByLabel('The plan begins').inputValue();
  const soon = new Date(`${start}:00Z`);
  soon.setUTCDate(soon.getUTCDate() + 3);
  await page.getByLabel('On the table').fill(soon.toISOString().slice(0, 16));
  await page.getByLabel('On the table').press('Tab');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/units late, Eel market by/)).toBeVisible({ timeout: 60_000 });
  await planned(page);
  await page.getByRole('button', { name: 'Why late?' }).click();
  await expect(page.getByRole('heading', { name: /Why Eel market is late/ })).toBeVisible();
  await page.getByRole('button', { name: 'Find ways out' }).click();
  await expect(page.getByRole('button', { name: /An extra session on .*(gains|all on time)/ })).toBeVisible({
    timeout: 60_000,
  });
});
