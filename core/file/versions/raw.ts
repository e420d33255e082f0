/** Data of an older version: what is not where it should be is left as it is, for the schema to name. */
export type Data = Record<string, unknown>;

export const isData = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);
export const without = (data: Data, ...keys: string[]): Data =>
  Object.fromEntries(Object.entries(data).filter(([key]) => !keys.includes(key)));

/** Each of a list of records changed; what is no list stays. */
export const each = (list: unknown, change: (one: Data) => unknown): unknown =>
  Array.isArray(list) ? list.map((one: unknown) => (isData(one) ? change(one) : one)) : list;

/** What one version of the file changed: how a system and a reading of the version before become one of this. */
export interface FileVersion {
  readonly version: number;
  readonly system: (system: unknown) => unknown;
  readonly reading: (reading: unknown) => unknown;
}

/** For what a version left as it was. */
export const asItWas = (data: unknown): unknown => data;
