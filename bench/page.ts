/** `npm run bench -- page`: a muster of 10,000 steps in the built app: how soon its plan is seen, what stands still, how it scrolls. */
import { chromium, type Page } from '@playwright/test';
import { fenMuster, mondayFrom } from '#demo/fen';
import { addDays, type Muster } from '#core/muster';
import { CHROMIUM } from '../e2e/chromium';
import { createApp } from '../server/app';

/** A made-up club that paints the demo so many times over, a fortnight apart. */
const TIMES = 28;
const PLANNING_MS = 400_000;
/** Odds of so many steps take about half a minute. */
const QUIET_MS = 60_000;

function bigMuster(): Muster {
  const one = fenMuster(mondayFrom('2027-03-01'));
  const units = Array.from({ length: TIMES }, (_, k) =>
    one.units.map((u) => ({
      ...u,
      id: `${u.id}-${k}`,
      name: `${u.name} ${k + 1}`,
      table: `${addDays(u.table.slice(0, 10), 14 * k)}${u.table.slice(10)}`,
      pieces: u.pieces.map((p) => ({
        ...p,
        id: `${p.id}-${k}`,
        isPilot: false,
        joins: p.joins && { ...p.joins, piece: `${p.joins.piece}-${k}` },
      })),
    })),
  ).flat();
  // Four hours every day of the week: the club has time.
  const weekly = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({
    id: `day-${weekday}`,
    weekday,
    from: '18:30',
    to: '22:30',
  }));
  const bench = { ...one.bench, rackPlaces: 400, weekly };
  // Mixtures are made of the products on the shelf; the sheets of markings belong to units that are others here.
  const stores = { ...one.stores!, markings: [] };
  return { ...one, name: 'Twenty-eight fairs', units, bench, stores };
}

// Run in the page, where there is a document: kept as text, so that this file needs no browser's types.
const WATCH = `globalThis.longTasks = [];
  new PerformanceObserver((list) => list.getEntries().forEach((e) => longTasks.push(e.duration)))
    .observe({ entryTypes: ['longtask'] });`;
const SCROLL = `new Promise((resolve) => {
  const box = document.querySelector('[aria-label="The plan"]');
  const frames = [];
  let last = performance.now();
  const step = (now) => {
    frames.push(now - last);
    last = now;
    box.scrollLeft += 40;
    box.scrollTop += 10;
    if (frames.length < 300) requestAnimationFrame(step);
    else resolve(frames.slice(2));
  };
  requestAnimationFrame(step);
})`;

export async function benchPage(): Promise<void> {
  const server = createApp(new URL('../dist/web/', import.meta.url)).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('The server has no port.');
  const browser = await chromium.launch(CHROMIUM);
  try {
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'block',
    });
    const page = await context.newPage();
    await page.addInitScript(WATCH);
    const url = `http://127.0.0.1:${address.port}`;
    await page.goto(`${url}/muster?demo`);
    await page
      .locator('input[type=file]')
      .first()
      .setInputFiles({
        name: 'big.json',
        mimeType: 'application/json',
        buffer: Buffer.from(JSON.stringify(bigMuster())),
      });
    await page.getByText('is brought in as a muster of its own').waitFor();
    await page.getByText('planned', { exact: true }).waitFor({ timeout: PLANNING_MS });
    console.log(`long tasks while bringing in and planning: ${told(await tasksOf(page))}`);

    await page.getByRole('link', { name: 'Plan', exact: true }).click();
    await report(page, 'from another view');
    const text = await page.getByRole('main').or(page.locator('body')).first().innerText();
    console.log(/\d+ pieces · \d+ steps/.exec(text)?.[0] ?? 'steps unknown');
    await page.goto(`${url}/plan`);
    await report(page, 'opened anew');
    await scroll(page, 'scrolling while odds are played');
    await page.waitForTimeout(QUIET_MS);
    await tasksOf(page);
    await page.locator('[aria-label="The plan"]').evaluate((box) => box.scrollTo(0, 0));
    await scroll(page, 'scrolling once that is done');
    await odds(page);
  } finally {
    await browser.close();
    server.closeAllConnections();
    server.close();
  }
}

async function tasksOf(page: Page): Promise<number[]> {
  return page.evaluate<number[]>('longTasks.splice(0)');
}

function told(tasks: readonly number[]): string {
  return tasks.length === 0
    ? 'none over 50 ms'
    : `${tasks.length} over 50 ms, the longest ${Math.round(Math.max(...tasks))} ms`;
}

async function report(page: Page, what: string): Promise<void> {
  const begun = performance.now();
  await page.locator('[data-step]').first().waitFor({ timeout: 60_000 });
  const seen = performance.now() - begun;
  await page.waitForTimeout(1000);
  const nodes = await page.evaluate<number>("document.querySelectorAll('*').length");
  console.log(
    `${what}: seen after ${Math.round(seen)} ms, ${nodes} nodes, tasks: ${told(await tasksOf(page))}`,
  );
}

/** How long the odds of a plan of so many steps take, from the press on. */
async function odds(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Will I make it?' }).click();
  const begun = performance.now();
  const seconds = (): string => ((performance.now() - begun) / 1000).toFixed(1);
  const played = page.getByText(/^\d+ futures played/);
  await played.waitFor({ timeout: QUIET_MS });
  console.log(`odds: first told ${seconds()} s after the press`);
  await page
    .getByText(/^1000 futures played/)
    .waitFor({ timeout: QUIET_MS })
    .catch(() => undefined);
  console.log(`odds: ${await played.innerText()} ${seconds()} s; tasks: ${told(await tasksOf(page))}`);
}

/** Scrolls the plan to the right and down, frame by frame, and counts the frames that came in time. */
async function scroll(page: Page, when: string): Promise<void> {
  const times = await page.evaluate<number[]>(SCROLL);
  const inTime = times.filter((t) => t <= 17.2).length / times.length;
  const sorted = [...times].sort((a, b) => a - b);
  console.log(
    `${when}: ${(100 * inTime).toFixed(1)} % of ${times.length} frames within 16.7 ms, the slowest ${Math.round(sorted.at(-1)!)} ms; tasks: ${told(await tasksOf(page))}`,
  );
}
