import { normalCumulative, normalDensity, normalQuantile } from '../numeric';

/**
 * What a cartridge takes up until the product passes its goal, as a belief that every cartridge before it has sharpened
 * (science of logs, 5). Loads are in equivalents as the log counts them, so that what is common to all cartridges of a
 * site cancels between what was learned and what is forecast.
 */

/** ln Θ ~ Normal(mean, sd²), Θ the load at the goal in eq, of this kind of cartridge at this site. */
export interface CapacityBelief {
  readonly lnMean: number;
  readonly sd: number;
}

/** Scatter of one cartridge about its kind, and doubt of the kind before anything was seen (product assumptions, 5.3). */
export const BED_SD = 0.1;
export const PRIOR_SD = 0.22;
/** Random share of a counted load, of one interval (5.1). */
const LOAD_SD_RANDOM = 0.1;

/** Relative standard deviation of the random part of a load summed over n intervals. */
export const loadSd = (intervals: number): number => LOAD_SD_RANDOM / Math.sqrt(Math.max(1, intervals));

/** The belief before anything was seen: the balance capacity at the goal, ± 22 %. */
export function priorCapacity(balanceEq: number, sd = PRIOR_SD): CapacityBelief {
  return { lnMean: Math.log(balanceEq), sd };
}

/**
 * What one cartridge tells of Θ. `loadSd` is the random relative sd of its load, without the scatter of cartridges.
 *
 * - `breakthrough`: the product passed the goal at this load
 * - `between`: clean at the first load, past the goal at the second
 * - `removedBefore`: still clean when it was removed
 * - `unread`: nobody read the product at the end; `saidSpent` and `saidClean` are the chances of the answer given, were it
 *   spent or clean
 */
export type CapacityEvidence =
  | { readonly kind: 'breakthrough' | 'removedBefore'; readonly loadEq: number; readonly loadSd: number }
  | { readonly kind: 'between'; readonly fromEq: number; readonly toEq: number; readonly loadSd: number }
  | {
      readonly kind: 'unread';
      readonly loadEq: number;
      readonly loadSd: number;
      readonly saidSpent: number;
      readonly saidClean: number;
    };

/** An interval this narrow is a figure: the grid would see nothing between its ends. */
const NARROW = 1.002;
/** Points and half width, in standard deviations, of the grid an interval is integrated on. */
const GRID = { points: 401, halfSds: 5 } as const;

/**
 * Bayesian update of the belief by one cartridge, collapsed to a normal by its moments.
 *
 * @param bedSd scatter of a cartridge about its kind; of a row of k beds told by their mean, BED_SD/√k
 */
export function updateCapacity(belief: CapacityBelief, seen: CapacityEvidence, bedSd = BED_SD): CapacityBelief {
  const observed = Math.hypot(bedSd, seen.loadSd);
  switch (seen.kind) {
    case 'breakthrough':
      return exact(belief, seen.loadEq, observed);
    case 'removedBefore':
      return above(belief, seen.loadEq, observed);
    case 'between':
      if (!(seen.fromEq > 0)) return below(belief, seen.toEq, observed);
      if (seen.toEq / seen.fromEq < NARROW) return exact(belief, Math.sqrt(seen.fromEq * seen.toEq), observed);
      return between(belief, seen.fromEq, seen.toEq, observed);
    case 'unread': {
      const spent = spentBy(belief, seen, bedSd);
      if (!(spent >= 0)) return belief;
      return mixed(
        spent,
        spent > TINY ? below(belief, seen.loadEq, observed) : belief,
        spent < 1 - TINY ? above(belief, seen.loadEq, observed) : belief,
      );
    }
  }
}
const TINY = 1e-9;

/** Chance that a cartridge nobody read at the end was spent, given the answer; NaN where the answer is impossible. */
export function spentBy(belief: CapacityBelief, seen: Extract<CapacityEvidence, { kind: 'unread' }>, bedSd = BED_SD): number {
  const spent = normalCumulative((Math.log(seen.loadEq) - belief.lnMean) / Math.hypot(belief.sd, bedSd, seen.loadSd));
  return (seen.saidSpent * spent) / (seen.saidSpent * spent + seen.saidClean * (1 - spent));
}

function exact(belief: CapacityBelief, loadEq: number, sd: number): CapacityBelief {
  const [before, seen] = [1 / belief.sd ** 2, 1 / (sd * sd)];
  return { lnMean: (belief.lnMean * before + Math.log(loadEq) * seen) / (before + seen), sd: 1 / Math.sqrt(before + seen) };
}

/** Normal of one side of a soft edge, in closed form: the mean moves by the hazard, the variance shrinks. */
function oneSided(belief: CapacityBelief, loadEq: number, sd: number, side: 1 | -1): CapacityBelief {
  const s2 = belief.sd ** 2;
  const t = Math.hypot(belief.sd, sd);
  const z = (side * (Math.log(loadEq) - belief.lnMean)) / t;
  // The tail is taken directly, for 1 − Φ cancels to nothing; beyond z = 8 the ratio tends to z + 1/z.
  const hazard = z > 8 ? z + 1 / z : normalDensity(z) / normalCumulative(-z);
  return {
    lnMean: belief.lnMean + (side * s2 * hazard) / t,
    sd: Math.sqrt(s2 - (s2 * s2 * hazard * (hazard - z)) / (t * t)),
  };
}
const above = (belief: CapacityBelief, loadEq: number, sd: number): CapacityBelief => oneSided(belief, loadEq, sd, 1);
const below = (belief: CapacityBelief, loadEq: number, sd: number): CapacityBelief => oneSided(belief, loadEq, sd, -1);

function between(belief: CapacityBelief, fromEq: number, toEq: number, sd: number): CapacityBelief {
  const [from, to] = [Math.log(fromEq), Math.log(toEq)];
  let [weight, first, second] = [0, 0, 0];
  for (let i = 0; i < GRID.points; i++) {
    const z = GRID.halfSds * ((2 * i) / (GRID.points - 1) - 1);
    const x = belief.lnMean + z * belief.sd;
    const w = Math.exp(-z * z * 0.5) * Math.max(0, normalCumulative((to - x) / sd) - normalCumulative((from - x) / sd));
    weight += w;
    first += w * z;
    second += w * z * z;
  }
  // Nothing of the belief lies there: the nearer edge, as a figure.
  if (!(weight > 1e-12)) return exact(belief, belief.lnMean < from ? fromEq : toEq, sd);
  const middle = first / weight;
  return { lnMean: belief.lnMean + middle * belief.sd, sd: belief.sd * Math.sqrt(second / weight - middle * middle) };
}

/** Two beliefs of which the first holds with a chance p, as one normal of the same mean and variance. */
function mixed(p: number, a: CapacityBelief, b: CapacityBelief): CapacityBelief {
  const lnMean = p * a.lnMean + (1 - p) * b.lnMean;
  const variance = p * (a.sd ** 2 + (a.lnMean - lnMean) ** 2) + (1 - p) * (b.sd ** 2 + (b.lnMean - lnMean) ** 2);
  return { lnMean, sd: Math.sqrt(variance) };
}

/** A quantity as a band: one in ten below, the middle, one in ten above. */
export interface Band {
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
}
export const bandOf = (at: (share: number) => number): Band => ({ p10: at(0.1), p50: at(0.5), p90: at(0.9) });

/**
 * Load at which one cartridge in service ends, at a share of its belief: it was clean at a load, so it ends beyond.
 *
 * @param sd relative sd of its own end about the kind's mean: scatter of cartridges and random part of the load
 */
export function endAt(belief: CapacityBelief, cleanAtEq: number, sd: number): (share: number) => number {
  const s = Math.hypot(belief.sd, sd);
  const already = cleanAtEq > 0 ? normalCumulative((Math.log(cleanAtEq) - belief.lnMean) / s) : 0;
  return (share) => {
    // Far in the tail a normal falls off as an exponential of rate z: nothing cancels there.
    if (already > 1 - TAIL) return cleanAtEq * Math.exp((-s * Math.log(1 - share)) / ((Math.log(cleanAtEq) - belief.lnMean) / s));
    return Math.max(cleanAtEq, Math.exp(belief.lnMean + s * normalQuantile(already + share * (1 - already))));
  };
}
const TAIL = 1e-6;

export interface CartridgeForecast {
  /** Share of the capacity left, 0–1. */
  readonly remaining: Band;
  /** Days until spent at the given rate; null when nothing is being used. */
  readonly daysLeft: Band | null;
}

/**
 * What is left of a cartridge in service that has not broken through at its load.
 *
 * @param loadEq equivalents taken up so far
 * @param sdOfLoad relative sd of the load's random part, see `loadSd`
 * @param rateEqPerDay present use
 */
export function forecastCartridge(belief: CapacityBelief, loadEq: number, sdOfLoad: number, rateEqPerDay: number): CartridgeForecast {
  const end = endAt(belief, loadEq, Math.hypot(BED_SD, sdOfLoad));
  return {
    remaining: bandOf((share) => Math.max(0, 1 - loadEq / end(share))),
    daysLeft: rateEqPerDay > 0 ? bandOf((share) => Math.max(0, (end(share) - loadEq) / rateEqPerDay)) : null,
  };
}

/**
 * Load expected to stand in a row beyond its first beds: E[(L − Θ)+], Θ lognormal. What it holds when the lead is removed.
 *
 * @param loadEq what the row has taken up, with what it held before
 * @param belief of the beds that are removed, taken together
 */
export function carriedBeyondEq(loadEq: number, { lnMean, sd }: CapacityBelief): number {
  if (!(loadEq > 0)) return 0;
  const d = (Math.log(loadEq) - lnMean) / sd;
  return loadEq * normalCumulative(d) - Math.exp(lnMean + (sd * sd) / 2) * normalCumulative(d - sd);
}
