import { deflateSync, inflateSync } from 'fflate';
import { bytesOfText, textOfBytes } from '../file';
import { fail, ok, type Outcome } from '../quantity';
import type { Block } from './block';

/** Bytes a block may unpack to: a month at ten figures a second. */
const MOST_BYTES = 512_000_000;

/**
 * A block's figures as text for a file: DEFLATE (RFC 1951) of the instants (32 bits each, as steps from one to the next),
 * the values (64 bits) and, where minutes or hours stand, lows, highs (64) and counts (32), little-endian; as base64.
 */
export function packedFigures({ at, value, low, high, count }: Block): string {
  const steps = Uint32Array.from(at, (ms, i) => (i === 0 ? ms : ms - at[i - 1]!));
  const parts = [steps, value, ...(low && high && count ? [low, high, count] : [])];
  const all = new Uint8Array(parts.reduce((sum, { byteLength }) => sum + byteLength, 0));
  parts.reduce((place, part) => {
    all.set(new Uint8Array(part.buffer, part.byteOffset, part.byteLength), place);
    return place + part.byteLength;
  }, 0);
  return textOfBytes(deflateSync(all, { level: 6 }));
}

const PLAIN_BYTES = 4 + 8;
const ROLLED_BYTES = PLAIN_BYTES + 8 + 8 + 4;

/** A block of a file; an error where its figures are cut short, or out of the order of time. */
export function unpackedBlock(tier: Block['tier'], startMs: number, data: string): Outcome<Block> {
  const broken = (why: string): Outcome<Block> =>
    fail('data', data.slice(0, 12), 'the whole of a packed block', `A block of a record ${why}: the file was cut short or changed.`);
  let all: Uint8Array;
  try {
    all = inflateSync(bytesOfText(data));
  } catch {
    return broken('cannot be unpacked');
  }
  const each = tier === 'minute' || tier === 'hour' ? ROLLED_BYTES : PLAIN_BYTES;
  if (all.length === 0 || all.length % each !== 0 || all.length > MOST_BYTES) return broken('has not the length it should have');
  const n = all.length / each;
  let place = 0;
  const take = (bytes: number): ArrayBuffer => {
    const part = all.slice(place, place + n * bytes);
    place += n * bytes;
    return part.buffer;
  };
  const steps = new Uint32Array(take(4));
  let ms = 0;
  const at = Uint32Array.from(steps, (step) => (ms += step));
  const value = new Float64Array(take(8));
  const rolled = each === ROLLED_BYTES;
  const block: Block = {
    tier,
    startMs,
    at,
    value,
    low: rolled ? new Float64Array(take(8)) : null,
    high: rolled ? new Float64Array(take(8)) : null,
    count: rolled ? new Uint32Array(take(4)) : null,
  };
  if (at.some((one, i) => i > 0 && one <= at[i - 1]!)) return broken('goes back in time');
  return value.every(Number.isFinite) ? ok(block) : broken('has a figure that is none');
}
