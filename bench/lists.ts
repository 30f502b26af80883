/** `npm run bench -- lists`: long lists in the built app: 5,000 units, a unit of 500 pieces, a log of 10,000 entries. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from '../e2e/chromium';
import { createApp } from '../server/app';

const UNITS = 5000;
const PIECES = 500;
const ENTRIES = 10_000;
const RENAMES = 10;
/** The odds of a plan are played for so long at most. */
const ODDS_MS = 26_000;
/** The browser tells how long it took to answer a press after it has. */
const ANSWER_TOLD_MS = 500;
const TEN_MINUTES_MS = 600_000;

// Run in the page, where there is a document: kept as text, so that this file needs no browser's types.
const WATCH = `globalThis.longTasks = [];
  globalThis.answers = [];
  new PerformanceObserver((list) => list.getEntries().forEach((e) => longTasks.push(Math.round(e.duration))))
    .observe({ entryTypes: ['longtask'] });
  new PerformanceObserver((list) => list.getEntries().forEach((e) => answers.push(Math.round(e.duration))))
    .observe({ type: 'event', durationThreshold: 16 });
  globalThis.written = [];
  const { transaction } = IDBDatabase.prototype;
  IDBDatabase.prototype.transaction = function (stores, mode, ...rest) {
    const begun = performance.now();
    const of = transaction.call(this, stores, mode, ...rest);
    if (mode === 'readwrite' && this.name === 'patient-muster' && [stores].flat().includes('texts'))
      of.addEventListener('complete', () => written.push(Math.round(performance.now() - begun)));
    return of;
  };`;
const scrolling = (box: string): string => `new Promise((resolve) => {
  const box = ${box};
  const frames = [];
  let last = performance.now();
  const step = (now) => {
    frames.push(now - last);
    last = now;
    box.scrollBy(0, 50);
    if (frames.length < 300) requestAnimationFrame(step);
    else resolve(frames.slice(2));
  };
  requestAnimationFrame(step);
})`;

export async function benchLists(): Promise<void> {
  const server = createApp(new URL('../dist/web/', import.meta.url)).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('The server has no port.');
  const browser = await chromium.launch(CHROMIUM);
  try {
    const url = `http://127.0.0.1:${address.port}`;
    await manyUnits(await open(browser, `${url}/muster?demo`));
    await onePile(await open(browser, `${url}/muster?demo`));
    await longLog(await open(browser, `${url}/log?demo`));
  } finally {
    await browser.close();
    server.closeAllConnections();
    server.close();
  }

  async function open(from: typeof browser, address: string): Promise<Page> {
    const context = await from.newContext({
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'block',
    });
    const page = await context.newPage();
    await page.addInitScript(WATCH);
    await page.goto(address);
    await page.getByText('planned', { exact: true }).waitFor({ timeout: 60_000 });
    await page.evaluate('longTasks.splice(0)');
    return page;
  }
}

async function manyUnits(page: Page): Promise<void> {
  await bringIn(page, UNITS, 2);
  await told(page, `${UNITS} units made`);
  await scroll(page, 'their list', 'window');
  await page.evaluate('window.scrollTo(0, 0)');
  await timed(page, 'one sought among them', async () => {
    await page.getByLabel('Find a unit, piece or recipe').fill('Unit 4321');
    await page.getByText(`1 of`).first().waitFor();
  });
}

async function onePile(page: Page): Promise<void> {
  await bringIn(page, 1, PIECES);
  // What the page itself takes is asked for: two cores that plan as well have less for it.
  await page.getByText('planned', { exact: true }).waitFor({ timeout: 120_000 });
  await page.waitForTimeout(ODDS_MS);
  await told(page, `a unit of ${PIECES} pieces made`);
  await timed(page, 'opened', async () => {
    await page
      .locator('button', { hasText: /^\s*Unit 0/ })
      .first()
      .click();
    await page.locator('[aria-label="Pieces"]').waitFor();
  });
  await scroll(page, 'its pieces', `document.querySelector('[aria-label="Pieces"]')`);
  await timed(page, '50 more', async () => {
    await page.getByLabel(/^More pieces/).fill('50 more');
    await page.getByLabel(/^More pieces/).press('Enter');
    await page
      .getByText(`${PIECES + 50} pieces`)
      .first()
      .waitFor();
  });
  await page.evaluate('written.splice(0)');
  for (let k = 0; k < RENAMES; k++) {
    await page.getByLabel('Unit', { exact: true }).fill(`Barge ${k}`);
    await page.getByLabel('Unit', { exact: true }).press('Enter');
    await page.waitForTimeout(ANSWER_TOLD_MS);
  }
  const written = await page.evaluate<number[]>('written.splice(0)');
  console.log(`${written.length} of ${RENAMES} renames written, each within ${written.join(', ')} ms`);
}

async function longLog(page: Page): Promise<void> {
  const entries = Array.from({ length: ENTRIES }, (_, k) => ({
    kind: 'noted',
    id: `e${String(k).padStart(6, '0')}`,
    at: `${new Date(Date.UTC(2027, 0, 1) + k * TEN_MINUTES_MS).toISOString().slice(0, 19)}Z`,
    note: `note ${k}`,
  }));
  const text = JSON.stringify({ format: 'patient-muster-log/2', entries });
  await page.locator('input[type=file]').last().setInputFiles(asFile('log.json', text));
  await page.getByText(`${ENTRIES} entries merged`).waitFor({ timeout: 60_000 });
  await told(page, `a log of ${ENTRIES} entries merged`);
  await scroll(page, 'its entries', `document.querySelector('[aria-label="What happened"][role=list]')`);
}

/** From the disk, as a browser takes it: handed over as bytes it would be decoded by the page, which counts as a task of its. */
function asFile(name: string, text: string): string {
  const path = join(mkdtempSync(join(tmpdir(), 'muster-')), name);
  writeFileSync(path, text);
  return path;
}

async function bringIn(page: Page, units: number, pieces: number): Promise<void> {
  const rows = Array.from({ length: units }, (_, u) =>
    Array.from(
      { length: pieces },
      (_, p) => `Unit ${u}\tPiece ${p}\tquick tray\tin ${6 + ((u + p) % 9)} weeks`,
    ).join('\n'),
  );
  await page.getByRole('button', { name: 'Many at once' }).click();
  const text = `unit\tpiece\trecipe\tdate\n${rows.join('\n')}\n`;
  await page.locator('pm-many-panel input[type=file]').setInputFiles(asFile('many.csv', text));
  const make = page.getByRole('button', { name: /^Make \d/ });
  await make.waitFor({ timeout: 60_000 });
  await make.click();
  await page.locator('pm-many-panel').waitFor({ state: 'detached', timeout: 60_000 });
}

async function timed(page: Page, what: string, act: () => Promise<void>): Promise<void> {
  const begun = performance.now();
  await act();
  const taken = Math.round(performance.now() - begun);
  await page.waitForTimeout(ANSWER_TOLD_MS);
  const answers = await page.evaluate<number[]>('answers.splice(0)');
  await told(
    page,
    `${what}: ${taken} ms, the page painted its answer ${Math.max(0, ...answers)} ms after the press`,
  );
}

async function told(page: Page, what: string): Promise<void> {
  await page.waitForTimeout(800);
  const tasks = await page.evaluate<number[]>('longTasks.splice(0)');
  const nodes = await page.evaluate<number>("document.querySelectorAll('*').length");
  console.log(
    `${what}; ${nodes} nodes; ${tasks.length === 0 ? 'no task over 50 ms' : `tasks over 50 ms: ${tasks.join(', ')} ms`}`,
  );
}

async function scroll(page: Page, what: string, box: string): Promise<void> {
  const times = await page.evaluate<number[]>(scrolling(box));
  const inTime = times.filter((t) => t <= 17.2).length / times.length;
  console.log(`scrolling ${what}: ${(100 * inTime).toFixed(1)} % of ${times.length} frames within 16.7 ms`);
}
