/** A browser killed in the middle of typing, again and again: what it had shown as kept is there when it comes back. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { seededRandom } from '#core/kernel';
import { CHROMIUM } from '../e2e/chromium';
import { createApp } from '../server/app';
import type { Verdict } from './verdict';

const SOONEST_MS = 150;
const LATEST_MS = 800;
/** A burst of keystrokes, and the pace of a person. */
const PACES_MS = [15, 120];

interface Browser {
  readonly page: Page;
  kill(): Promise<void>;
}

export async function tortureKills(kills: number, seed = 1): Promise<Verdict> {
  const random = seededRandom(seed);
  const server = createApp(new URL('../dist/web/', import.meta.url)).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const address = server.address();
  const url = `http://127.0.0.1:${typeof address === 'object' && address !== null ? address.port : 0}/musters`;
  const folder = mkdtempSync(join(tmpdir(), 'muster-kills-'));
  const faults: string[] = [];
  let written = 0;
  try {
    for (let k = 0; k <= kills; k++) {
      const browser = await open(folder, url.replace('/musters', '/muster'));
      const found = Number(/^n(\d+)$/.exec(await nameIn(browser.page))?.[1] ?? 0);
      if (found < written) faults.push(`kill ${k}: ${found} found, ${written} was shown as kept`);
      written = Math.max(written, found);
      if (k === kills) {
        await browser.kill();
        break;
      }
      await browser.page.exposeFunction('shownAsKept', (n: number) => (written = Math.max(written, n)));
      const pace = PACES_MS[k % PACES_MS.length]!;
      // Types names that count up; each time the sign says “kept”, the name in hand counts as such.
      void browser.page
        .evaluate(
          ([first, ms]) => {
            const input = document.querySelector<HTMLInputElement>('pm-muster-view input')!;
            const sign = document.querySelector('[data-testid=keeping]')!;
            let n = first!;
            new MutationObserver(() => {
              if (sign.textContent === 'kept')
                (window as unknown as { shownAsKept(n: number): void }).shownAsKept(n);
            }).observe(sign, { childList: true, characterData: true, subtree: true });
            setInterval(() => {
              input.focus();
              input.value = `n${++n}`;
              input.dispatchEvent(new Event('input', { bubbles: true }));
              input.dispatchEvent(new Event('blur'));
            }, ms);
          },
          [written, pace],
        )
        .catch(() => undefined);
      const ms = SOONEST_MS + random() * (LATEST_MS - SOONEST_MS);
      await new Promise((resolve) => setTimeout(resolve, ms));
      await browser.kill();
    }
  } finally {
    server.closeAllConnections();
    server.close();
    rmSync(folder, { recursive: true, force: true });
  }
  if (written === 0) faults.push('nothing that was typed was ever shown as kept: nothing was tried');
  return {
    faults,
    told: `${kills} kills while editing, ${written} edits shown as kept`,
  };
}

async function nameIn(page: Page): Promise<string> {
  const input = page.locator('pm-muster-view input').first();
  await input.waitFor({ timeout: 60_000 });
  return input.inputValue();
}

async function open(folder: string, url: string): Promise<Browser> {
  const child = spawn(
    CHROMIUM.executablePath,
    [
      ...CHROMIUM.args,
      '--headless=new',
      '--remote-debugging-port=0',
      `--user-data-dir=${folder}`,
      'about:blank',
    ],
    { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  const endpoint = await endpointOf(child);
  const browser = await chromium.connectOverCDP(endpoint);
  const context = browser.contexts()[0]!;
  const page = context.pages()[0] ?? (await context.newPage());
  await page.goto(`${url}?demo`);
  return {
    page,
    kill: async () => {
      const gone = new Promise((resolve) => child.once('exit', resolve));
      // The whole family of processes that was started here, at once.
      process.kill(-child.pid!, 'SIGKILL');
      await gone;
      await browser.close().catch(() => undefined);
    },
  };
}

function endpointOf(child: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    child.stderr!.on('data', (part: Buffer) => {
      text += part.toString();
      const found = /DevTools listening on (ws:\S+)/.exec(text);
      if (found) resolve(found[1]!);
    });
    child.once('exit', () => reject(new Error(`The browser did not start: ${text.slice(-400)}`)));
  });
}
