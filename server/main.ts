/** Serves the built app on 127.0.0.1 with strict headers. Nothing of the user's is stored here. */
import { createApp, serverFor } from './app';

const DEFAULT_PORT = 4620;

const port = Number(process.env['PORT'] ?? DEFAULT_PORT);
if (!Number.isInteger(port) || port < 0 || port > 65_535) {
  process.stderr.write(`PORT is ${process.env['PORT']}: it must be a whole number from 0 to 65535.\n`);
  process.exit(2);
}
const server = serverFor(createApp(new URL('../dist/web/', import.meta.url))).listen(
  port,
  '127.0.0.1',
  () => {
    const address = server.address();
    const shown = typeof address === 'object' && address !== null ? address.port : port;
    // With `--demo` the address shows the demo in a browser that has kept nothing yet; without, it asks.
    const query = process.argv.includes('--demo') ? '?demo' : '';
    process.stdout.write(`Patient Muster is at http://127.0.0.1:${shown}/${query}\n`);
  },
);
server.on('error', (error) => {
  process.stderr.write(
    `The server could not start: ${error.message}\nIs another program using port ${port}? Set PORT to a free one.\n`,
  );
  process.exit(1);
});
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
