import { mkdtempSync, writeFileSync } from 'node:fs';
import { request, type IncomingMessage, type RequestOptions, type Server } from 'node:http';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp, serverFor } from './app';

describe('the server', () => {
  let server: Server;
  let web: URL;
  let base = '';
  beforeAll(async () => {
    const folder = mkdtempSync(`${tmpdir()}/muster-web-`);
    writeFileSync(`${folder}/index.html`, '<!doctype html><title>Patient Muster</title>');
    writeFileSync(`${folder}/main-ABC.js`, '1');
    writeFileSync(`${folder}/large-ABC.js`, 'const grey = 1;\n'.repeat(2000));
    web = pathToFileURL(`${folder}/`);
    server = createApp(web).listen(0, '127.0.0.1');
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

  /** As `fetch` would not: any header, any path. */
  const asked = (options: RequestOptions): Promise<IncomingMessage & { text: string }> =>
    new Promise((resolve, reject) => {
      const { port } = new URL(base);
      request({ host: '127.0.0.1', port, path: '/', ...options }, (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (part: string) => (text += part));
        response.on('end', () => resolve(Object.assign(response, { text })));
      })
        .on('error', reject)
        .end();
    });

  it.each(['POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'TRACE'])('has no %s', async (method) => {
    for (const path of ['/', '/instruments/forecast', '/main-ABC.js']) {
      const response = await asked({ method, path });
      expect([response.statusCode, response.headers.allow]).toEqual([405, 'GET, HEAD']);
    }
  });

  it('answers to its own names and port only', async () => {
    const { port } = new URL(base);
    for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, `LOCALHOST:${port}`, `[::1]:${port}`])
      expect((await asked({ headers: { host } })).statusCode, host).toBe(200);
    for (const host of [
      'elsewhere.example',
      `elsewhere.example:${port}`,
      'localhost',
      'localhost:1',
      `127.0.0.1.example:${port}`,
      `x@localhost:${port}`,
    ])
      expect((await asked({ headers: { host } })).statusCode, host).toBe(421);
  });

  it.each(['/%ff', '/%', '/instruments/%ff', '/a%5c..%5cb.js', '/..%2f..%2fetc/hosts.txt'])(
    'tells nothing of its disk or its code at %s',
    async (path) => {
      const response = await asked({ path });
      expect(response.statusCode).toBeGreaterThanOrEqual(400);
      expect(response.statusCode).toBeLessThan(500);
      expect(response.text).not.toMatch(/node_modules|\.ts|\.js:|at |Error|muster-web|tmp/);
      expect(response.headers['content-type']).toContain('text/plain');
    },
  );

  it('sends what is large compressed, to those who can read it', async () => {
    const zipped = await asked({ path: '/large-ABC.js', headers: { 'accept-encoding': 'gzip' } });
    expect(zipped.headers['content-encoding']).toBe('gzip');
    const plain = await asked({ path: '/large-ABC.js' });
    expect(plain.headers['content-encoding']).toBeUndefined();
    expect(plain.text.length).toBe(32_000);
  });

  it('cuts a socket that never says what it wants', async () => {
    const quick = serverFor(createApp(web), { headersMs: 50, requestMs: 50, checkMs: 20 });
    await new Promise<void>((resolve) => quick.listen(0, '127.0.0.1', resolve));
    const address = quick.address();
    const socket = connect(typeof address === 'object' ? address!.port : 0, '127.0.0.1');
    const closed = new Promise((resolve) => socket.on('error', () => undefined).once('close', resolve));
    socket.resume().write('GET / HTTP/1.1\r\nHost: loc');
    await closed;
    quick.close();
  });

  it('says when the app is not built', () => {
    expect(() => createApp(pathToFileURL('/nowhere/'))).toThrow(/build/);
  });
});
