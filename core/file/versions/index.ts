import { isData, type FileVersion } from './raw';

export { asItWas } from './raw';
import { version2 } from './version2';
import { version3 } from './version3';
import { version4 } from './version4';
import { version5 } from './version5';
import { version6 } from './version6';
import { version7 } from './version7';
import { version8 } from './version8';
import { version9 } from './version9';
import { version10 } from './version10';
import { version11 } from './version11';
import { version12 } from './version12';
import { version13 } from './version13';

/**
 * Every version of the file since the first, each in a file of its own. A new one is a file beside these and one entry
 * here: the version that is written and the way there from any older one follow.
 */
export const FILE_VERSIONS: readonly FileVersion[] = [
  version2,
  version3,
  version4,
  version5,
  version6,
  version7,
  version8,
  version9,
  version10,
  version11,
  version12,
  version13,
];

/** The version that is written. */
export const FILE_VERSION = FILE_VERSIONS[FILE_VERSIONS.length - 1]!.version;

/** Carries data of an older version through every later one, system or reading. */
function broughtUp(of: 'system' | 'reading', data: unknown, from: number): unknown {
  return FILE_VERSIONS.filter(({ version }) => version > from).reduce((at, step) => step[of](at), data);
}

/** A whole file brought up to the present version. */
export function migrated(data: unknown): unknown {
  if (!isData(data)) return data;
  const { records, version } = data;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version >= FILE_VERSION) return data;
  const record = (one: unknown): unknown =>
    isData(one)
      ? {
          ...one,
          system: broughtUp('system', one['system'], version),
          readings: Array.isArray(one['readings'])
            ? one['readings'].map((reading: unknown) => broughtUp('reading', reading, version))
            : one['readings'],
        }
      : one;
  return { ...data, version: FILE_VERSION, records: Array.isArray(records) ? records.map(record) : records };
}
