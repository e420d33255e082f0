import { Transform } from 'node:stream';
import type { Request, Response } from 'express';

/** What every source of meters on the air shares: the head of a stream of events, where a browser goes on, and a sign of life. */

/** From one sign of life to the next, ms: a browser gives up what is silent for longer than several of them. */
export const BEAT_MS = 15_000;
export const BEAT = 'event: beat\ndata: 1\n\n';

/** Begins a stream of events. */
export function beginEvents(response: Response): void {
  response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' });
}

/** Writes into a stream; what waits for its reader is waited for. */
export function written(response: Response, text: string): Promise<void> | undefined {
  if (response.write(text)) return undefined;
  return new Promise((done) => {
    const goOn = (): void => {
      response.off('drain', goOn).off('close', goOn);
      done();
    };
    response.on('drain', goOn).on('close', goOn);
  });
}

/** Where a browser goes on: what it was given last, by its own word or the address. */
export function lastHeard(request: Request): number | null {
  const said = request.get('Last-Event-ID') ?? request.query['after'];
  const id = typeof said === 'string' && said !== '' ? Number(said) : NaN;
  return Number.isFinite(id) && id >= 0 ? id : null;
}

/** What was asked for and is not kept any more. */
export const gapEvent = (from: number, until: number): string => `event: gap\ndata: ${JSON.stringify({ from, until })}\n\n`;

/** One pack, with the id to go on from. */
export const packEvent = (id: number, pack: unknown): string => `id: ${id}\nevent: senml\ndata: ${JSON.stringify(pack)}\n\n`;

/**
 * A stream handed on, with signs of life between its events; one that says nothing for so long is given up.
 *
 * @param idleMs how long its source may be silent
 */
export function handedOn(idleMs: number, hangs: () => void): Transform {
  let ends = '';
  let last = Date.now();
  const through = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      last = Date.now();
      ends = (ends + chunk.toString('latin1')).slice(-4);
      done(null, chunk);
    },
  });
  const beat = setInterval(
    () => {
      if (Date.now() - last > idleMs) hangs();
      // Never in the midst of an event.
      else if (ends === '' || /(?:\n\n|\r\n\r\n)$/.test(ends)) through.push(BEAT);
    },
    Math.min(BEAT_MS, idleMs / 3),
  );
  through.once('close', () => clearInterval(beat));
  return through;
}
