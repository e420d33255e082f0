import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { distribute, firstSeed, oneRound, seedFrom, unsettled, type CarbonateKnown, type Species, type Totals } from './distribution';
import type { Equilibria } from './equilibria';

/** Product over sum: the buffering weight of an acid and its base. */
const pairBuffer = (acid: number, base: number): number => (acid + base === 0 ? 0 : (acid * base) / (acid + base));

/** Change of alkalinity with pH, eq/kg per unit: the slope for the joint iteration, near enough to converge fast. */
function bufferCapacity(s: Species, carbonFixed: boolean): number {
  const carbonate = carbonFixed
    ? s.carbon === 0
      ? 0
      : (s.co2 * s.hco3 + 4 * s.co2 * s.co3 + s.hco3 * s.co3) / s.carbon
    : s.hco3 + 4 * s.co3;
  return (
    Math.LN10 *
    (s.h +
      s.oh +
      carbonate +
      pairBuffer(s.nh4, s.nh3) +
      pairBuffer(s.h2po4, s.hpo4) +
      pairBuffer(s.h4sio4, s.h3sio4) +
      pairBuffer(s.boh3, s.boh4) +
      pairBuffer(s.hocl, s.ocl) +
      pairBuffer(s.hso4, s.so4) +
      pairBuffer(s.hf, s.f))
  );
}

/**
 * Moves pH, activities and pairs together: one round, one Newton step on the alkalinity, again.
 * Several times faster than bracketing; gives up (null) when it has not settled, and the bracket decides.
 */
function jointPH(
  t: Totals,
  alkalinity: number,
  known: CarbonateKnown,
  K: Equilibria,
  slope: number,
  guess: number,
  near: Species | undefined,
): Species | null {
  const seed = near ? seedFrom(near) : firstSeed(t);
  const into = unsettled();
  let pH = near?.pH ?? guess;
  for (let round = 0; round < 80; round++) {
    const species = oneRound(t, pH, known, K, slope, seed, into);
    if (!species) return null;
    const step = (alkalinity - species.alkalinity) / bufferCapacity(species, known.by === 'carbon');
    if (seed.settled && Math.abs(step) < 1e-10) return species;
    if (!Number.isFinite(step)) return null;
    pH += Math.max(-1, Math.min(1, step));
    if (pH < 0 || pH > 14) return null;
  }
  return null;
}

const tooStrong = (s: Species): boolean => s.ionicStrength > 3;

/**
 * Species at a known pH (mode a with alkalinity; also with total carbon or air).
 *
 * @param totals mol/kg
 * @param K constants at the temperature to which the pH belongs
 * @param near a similar water already solved; only saves time
 * @returns species, or an error naming pH and alkalinity when they contradict each other
 */
export function speciateAtPH(totals: Totals, pH: number, known: CarbonateKnown, K: Equilibria, near?: Species): Outcome<Species> {
  const species = distribute(totals, pH, known, K, K.slope, near ? seedFrom(near) : firstSeed(totals));
  if (!species) {
    const alkalinityMgL = known.by === 'alkalinity' ? Math.round(known.eqPerKg * 50043.5 * 10) / 10 : null;
    return fail(
      'pH',
      pH,
      'a pH and an alkalinity that fit together',
      `pH ${pH} is not possible with alkalinity ${alkalinityMgL} mg/L as CaCO₃. Check both.`,
    );
  }
  if (tooStrong(species)) return brineError(species);
  return ok(species);
}

/**
 * Species and pH of a water whose alkalinity is known together with total carbon or the air above it
 * (modes b, c and d). Alkalinity rises strictly with pH at fixed carbon, so a bracket always works.
 *
 * @param alkalinityEqPerKg the water's alkalinity; for permeates and pure water use `neutralAlkalinity`
 * @param guess pH near which to look first; only saves time
 * @param near a similar water already solved, such as the same one at another temperature; only saves time
 */
export function solvePH(
  totals: Totals,
  alkalinityEqPerKg: number,
  known: Exclude<CarbonateKnown, { by: 'alkalinity' }>,
  K: Equilibria,
  guess = 7,
  near?: Species,
): Outcome<Species> {
  const { slope } = K;
  const joint = jointPH(totals, alkalinityEqPerKg, known, K, slope, guess, near);
  if (joint) return tooStrong(joint) ? brineError(joint) : ok(joint);

  const seed = firstSeed(totals);
  const excess = (pH: number): number => {
    const species = distribute(totals, pH, known, K, slope, seed);
    return species ? species.alkalinity - alkalinityEqPerKg : Number.NaN;
  };
  const root = findRoot(excess, 0, 14, 1e-11);
  const settled = root && distribute(totals, root.x, known, K, slope, seed);
  if (settled) return tooStrong(settled) ? brineError(settled) : ok(settled);
  const mgL = Math.round(alkalinityEqPerKg * 50043.5 * 100) / 100;
  return fail('alkalinityMgL', mgL, '-500 to 40000 mg/L as CaCO₃', `No pH fits an alkalinity of ${mgL} mg/L as CaCO₃.`);
}

function brineError(species: Species): Outcome<Species> {
  const I = Number(species.ionicStrength.toPrecision(3));
  return fail('ionicStrength', I, 'at most 3 mol/kg', `This brine is too strong to compute (ionic strength ${I} mol/kg; at most 3).`);
}
