import { id, name } from '../quantity';
import { z } from 'zod';

/** What is kept beside a system's readings: records of meters, and pictures. Packed, and checked when it is unpacked. */

const instant = z.iso.datetime({ offset: true });
/** Bytes as base64 (RFC 4648, section 4). */
const bytes = z.string().regex(/^[A-Za-z0-9+/]*={0,2}$/, 'base64');

/** A stretch of a record: its figures packed, see `core/recording/packed.ts`. */
const packedBlockSchema = z.strictObject({
  channel: z.string().min(1).max(120),
  tier: z.enum(['kept', 'every', 'minute', 'hour']),
  startMs: z.number().int(),
  data: bytes,
});
const packedRecordingSchema = z.strictObject({
  id: z.string().min(1).max(160),
  name: z.string().max(200),
  from: z.enum(['file', 'air']),
  addedAt: instant,
  rows: z.number().int().min(0),
  /** The instrument that stood at each probe, by probe. */
  instruments: z.record(id, id),
  blocks: z.array(packedBlockSchema).max(200_000),
});
const packedPhotoSchema = z.strictObject({
  id,
  readingId: id,
  takenAt: instant,
  type: name,
  data: bytes,
});
export const besideSchema = z.strictObject({
  recordings: z.array(packedRecordingSchema).max(2000),
  photos: z.array(packedPhotoSchema).max(20_000),
});
export type Beside = z.infer<typeof besideSchema>;
export type PackedRecording = z.infer<typeof packedRecordingSchema>;
export type PackedPhoto = z.infer<typeof packedPhotoSchema>;

/** Characters at once: more are too many for the arguments of a call. */
const PIECE = 0x8000;

/** Bytes as base64. */
export function textOfBytes(data: Uint8Array): string {
  let binary = '';
  for (let i = 0; i < data.length; i += PIECE) binary += String.fromCharCode(...data.subarray(i, i + PIECE));
  return btoa(binary);
}

/** Base64 as bytes. @throws where it is none */
export const bytesOfText = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (character) => character.charCodeAt(0));
