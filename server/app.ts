import { readFile } from 'node:fs/promises';
import { isIP } from 'node:net';
import { resolve, sep } from 'node:path';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { BrokerMeters } from './broker';
import { benchRoutes, brokerRoutes, gatewayRoutes } from './meters';
import { supplyRoutes } from './supply';

/** What a server hands out, and to whom. */
export interface ServerOptions {
  /** Folder of the built app. */
  readonly dist: string;
  /** Whether a browser that has never been here starts with the demonstration loaded. */
  readonly demo: boolean;
  /** Names and addresses it answers to beside those of this machine alone. */
  readonly hosts?: readonly string[];
  /** Address of a gateway of meters, or what a broker's say; the simulated bench where there is neither. */
  readonly meters?: string | BrokerMeters | null;
}

/** A year: a file whose name holds its content's hash never changes. */
const HASHED = 'public, max-age=31536000, immutable';
const ASK_FIRST = 'no-cache';

/**
 * The server: hands out the built app, made-up supply reports and meters on the air. It keeps no data; that stays in the browser.
 */
export function createServer({ dist, demo, hosts = [], meters = null }: ServerOptions): Express {
  const server = express();
  server.disable('x-powered-by');
  server.use(onlyFor(hosts), securityHeaders(), permissions, readable, compression());
  const page: RequestHandler = async (_request, response) => {
    let html: string;
    try {
      html = await readFile(resolve(dist, 'index.html'), 'utf8');
    } catch {
      response.status(503).type('text').send('The app has not been built yet: run “npm run build”, then ask again.');
      return;
    }
    response
      .type('html')
      .set('Cache-Control', ASK_FIRST)
      .send(demo ? html.replace('name="yes-clear-demo" content="off"', 'name="yes-clear-demo" content="on"') : html);
  };
  server.get(['/', '/index.html'], page);
  server.use('/api/supply', supplyRoutes());
  server.use('/api/meters', meters === null ? benchRoutes() : typeof meters === 'string' ? gatewayRoutes(meters) : brokerRoutes(meters));
  server.use('/api', (request, response) => {
    response
      .status(404)
      .json({ message: `There is no ${request.method} ${request.baseUrl}${request.path} here. Known: GET /api/supply, GET /api/meters.` });
  });
  server.use(
    express.static(dist, {
      index: false,
      redirect: false,
      cacheControl: false,
      setHeaders: (response, path) => {
        response.setHeader('Cache-Control', path.startsWith(resolve(dist, 'assets') + sep) ? HASHED : ASK_FIRST);
      },
    }),
  );
  // Every other path without a file ending is a page of the app.
  server.get(/^[^.]*$/, page);
  server.use((_request, response) => {
    response.status(404).type('text').send('There is nothing at this address.');
  });
  server.use(said);
  return server;
}

/** What went wrong in words, without anything of this machine in them. */
const said: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : 500;
  const asked = status >= 400 && status < 500;
  if (!asked) console.error(error);
  response
    .status(asked ? status : 500)
    .json({ message: asked ? 'This address cannot be read: mend it and ask again.' : 'The server failed at this; the app goes on.' });
};

/** The policy of the page: only what comes from here, no code made out of text, nobody's frame. */
export const CONTENT_SECURITY = {
  defaultSrc: ["'none'"],
  scriptSrc: ["'self'"],
  workerSrc: ["'self'"],
  connectSrc: ["'self'"],
  imgSrc: ["'self'", 'data:'],
  fontSrc: ["'self'"],
  manifestSrc: ["'self'"],
  // The component library writes its theme into a style element while the page runs.
  styleSrc: ["'self'", "'unsafe-inline'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};
export const PERMISSIONS =
  'accelerometer=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), microphone=(), payment=(), usb=()';

const securityHeaders = (): RequestHandler =>
  helmet({
    contentSecurityPolicy: { useDefaults: false, directives: CONTENT_SECURITY },
    xFrameOptions: { action: 'deny' },
    referrerPolicy: { policy: 'no-referrer' },
    // An address of the local network may serve other things without https.
    strictTransportSecurity: false,
  });

const permissions: RequestHandler = (_request, response, next) => {
  response.setHeader('Permissions-Policy', PERMISSIONS);
  next();
};

/** An address that cannot be read is said to be so, whatever it might have led to. */
const readable: RequestHandler = (request, _response, next) => {
  try {
    decodeURIComponent(request.path);
    next();
  } catch {
    next(Object.assign(new Error('unreadable address'), { status: 400 }));
  }
};

/** The name in a Host header, without its port. */
function hostName(header: string): string {
  const bracketed = /^\[([^\]]+)\](?::\d+)?$/.exec(header);
  return (bracketed ? bracketed[1]! : header.replace(/:\d+$/, '')).toLowerCase();
}
const isLoopback = (name: string): boolean => name === 'localhost' || name === '::1' || (isIP(name) === 4 && name.startsWith('127.'));

/** Answers only to names of its own: a foreign page that points its name here gets nothing. */
function onlyFor(hosts: readonly string[]): RequestHandler {
  const known = new Set(hosts.map((host) => host.toLowerCase()));
  return (request, response, next) => {
    const name = hostName(request.headers.host ?? '');
    if (isLoopback(name) || known.has(name)) next();
    else response.status(421).type('text').send('This server does not answer to that name.');
  };
}
