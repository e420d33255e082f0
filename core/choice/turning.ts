/** Where an answer turns: the nearest values of one input at which another kind of option wins (science of options, 6). */

/** A point at which two kinds cost the same, or one of them drops out. */
export interface Turning {
  readonly at: number;
  /** A rule begins to prune there: the costs do not meet. */
  readonly jump: boolean;
}
/** The turning points to either side of what was entered; the side that wins throughout where there is none. */
export interface Turnings {
  readonly below: Turning | 'none';
  readonly above: Turning | 'none';
}
export interface TurningRange {
  readonly low: number;
  readonly high: number;
  readonly scale: 'geometric' | 'linear';
}

const SCANNED = 17;
const RELATIVE = 1e-6;
/** A difference on both sides of a turning point beyond this share of the larger cost is a jump. */
const MEETS = 1e-3;

/**
 * Scans and bisects for the nearest changes of sign.
 *
 * @param ahead how much the best of all other kinds costs more than the best of the recommended one; infinite where one side has none
 * @param relative how near a turn is closed in on
 * @param cost of the recommended kind at a value, against which a jump is told; 1 where absent
 */
export function turningsOf(
  ahead: (x: number) => number,
  at: number,
  { low, high, scale }: TurningRange,
  cost: (x: number) => number = () => 1,
  relative = RELATIVE,
): Turnings {
  const place = (share: number): number => (scale === 'linear' ? low + (high - low) * share : low * (high / low) ** share);
  const xs = [...Array.from({ length: SCANNED }, (_, i) => place(i / (SCANNED - 1))), at].sort((a, b) => a - b);
  const middle = (a: number, b: number): number => (scale === 'linear' ? (a + b) / 2 : Math.sqrt(a * b));
  const here = xs.indexOf(at);
  const signs = new Map<number, number>();
  const valueAt = (x: number): number => {
    const known = signs.get(x);
    if (known !== undefined) return known;
    const value = ahead(x);
    signs.set(x, value);
    return value;
  };
  const bisected = (near: number, far: number): Turning => {
    let [a, b] = [near, far];
    while (Math.abs(b - a) > relative * Math.max(Math.abs(a), Math.abs(b))) {
      const x = middle(a, b);
      if (x === a || x === b) break;
      if (valueAt(x) > 0 === valueAt(near) > 0) a = x;
      else b = x;
    }
    const apart = Math.max(Math.abs(valueAt(a)), Math.abs(valueAt(b)));
    return { at: middle(a, b), jump: !(apart <= MEETS * Math.max(1, Math.abs(cost(a)))) };
  };
  const look = (step: 1 | -1): Turning | 'none' => {
    for (let i = here; i + step >= 0 && i + step < xs.length; i += step)
      if (valueAt(xs[i]!) > 0 !== valueAt(xs[i + step]!) > 0) return bisected(xs[i]!, xs[i + step]!);
    return 'none';
  };
  return { below: look(-1), above: look(1) };
}
