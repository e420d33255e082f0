import { findRoot } from '../numeric';
import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { densityKgPerL } from './properties';
import { CACO3_G_PER_EQ, eachSolute, HCO3_PER_ALKALINITY, SOLUTES, type Solute } from './solutes';
import { dissolvedMgL, molalWater, openToAir, type Water } from './water';
import { characterWater } from './characters';

/** Everything conserved in a water, per kg of water. */
interface PerKg {
  readonly mg: Readonly<Record<Solute, number>>;
  readonly alkalinityMg: number;
  readonly carbonMmol: number;
}

function perKg(water: Water): PerKg & { readonly waterKgPerL: number } {
  const W = molalWater(water).waterKgPerL25;
  return {
    mg: eachSolute((s) => water.mgL[s] / W),
    alkalinityMg: water.alkalinityMgL / W,
    carbonMmol: water.carbonMmolL / W,
    waterKgPerL: W,
  };
}

/** Back to litres of solution: W = ρ − 0.3e-6·TDS and TDS itself holds W, so the two close to one division. */
function perLitre(amounts: PerKg, temperatureC: number): Water {
  const tdsPerKg = SOLUTES.reduce((sum, s) => sum + amounts.mg[s], 0) + HCO3_PER_ALKALINITY * Math.max(0, amounts.alkalinityMg);
  const W = densityKgPerL(25) / (1 + 0.3e-6 * tdsPerKg);
  return {
    mgL: eachSolute((s) => amounts.mg[s] * W),
    alkalinityMgL: amounts.alkalinityMg * W,
    carbonMmolL: amounts.carbonMmol * W,
    temperatureC,
  };
}

/** One water of a mixture. */
export interface MixPart {
  readonly water: Water;
  readonly volumeL: number;
}

/**
 * Mixes waters in a closed vessel: totals, alkalinity and carbon are summed by kg of water, the temperature by
 * mass. pH and conductivity follow from solving the mixture; neither is ever averaged.
 *
 * @returns an error when a volume is negative or none is above 0
 */
export function mixWaters(parts: readonly MixPart[]): Outcome<Water> {
  const negative = firstError(...parts.map((part, i) => outOfRange(`parts[${i}].volumeL`, 'Volume', part.volumeL, 0, 1e9, 'L')));
  if (negative) return { ok: false, error: negative };
  const contents = parts.filter((part) => part.volumeL > 0).map((part) => ({ ...perKg(part.water), part }));
  const mass = contents.reduce((sum, c) => sum + c.part.volumeL * c.waterKgPerL, 0);
  if (mass === 0) return fail('parts', 0, 'at least one volume above 0', 'There is nothing to mix: every volume is 0.');
  const mean = (of: (content: (typeof contents)[number]) => number): number =>
    contents.reduce((sum, c) => sum + (of(c) * c.part.volumeL * c.waterKgPerL) / mass, 0);
  const amounts = {
    mg: eachSolute((s) => mean((c) => c.mg[s])),
    alkalinityMg: mean((c) => c.alkalinityMg),
    carbonMmol: mean((c) => c.carbonMmol),
  };
  return ok(
    perLitre(
      amounts,
      mean((c) => c.part.water.temperatureC),
    ),
  );
}

/** Share of `addition` in a mixture with `base` at which a figure of the mixture meets a target, 0–1; null when none does. */
export function shareForTarget(base: Water, addition: Water, figure: (water: Water) => number, target: number): number | null {
  const miss = (share: number): number => {
    const mixed = mixWaters([
      { water: base, volumeL: 1 - share },
      { water: addition, volumeL: share },
    ]);
    return mixed.ok ? figure(mixed.value) - target : Number.NaN;
  };
  return findRoot(miss, 0, 1, 1e-9)?.x ?? null;
}

/** Salinity, g/kg of solution, counted from what is dissolved. */
export function salinityOf(water: Water): number {
  const tds = dissolvedMgL(water.mgL, water.alkalinityMgL);
  return tds / 1000 / (molalWater(water).waterKgPerL25 + tds / 1e6);
}

/**
 * Grams of dry sea salts per litre of water for a practical salinity; 36.3 at 35.
 * Mixes as sold hold 5–15 % water: multiply by `SALT_MIX_MOISTURE` and finish by meter (common practice).
 */
export function seaSaltGPerL(salinity: number): Outcome<number> {
  const wrong = outOfRange('salinity', 'Salinity', salinity, 0, 80, 'g/kg');
  return wrong ? { ok: false, error: wrong } : ok((1.0018 * salinity) / (1 - 0.0010047 * salinity));
}
export const SALT_MIX_MOISTURE = 1.1;

/** A water after sea salt was mixed into it to a salinity, standing open to air. */
export function withSeaSalt(water: Water, salinity: number): Outcome<Water> {
  const grams = seaSaltGPerL(salinity);
  if (!grams.ok) return grams;
  const sea = characterWater('seawater', 1);
  if (!sea.ok) return sea;
  const salts = perKg(sea.value);
  const strength = grams.value / (1.0018 * 35) / (1 / (1 - 0.0010047 * 35));
  const own = perKg(water);
  const salted = perLitre(
    {
      mg: eachSolute((s) => own.mg[s] + salts.mg[s] * strength),
      alkalinityMg: own.alkalinityMg + salts.alkalinityMg * strength,
      carbonMmol: own.carbonMmol + salts.carbonMmol * strength,
    },
    water.temperatureC,
  );
  return openToAir(salted);
}

/** Adds amounts in mg/L (and alkalinity in mg/L as CaCO3 with equal carbon) to a water; volume is taken as unchanged. */
export function withAdded(water: Water, added: Partial<Record<Solute, number>>, bicarbonateMmolL: number): Water {
  return {
    ...water,
    mgL: eachSolute((s) => water.mgL[s] + (added[s] ?? 0)),
    alkalinityMgL: water.alkalinityMgL + bicarbonateMmolL * CACO3_G_PER_EQ,
    carbonMmolL: water.carbonMmolL + bicarbonateMmolL,
  };
}

/** A water at another strength, everything in it in proportion. */
export const strengthened = (water: Water, factor: number): Water => ({
  ...water,
  mgL: eachSolute((solute) => water.mgL[solute] * factor),
  alkalinityMgL: water.alkalinityMgL * factor,
  carbonMmolL: water.carbonMmolL * factor,
});
