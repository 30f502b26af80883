/** All that goes out and comes in as a file. */
import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { expectAccessible, planned, watchErrors } from './helpers';

const CALENDAR = (from: string, to: string): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//test//EN',
    'BEGIN:VEVENT',
    'UID:choir',
    'DTSTAMP:20270101T000000Z',
    `DTSTART;VALUE=DATE:${from}`,
    `DTEND;VALUE=DATE:${to}`,
    'SUMMARY:Choir week',
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n');

test('an archive of everything comes back beside, merged, or in the place of what is in hand', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto('/tonight');
  await planned(page);
  await page.getByRole('button', { name: /^Done/ }).click();
  await expect(page.getByTestId('keeping')).toHaveText('kept');
  await page.getByRole('link', { name: 'Muster', exact: true }).click();
  await page.getByRole('button', { name: 'Take away' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^Everything/ }).click(),
  ]);
  const zip = readFileSync(await file.path());
  const bring = page.locator('pm-file', { hasText: 'Bring in' }).locator('input');
  const give = async (name: string, buffer: Buffer): Promise<void> =>
    bring.setInputFiles({ name, mimeType: 'application/zip', buffer });

  await give('all.zip', zip);
  await expect(page.getByTestId('archive-holds')).toContainText('“Moth Fair at Candlewick Fen”: 5 units');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Merge its log into the one in hand' }).click();
  await expect(page.getByText('0 entries merged into the log.')).toBeVisible();

  await page.getByLabel('This muster').fill('Changed since');
  await page.getByLabel('This muster').press('Tab');
  await give('all.zip', zip);
  await page.getByRole('button', { name: /^In the place of “Changed since”/ }).click();
  await expect(page.getByLabel('This muster')).toHaveValue('Moth Fair at Candlewick Fen');
  await page.getByRole('button', { name: /^Undo: “Moth Fair/ }).click();
  await expect(page.getByLabel('This muster')).toHaveValue('Changed since');

  await give('all.zip', zip);
  await page.getByRole('button', { name: 'As a muster of its own' }).click();
  await expect(page.getByLabel('This muster')).toHaveValue('Moth Fair at Candlewick Fen');
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText(/done/i).first()).toBeVisible();
  await page.goto('/musters');
  await expect(page.getByText('Changed since').first()).toBeVisible();

  await page.goto('/muster');
  await give('broken.zip', Buffer.from('no zip'));
  await expect(page.getByText(/This is no zip archive that can be read/)).toBeVisible();
  expect(errors).toEqual([]);
});

test('a busy calendar cuts the sessions, and one undo brings them back', async ({ page }) => {
  await page.goto('/bench');
  await planned(page);
  const ics = page.locator('pm-busy-calendar input');
  await page.getByRole('link', { name: 'Muster', exact: true }).click();
  const begins = await page.getByLabel('The plan begins').inputValue();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  const days = [7, 14].map((d) => {
    const date = new Date(`${begins}:00Z`);
    date.setUTCDate(date.getUTCDate() + d);
    return date.toISOString().slice(0, 10).replaceAll('-', '');
  });
  await ics.setInputFiles({
    name: 'choir.ics',
    mimeType: 'text/calendar',
    buffer: Buffer.from(CALENDAR(days[0]!, days[1]!)),
  });
  await expect(page.getByText(/^0 sessions shortened, [56] gone\.$/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await ics.setInputFiles({ name: 'no.ics', mimeType: 'text/calendar', buffer: Buffer.from('hello') });
  await expect(page.getByText('This is no calendar (.ics); nothing was changed.')).toBeVisible();
});

test('a recipe goes out and comes in, and stands on a sheet with what it takes', async ({ page }) => {
  await page.goto('/recipes/stall');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Take away', exact: true }).click(),
  ]);
  const text = readFileSync(await file.path(), 'utf8');
  const bring = page.getByRole('navigation', { name: 'Recipes' }).locator('pm-file input');
  await bring.setInputFiles({
    name: 'r.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replace(/"name": "[^"]*",\s*"zones"/, '"name": "From a friend", "zones"')),
  });
  await expect(page.getByRole('heading', { name: 'From a friend' })).toBeVisible();
  await bring.setInputFiles({
    name: 'bad.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replace('"coats"', '"caots"')),
  });
  await expect(page.getByText(/bad.json was not brought in/)).toContainText('“caots”');
  await page.getByRole('link', { name: 'As a sheet' }).click();
  await expect(page.getByRole('heading', { name: /What it takes, for one small piece/ })).toBeVisible();
  await expectAccessible(page);
});

test('the plan is taken away as a picture', async ({ page }) => {
  await page.goto('/plan');
  await planned(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'as picture' }).click(),
  ]);
  const png = readFileSync(await file.path());
  // The signature and the width of a PNG (ISO/IEC 15948).
  expect([...png.subarray(0, 8)]).toEqual([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  expect(png.readUInt32BE(16)).toBeGreaterThan(2000);
});
