import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import { fail, ok, type Outcome } from '../quantity';
import { linked } from './design';
import { envelope, fileText } from './envelope';
import { DICTIONARY_A, DICTIONARY_B } from './linkDictionary';
import type { System } from './schema';

/** The dictionary a link was made with, by the letter it starts with. */
const DICTIONARIES: Readonly<Record<string, string>> = { a: DICTIONARY_A, b: DICTIONARY_B };
const PRESENT = 'b';
/** More than any system comes to; a text that unpacks to more is not one. */
const MOST_BYTES = 400_000;

/** Bytes as text for an address (RFC 4648, section 5, without padding). */
function toText(bytes: Uint8Array): string {
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return btoa(binary).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');
}

function toBytes(text: string): Uint8Array {
  const binary = atob(text.replaceAll('-', '+').replaceAll('_', '/'));
  return Uint8Array.from(binary, (character) => character.charCodeAt(0));
}

/** What most systems hold alike, and a link leaves out: the dictionary does not know these words. */
const ALIKE = { away: [], orderDays: null, removed: [] } as const;

/** A system without what is as nearly all have it; `long` puts it back. */
function short(system: System): unknown {
  const { away: _away, removed: _removed, orderDays, ...rest } = system;
  const { season, ...demand } = rest.goal.demand;
  return {
    ...rest,
    ...(orderDays === null ? {} : { orderDays }),
    goal: { ...rest.goal, demand: season === null ? demand : { ...demand, season } },
  };
}

/** A system of a link with what it left out. Links of older versions are brought up like any file. */
function long(system: unknown, version: unknown): unknown {
  if (typeof version !== 'number' || version < FIRST_SHORT || typeof system !== 'object' || system === null) return system;
  const { goal, ...rest } = system as { goal?: { demand?: object } };
  return {
    ...ALIKE,
    ...rest,
    ...(goal ? { goal: { ...goal, ...(goal.demand ? { demand: { season: null, ...goal.demand } } : {}) } } : {}),
  };
}
/** Version of the file from which links leave it out. */
const FIRST_SHORT = 13;

/** The part of an address behind `#` that carries a system: DEFLATE (RFC 1951) over a dictionary, as text. */
export function linkText(system: System, savedAt: string): string {
  const { version, records } = envelope([{ system: linked(system), readings: [] }], savedAt);
  const json = JSON.stringify({ v: version, t: savedAt, s: short(records[0]!.system) });
  return PRESENT + toText(deflateSync(strToU8(json), { level: 9, dictionary: strToU8(DICTIONARIES[PRESENT]!) }));
}

/**
 * A link's part behind `#` as the text of a file, to be read and checked like any other.
 *
 * @returns an error that says what is wrong with the link
 */
export function fileFromLink(text: string): Outcome<string> {
  const dictionary = DICTIONARIES[text[0] ?? ''];
  const broken = (why: string): Outcome<string> =>
    fail('link', text.slice(0, 12), 'the whole part behind #, as it was scanned or copied', why);
  if (dictionary === undefined) return broken('This link does not carry a system, or was made by a newer version.');
  try {
    const json = strFromU8(inflateSync(toBytes(text.slice(1)), { dictionary: strToU8(dictionary), out: new Uint8Array(MOST_BYTES) }));
    const data = JSON.parse(json) as { v?: unknown; t?: unknown; s?: unknown };
    return ok(fileText({ ...envelope([], String(data.t)), version: data.v, records: [{ system: long(data.s, data.v), readings: [] }] }));
  } catch {
    return broken('This link is cut short or was changed on the way: scan or copy it again.');
  }
}
