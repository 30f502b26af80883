import { mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { tmpdir } from 'node:os';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app';

describe('the server', () => {
  let server: Server;
  let base = '';
  beforeAll(async () => {
    const folder = mkdtempSync(`${tmpdir()}/muster-web-`);
    writeFileSync(`${folder}/index.html`, '<!doctype html><title>Patient Muster</title>');
    writeFileSync(`${folder}/main-ABC.js`, '1');
    server = createApp(pathToFileURL(`${folder}/`)).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const address = server.address();
    if (address === null || typeof address === 'string') throw new Error('no port');
    base = `http://127.0.0.1:${address.port}`;
  });
  afterAll(() => void server.close());

  it('lets scripts and connections come from itself only', async () => {
    const response = await fetch(`${base}/`);
    const policy = response.headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toContain('unsafe-inline');
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    expect(response.headers.get('x-powered-by')).toBeNull();
  });

  it('answers every view with the app, asked for anew each time', async () => {
    const response = await fetch(`${base}/recipes/some`);
    expect(await response.text()).toContain('Patient Muster');
    expect(response.headers.get('cache-control')).toBe('no-cache');
  });

  it('keeps hashed files and misses what is not there', async () => {
    expect((await fetch(`${base}/main-ABC.js`)).headers.get('cache-control')).toContain('immutable');
    expect((await fetch(`${base}/nothing.js`)).status).toBe(404);
  });

  it('says when the app is not built', () => {
    expect(() => createApp(pathToFileURL('/nowhere/'))).toThrow(/build/);
  });
});
