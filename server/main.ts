import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import express, { type Express } from 'express';
import { supplyRoutes } from './supply';

/** Folder of the built app. */
export const DIST = resolve(fileURLToPath(new URL('.', import.meta.url)), '../app/dist');

/**
 * The server: hands out the built app and made-up supply reports. It keeps no data; that stays in the browser.
 *
 * @param demo whether a browser that has never been here starts with the demonstration loaded
 */
export function createServer(dist: string, demo: boolean): Express {
  const server = express();
  server.disable('x-powered-by');
  const page = async (): Promise<string> => {
    const html = await readFile(resolve(dist, 'index.html'), 'utf8');
    return demo ? html.replace('name="yes-clear-demo" content="off"', 'name="yes-clear-demo" content="on"') : html;
  };
  server.get(['/', '/index.html'], async (_request, response) => {
    response
      .type('html')
      .set('Cache-Control', 'no-cache')
      .send(await page());
  });
  server.use('/api/supply', supplyRoutes());
  server.use(express.static(dist, { index: false, maxAge: 0 }));
  // Every other path without a file ending is a page of the app.
  server.get(/^[^.]*$/, async (_request, response) => {
    response
      .type('html')
      .set('Cache-Control', 'no-cache')
      .send(await page());
  });
  return server;
}

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  const port = Number(process.env['PORT'] ?? 4173);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    console.error(`PORT is ${process.env['PORT']}; accepted is a whole number from 1 to 65535.`);
    process.exit(1);
  }
  const demo = process.env['YES_CLEAR_DEMO'] !== 'off';
  createServer(DIST, demo).listen(port, '127.0.0.1', (error) => {
    if (error) {
      console.error(`Port ${port} cannot be used (${error.message}). Set another one: PORT=8080 npm start`);
      process.exit(1);
    }
    console.log(`Yes Clear is at http://127.0.0.1:${port}`);
  });
}
