import type { System } from '@yes-clear/core/file';

/** Sections of a system that differ between two states. */
export function changedKeys(before: System, after: System): (keyof System)[] {
  return (Object.keys(after) as (keyof System)[]).filter((key) => JSON.stringify(before[key]) !== JSON.stringify(after[key]));
}

/** A system with some sections taken from another state. */
export function restored(current: System, from: System, keys: readonly (keyof System)[]): System {
  const sections = Object.fromEntries(keys.map((key) => [key, from[key]]));
  return { ...current, ...sections };
}
