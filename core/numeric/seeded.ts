/** A source of chance that gives the same numbers for the same seed. */
export interface Seeded {
  /** The next number from 0 up to 1. */
  readonly next: () => number;
  /** The next of a normal scatter about 0 with standard deviation 1. */
  readonly normal: () => number;
  /** One of a list. */
  readonly one: <T>(list: readonly T[]) => T;
  /** Between two ends, evenly. */
  readonly between: (low: number, high: number) => number;
}

/** A small generator (mulberry32, public domain): for simulations, never for secrets. */
export function seeded(seed: number): Seeded {
  let state = seed | 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    // Box and Muller 1958 (recalled); one of the two is enough.
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    one: (list) => list[Math.floor(next() * list.length)]!,
    between: (low, high) => low + (high - low) * next(),
  };
}
