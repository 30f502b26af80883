/**
 * `npm run screenshots [-- NAME …]`: pictures of the main views from the demo data into docs/screenshots/, at a fixed date.
 * Needs a built app.
 */
import { chromium, type Page } from '@playwright/test';
import { createApp } from '../server/app';
import { CHROMIUM } from '../e2e/chromium';

const MOMENT = new Date('2027-03-01T19:20:00');
const PLANNED_MS = 60_000;

interface Shot {
  readonly name: string;
  readonly path: string;
  readonly act?: (page: Page) => Promise<void>;
  /** a browser that has kept nothing, and is not to have the demo */
  readonly isFresh?: boolean;
}

const SHOTS: readonly Shot[] = [
  {
    name: 'begin',
    path: '/begin',
    isFresh: true,
    act: async (page) => {
      await page.getByRole('button', { name: 'Begin my own' }).click();
      await page.getByRole('button', { name: 'Next' }).click();
      for (const line of ['3 trays of 8 dockhands, quick tray', '5 barges']) {
        await page.getByLabel('A unit').fill(line);
        await page.getByLabel('A unit').press('Enter');
      }
    },
  },
  {
    name: 'finder',
    path: '/muster',
    act: async (page) => {
      await page.keyboard.press('Control+k');
      await page.getByRole('combobox', { name: 'Find, or do' }).fill('lamp');
      await page.getByRole('option').first().waitFor();
    },
  },
  { name: 'help', path: '/help' },
  { name: 'plan', path: '/plan?step=hull.cream' },
  {
    name: 'plan-pieces',
    path: '/plan?step=hull.medium',
    act: async (page) => {
      await page
        .getByRole('button', { name: /Dredger/ })
        .first()
        .click();
      await page.getByRole('region', { name: 'The plan' }).evaluate((e) => (e.scrollTop = 9999));
    },
  },
  {
    name: 'plan-day',
    path: '/plan?step=hull.wash',
    act: async (page) => {
      await page.getByRole('button', { name: 'Daylight theme' }).click();
    },
  },
  {
    name: 'odds',
    path: '/plan',
    act: async (page) => {
      await page.getByRole('button', { name: 'Will I make it?' }).click();
      await page.getByText('1000 futures played').waitFor({ timeout: PLANNED_MS });
      await page.getByTestId('latest-start').last().waitFor();
    },
  },
  { name: 'run-sheet', path: '/sheet/3' },
  {
    name: 'tonight',
    path: '/tonight',
    act: async (page) => {
      // The first runs of the first evening.
      for (let k = 0; k < 2; k++) {
        await page.getByRole('button', { name: /^Done/ }).click();
        await page.waitForTimeout(250);
      }
      await page.getByText('planned', { exact: true }).waitFor({ timeout: PLANNED_MS });
    },
  },
  {
    name: 'log',
    path: '/tonight',
    act: async (page) => {
      for (let k = 0; k < 4; k++) {
        await page.getByRole('button', { name: /^Done/ }).click();
        await page.waitForTimeout(250);
      }
      await page.getByText('planned', { exact: true }).waitFor({ timeout: PLANNED_MS });
      // An hour and a quarter later someone looks.
      await page.clock.fastForward('01:15:00');
      for (let k = 0; k < 3; k++) {
        await page
          .getByRole('button', { name: k === 1 ? /: not yet, 30 min more$/ : /: dry$/ })
          .nth(k)
          .click();
        await page.getByText('planned', { exact: true }).waitFor({ timeout: PLANNED_MS });
      }
      await page.getByRole('link', { name: 'Log', exact: true }).click();
      await page.getByRole('heading', { name: 'What happened' }).waitFor();
      // The last notice has passed.
      await page.clock.fastForward('01:00');
    },
  },
  { name: 'muster', path: '/muster?unit=herons' },
  {
    name: 'unit',
    path: '/unit/punts',
    act: async (page) => {
      for (const effect of ['Lift chips with water', 'Dark oil wash', 'Umber shade'])
        await page.getByRole('button', { name: effect, exact: true }).click();
      await page.getByRole('button', { name: 'Deal them out' }).click();
      await page.getByText('No two that stand together are alike').waitFor();
    },
  },
  {
    name: 'musters',
    path: '/musters',
    act: async (page) => {
      await page.getByRole('button', { name: 'Duplicate' }).click();
      await page.getByText('Fen, copy').first().waitFor();
    },
  },
  { name: 'recipes', path: '/recipes/dredger?layer=medium' },
  { name: 'bench', path: '/bench' },
  {
    name: 'air',
    path: '/bench',
    act: async (page) => {
      await page.getByRole('button', { name: 'Take the three-day forecast' }).click();
      await page.getByText('Forget all').waitFor();
      await page.locator('pm-air-chart .main-svg').first().waitFor();
      await page.getByRole('heading', { name: 'The air by the hour' }).scrollIntoViewIfNeeded();
      await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    },
  },
  { name: 'wave', path: '/wave' },
  { name: 'stores', path: '/stores' },
  {
    name: 'findings',
    path: '/recipes/dredger?layer=name-seal',
    act: async (page) => {
      await page.getByRole('button', { name: 'Delete layer' }).click();
      await page.locator('pm-craft-notes .btn-lamp').first().scrollIntoViewIfNeeded();
    },
  },
];

const wanted = process.argv.slice(2);
const out = process.env['SHOTS'] ?? 'docs/screenshots';
const server = createApp(new URL('../dist/web/', import.meta.url)).listen(0, '127.0.0.1');
await new Promise((resolve) => server.once('listening', resolve));
const address = server.address();
if (address === null || typeof address === 'string') throw new Error('The server has no port.');
const browser = await chromium.launch(CHROMIUM);
try {
  for (const shot of SHOTS) {
    if (wanted.length > 0 && !wanted.includes(shot.name)) continue;
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'block',
      locale: 'en-GB',
    });
    const page = await context.newPage();
    page.on('console', (m) => (m.type() === 'error' ? console.log(shot.name, m.text()) : undefined));
    page.on('pageerror', (e) => console.log(shot.name, e.message));
    await page.clock.install({ time: MOMENT });
    const asked = shot.isFresh ? '' : `${shot.path.includes('?') ? '&' : '?'}demo`;
    await page.goto(`http://127.0.0.1:${address.port}${shot.path}${asked}`);
    if (!shot.isFresh) await page.getByText('planned', { exact: true }).waitFor({ timeout: PLANNED_MS });
    await shot.act?.(page);
    await page.waitForTimeout(300);
    await page.screenshot({ path: `${out}/${shot.name}.png` });
    await context.close();
  }
} finally {
  await browser.close();
  server.closeAllConnections();
  server.close();
}
