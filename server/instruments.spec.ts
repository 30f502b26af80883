/** The simulated instruments, over real HTTP. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { unfitness } from '#core/climate';
import { createApp } from './app';

let server: Server;
let base: string;

beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'muster-web-'));
  writeFileSync(join(folder, 'index.html'), '<!doctype html><title>t</title>');
  const app = createApp(pathToFileURL(`${folder}/`), {
    everyMs: 20,
    now: () => new Date('2027-03-02T20:30:00Z'),
  });
  server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const address = server.address();
  base = `http://127.0.0.1:${typeof address === 'object' && address !== null ? address.port : 0}`;
});

afterAll(() => {
  server.closeAllConnections();
  server.close();
});

interface Hour {
  readonly at: string;
  readonly celsius: number;
  readonly humidityPercent: number;
}

describe('the instruments', () => {
  it('send readings as events, one after the other', async () => {
    const abort = new AbortController();
    const response = await fetch(`${base}/instruments/air`, { signal: abort.signal });
    expect(response.headers.get('content-type')).toMatch(/text\/event-stream/);
    const reader = response.body!.getReader();
    let text = '';
    while (text.split('event: reading').length < 4)
      text += new TextDecoder().decode((await reader.read()).value);
    abort.abort();
    const first = JSON.parse(/data: (.*)/.exec(text)![1]!) as Hour;
    expect(first.at).toBe('2027-03-02T20:30:00Z');
    expect(first.humidityPercent).toBeGreaterThan(20);
  });

  it('follow the clock of a rehearsal, and refuse one that is none', async () => {
    const abort = new AbortController();
    const ahead = 3 * 1440 * 60_000;
    const response = await fetch(`${base}/instruments/air?ahead_ms=${ahead}&speed=20`, {
      signal: abort.signal,
    });
    const reader = response.body!.getReader();
    let text = '';
    while (!text.includes('\n\n')) text += new TextDecoder().decode((await reader.read()).value);
    abort.abort();
    expect((JSON.parse(/data: (.*)/.exec(text)![1]!) as Hour).at).toBe('2027-03-05T20:30:00Z');
    for (const query of ['speed=0', 'speed=fast', 'ahead_ms=1.5']) {
      const refused = await fetch(`${base}/instruments/air?${query}`);
      expect(refused.status).toBe(400);
      expect(await refused.text()).toContain('milliseconds');
    }
  });

  it('forecast three days by the hour from any moment, with the fog of Wednesday', async () => {
    const response = await fetch(`${base}/instruments/forecast?from=2027-03-01T18:00:00Z`);
    const { hours } = (await response.json()) as { hours: Hour[] };
    expect(hours).toHaveLength(72);
    expect(hours[0]!.at).toBe('2027-03-01T18:00:00Z');
    const foggy = hours.filter((h) => unfitness('paint', h) !== null);
    expect(foggy.length).toBeGreaterThan(3);
    expect(foggy.every((h) => h.at.startsWith('2027-03-03'))).toBe(true);
  });

  it.each(['soon', '2027-02-30T10:00:00Z', '0027-03-01T18:00:00Z', '2027-03-01T18:00', '%ff', ''])(
    'say what is wrong with %j as a moment',
    async (from) => {
      const response = await fetch(`${base}/instruments/forecast?from=${from}`);
      expect(response.status).toBe(400);
      expect(await response.text()).toMatch(/no instant/);
    },
  );
});
