import { deflateSync, inflateSync, strFromU8, strToU8 } from 'fflate';
import { fail, ok, type Outcome } from '../quantity';
import { envelope, fileText } from './envelope';
import { DICTIONARY_A } from './linkDictionary';
import { union } from './merge';
import type { System } from './schema';
import { currentSample } from './select';

/** The dictionary a link was made with, by the letter it starts with. */
const DICTIONARIES: Readonly<Record<string, string>> = { a: DICTIONARY_A };
const PRESENT = 'a';
/** More than any system comes to; a text that unpacks to more is not one. */
const MOST_BYTES = 400_000;

/**
 * A system as it travels in an address: its design, water, goal and prices; not what was done, read or thrown away,
 * which belongs to the place it was done at.
 */
export function linked(system: System): System {
  const sample = currentSample(system.source);
  const { report } = sample;
  return {
    ...system,
    demo: false,
    comparison: { referenceId: null, glasses: [] },
    cartridges: [],
    services: [],
    sensors: [],
    source: { ...system.source, samples: [{ ...sample, report: { ...report, text: '' } }] },
    build: { ...system.build, works: [], ratios: [], ports: [] },
  };
}

/** A system here with the design a link carries: what a link leaves behind, the log's marks and the work done, stays as it is here. */
export function withLinked(here: System, there: System): System {
  const { works, ratios, ports } = here.build;
  return {
    ...there,
    id: here.id,
    demo: here.demo,
    createdAt: here.createdAt,
    instruments: union(there.instruments, here.instruments),
    comparison: here.comparison,
    cartridges: here.cartridges,
    services: here.services,
    sensors: here.sensors,
    source: { ...there.source, samples: union(there.source.samples, here.source.samples) },
    build: { ...there.build, works, ratios, ports },
  };
}

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

/** The part of an address behind `#` that carries a system: DEFLATE (RFC 1951) over a dictionary, as text. */
export function linkText(system: System, savedAt: string): string {
  const { version, records } = envelope([{ system: linked(system), readings: [] }], savedAt);
  const json = JSON.stringify({ v: version, t: savedAt, s: records[0]!.system });
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
    return ok(fileText({ ...envelope([], String(data.t)), version: data.v, records: [{ system: data.s, readings: [] }] }));
  } catch {
    return broken('This link is cut short or was changed on the way: scan or copy it again.');
  }
}
