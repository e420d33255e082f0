import { setImmediate as breathe } from 'node:timers/promises';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { json, Router, type Request, type Response } from 'express';
import { benchAt, TICK_MS, type Sent } from './bench/bench';
import { SENSORS } from './bench/sensors';
import type { BrokerMeters } from './broker';
import { FAULTS, faultSchema, type SetFault } from './bench/faults';
import { BEAT, BEAT_MS, beginEvents, gapEvent, handedOn, lastHeard, packEvent, written } from './stream';

/** Meters on the air: the simulated bench, or a gateway that speaks the same. See docs/meters.md. */

/** What the bench remembers, ms: a browser that was away for less misses nothing. */
const MEMORY_MS = 48 * 3_600_000;
/** Looks at the meters in one event while a gap is being filled. */
const IN_ONE_EVENT = 60;
/** A gateway has so long to answer, and may say nothing for so long, ms; then it is given up, and asked again by who listens. */
export const GATEWAY_MS = { answers: 10_000, silent: 60_000 };

/** A record of RFC 8428; the first of a look bears its time as base time, s. */
type SentRecord = Sent & { readonly bt?: number };

function packOf(looks: readonly number[], faults: readonly SetFault[]): SentRecord[] {
  return looks.flatMap((ms) => benchAt(ms, faults).map((sent, i) => (i === 0 ? { bt: ms / 1000, ...sent } : sent)));
}

/** Sends every look at the bench from where a browser left off, and then each as it comes. */
async function stream(request: Request, response: Response, faults: readonly SetFault[]): Promise<void> {
  beginEvents(response);
  let open = true;
  request.once('close', () => (open = false));
  const now = (): number => Math.floor(Date.now() / TICK_MS) * TICK_MS;
  const send = (text: string): Promise<void> | undefined => written(response, text);
  await send('retry: 2000\n\n');
  let last = lastHeard(request) ?? now() - TICK_MS;
  const oldest = now() - MEMORY_MS;
  if (last < oldest) {
    await send(gapEvent(last, oldest));
    last = oldest;
  }
  last = Math.floor(last / TICK_MS) * TICK_MS;
  let beat = Date.now();
  while (open) {
    const behind = Math.min(IN_ONE_EVENT, (now() - last) / TICK_MS);
    if (behind >= 1) {
      const looks = Array.from({ length: behind }, (_, i) => last + (i + 1) * TICK_MS);
      last = looks.at(-1)!;
      await send(packEvent(last, packOf(looks, faults)));
      await breathe();
    } else {
      await new Promise((done) => setTimeout(done, Math.min(1000, TICK_MS - (Date.now() % TICK_MS) + 5)));
      if (Date.now() - beat > BEAT_MS) {
        await send(BEAT);
        beat = Date.now();
      }
    }
  }
}

/** The simulated bench. */
export function benchRoutes(): Router {
  const router = Router();
  /** One list that every stream looks into: a fault that is set now shows in the next look. */
  const faults: SetFault[] = [];
  router.get('/', (_request, response) => {
    response.json({ name: 'Simulated bench', simulated: true, sensors: SENSORS });
  });
  router.get('/stream', (request, response, next) => {
    stream(request, response, faults).catch(next);
  });
  router.get('/faults', (_request, response) => {
    response.json({ known: FAULTS, set: faults });
  });
  router.post('/faults', json({ limit: '4kb' }), (request, response) => {
    const asked = faultSchema.safeParse(request.body);
    if (!asked.success) {
      const { path, message } = asked.error.issues[0]!;
      response
        .status(400)
        .json({ message: `${path.join('.') || 'the body'}: ${message}. Known faults: ${Object.keys(FAULTS).join(', ')}.` });
      return;
    }
    faults.push({ ...asked.data, sinceMs: Math.floor(Date.now() / TICK_MS) * TICK_MS });
    response.json({ set: faults });
  });
  router.delete('/faults', (_request, response) => {
    faults.length = 0;
    response.json({ set: faults });
  });
  return router;
}

/** Hands on a gateway of this network that speaks the same: pages may only listen to where they come from. */
export function gatewayRoutes(gateway: string, ms = GATEWAY_MS): Router {
  const router = Router();
  const base = gateway.replace(/\/+$/, '');
  router.get(['/', '/stream'], async (request, response) => {
    const leaves = new AbortController();
    response.once('close', () => leaves.abort());
    const last = request.get('Last-Event-ID');
    const late = setTimeout(() => leaves.abort(), ms.answers);
    const query = request.url.includes('?') ? request.url.slice(request.url.indexOf('?')) : '';
    try {
      const answer = await fetch(`${base}${request.path === '/' ? '' : request.path}${query}`, {
        signal: leaves.signal,
        headers: last === undefined ? {} : { 'Last-Event-ID': last },
      });
      clearTimeout(late);
      response.status(answer.status);
      response.setHeader('Content-Type', answer.headers.get('Content-Type') ?? 'application/octet-stream');
      response.setHeader('Cache-Control', 'no-cache, no-transform');
      if (!answer.body) {
        response.end();
        return;
      }
      response.flushHeaders();
      const body = Readable.fromWeb(answer.body as ReadableStream).on('error', () => response.end());
      if (request.path === '/') body.pipe(response);
      else body.pipe(handedOn(ms.silent, () => leaves.abort())).pipe(response);
    } catch {
      clearTimeout(late);
      if (!response.headersSent && !response.destroyed)
        response.status(502).json({ message: `The meters at ${base} do not answer. Is the gateway on?` });
    }
  });
  return router;
}

/** What a broker's meters say, over the same three addresses as a gateway's. */
export function brokerRoutes(meters: BrokerMeters): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const { name, sensors, connected, refused } = meters;
    if (connected) response.json({ name, simulated: false, sensors, refused });
    else response.status(502).json({ message: `The broker of the meters at ${name} does not answer. Is it on?` });
  });
  router.get('/stream', (request, response, next) => {
    meters.stream(request, response).catch(next);
  });
  return router;
}
