import type { Equilibria } from './equilibria';

/** Totals in mol per kg of water; each holds all its species, ion pairs included. */
export interface Totals {
  readonly ca: number;
  readonly mg: number;
  readonly na: number;
  readonly k: number;
  readonly nh4: number;
  readonly fe: number;
  readonly ba: number;
  readonly sr: number;
  readonly cl: number;
  readonly so4: number;
  readonly no3: number;
  readonly f: number;
  readonly po4: number;
  readonly si: number;
  readonly b: number;
  /** Humic anions, by their charge. */
  readonly org: number;
  /** Free chlorine, HOCl + OCl. */
  readonly ocl: number;
}

/** What is known of the carbonate system besides the pH: total carbon, alkalinity (eq/kg) or CO2 pressure (atm). */
export type CarbonateKnown =
  | { readonly by: 'carbon'; readonly molPerKg: number }
  | { readonly by: 'alkalinity'; readonly eqPerKg: number }
  | { readonly by: 'air'; readonly pCO2Atm: number };

/** Species not yet worked out: one shape for all of them, which is what makes rounds on them cheap. */
const UNKNOWN = {
  pH: NaN,
  ionicStrength: NaN,
  gamma1: NaN,
  gamma2: NaN,
  gamma0: NaN,
  h: NaN,
  oh: NaN,
  ca: NaN,
  mg: NaN,
  na: NaN,
  k: NaN,
  co2: NaN,
  hco3: NaN,
  co3: NaN,
  caHco3: NaN,
  caCo3: NaN,
  mgHco3: NaN,
  mgCo3: NaN,
  naHco3: NaN,
  so4: NaN,
  hso4: NaN,
  caSo4: NaN,
  mgSo4: NaN,
  naSo4: NaN,
  kSo4: NaN,
  ba: NaN,
  sr: NaN,
  mgF: NaN,
  caF: NaN,
  caOh: NaN,
  nh4: NaN,
  nh3: NaN,
  h3po4: NaN,
  h2po4: NaN,
  hpo4: NaN,
  po4: NaN,
  h4sio4: NaN,
  h3sio4: NaN,
  boh3: NaN,
  boh4: NaN,
  hocl: NaN,
  ocl: NaN,
  hf: NaN,
  f: NaN,
  /** CO2 + HCO3 + CO3 with their pairs, mol/kg. */
  carbon: NaN,
  /** eq/kg. */
  alkalinity: NaN,
};
/** Concentrations of all species, mol per kg of water, at one pH. */
export type Species = Readonly<typeof UNKNOWN>;

/** Species being worked out. */
export type Unsettled = typeof UNKNOWN;
export const unsettled = (): Unsettled => ({ ...UNKNOWN });

/** Where the inner iteration stands; handing it on makes the next pH converge in a few rounds. */
export interface Seed {
  I: number;
  ca: number;
  mg: number;
  na: number;
  k: number;
  so4: number;
  hco3: number;
  /** The last round changed nothing that matters. */
  settled: boolean;
}

/** Starts from a similar water already solved: most of the rounds are saved. */
export const seedFrom = (near: Species): Seed => ({
  I: near.ionicStrength,
  ca: near.ca,
  mg: near.mg,
  na: near.na,
  k: near.k,
  so4: near.so4,
  hco3: near.hco3,
  settled: false,
});

export const firstSeed = (t: Totals): Seed => ({
  I: 0.5 * (4 * (t.ca + t.mg + t.fe + t.ba + t.sr + t.so4) + t.na + t.k + t.nh4 + t.cl + t.no3 + t.f + t.po4 + t.org),
  ca: t.ca,
  mg: t.mg,
  na: t.na,
  k: t.k,
  so4: t.so4,
  hco3: 0,
  settled: false,
});

/** Relative change below which a quantity has settled. */
const SETTLED = 1e-11;
const moved = (now: number, before: number): boolean => Math.abs(now - before) > SETTLED * Math.abs(now) + 1e-25;

/**
 * One round of successive substitution at a given pH: activities and pairs from the seed, then the seed
 * moved to the new free ions and ionic strength. Davies activity law to I = 0.5 mol/kg, held above.
 *
 * @param into where the species are written, so that rounds on one water make one object; only saves time
 * @returns the species of this round, exact once `seed.settled`; null when alkalinity and pH contradict
 */
export function oneRound(
  t: Totals,
  pH: number,
  known: CarbonateKnown,
  K: Equilibria,
  slope: number,
  seed: Seed,
  into: Unsettled,
): Species | null {
  const aH = 10 ** -pH;
  const { I, ca, mg, na, k, so4, hco3 } = seed;
  const capped = Math.min(I, 0.5);
  const root = Math.sqrt(capped);
  const gamma1 = 10 ** (-slope * (root / (1 + root) - 0.3 * capped));
  const gamma2 = gamma1 * gamma1 * (gamma1 * gamma1);
  const gamma3 = gamma2 * gamma2 * gamma1;
  const gamma0 = 10 ** (0.1 * Math.min(I, 1));
  const h = aH / gamma1;
  const oh = K.kw / (aH * gamma1);

  // Weak acids other than carbonic: each from its total.
  const nh4 = t.nh4 / (1 + (K.ammonium * gamma1) / (aH * gamma0));
  const nh3 = t.nh4 - nh4;
  const p1 = (K.phosphoric1 * gamma0) / (aH * gamma1);
  const p2 = (K.phosphoric2 * gamma1) / (aH * gamma2);
  const p3 = (K.phosphoric3 * gamma2) / (aH * gamma3);
  const h2po4 = t.po4 === 0 ? 0 : t.po4 / (1 / p1 + 1 + p2 * (1 + p3));
  const h3po4 = h2po4 / p1;
  const hpo4 = h2po4 * p2;
  const po4 = hpo4 * p3;
  const h4sio4 = t.si / (1 + (K.silicic * gamma0) / (aH * gamma1));
  const h3sio4 = t.si - h4sio4;
  const boh3 = t.b / (1 + (K.boric * gamma0) / (aH * gamma1));
  const boh4 = t.b - boh3;
  const hocl = t.ocl / (1 + (K.hypochlorous * gamma0) / (aH * gamma1));
  const ocl = t.ocl - hocl;
  // Conditional pair constants, then free sulfate and bicarbonate.
  const oneOne = (gamma1 * gamma1) / gamma0;
  const twoTwo = (gamma2 * gamma2) / gamma0;
  const kCaHco3 = K.caHco3 * gamma2;
  const kMgHco3 = K.mgHco3 * gamma2;
  const kNaHco3 = K.naHco3 * oneOne;
  const kCaCo3 = K.caCo3 * twoTwo;
  const kMgCo3 = K.mgCo3 * twoTwo;
  const kCaSo4 = K.caSo4 * twoTwo;
  const kMgSo4 = K.mgSo4 * twoTwo;
  const kNaSo4 = K.naSo4 * gamma2;
  const kKSo4 = K.kSo4 * gamma2;
  const kBaSo4 = K.baSo4 * twoTwo;
  const kSrSo4 = K.srSo4 * twoTwo;
  const kMgF = K.mgF * gamma2;
  const kCaF = K.caF * gamma2;
  const kCaOh = K.caOh * gamma2;
  const hfPerF = (aH * gamma1) / (K.hydrofluoric * gamma0);
  const f = t.f / (1 + hfPerF + kMgF * mg + kCaF * ca);
  const hf = f * hfPerF;
  const ba = t.ba / (1 + kBaSo4 * so4);
  const sr = t.sr / (1 + kSrSo4 * so4);
  const hso4PerSo4 = (aH * gamma2) / (gamma1 * K.bisulfate);
  const newSo4 = t.so4 / (1 + hso4PerSo4 + kCaSo4 * ca + kMgSo4 * mg + kNaSo4 * na + kKSo4 * k + kBaSo4 * ba + kSrSo4 * sr);
  const hso4 = newSo4 * hso4PerSo4;

  const co2PerHco3 = (gamma1 * aH) / (K.k1 * gamma0);
  const co3PerHco3 = (K.k2 * gamma1) / (aH * gamma2);
  const bicarbonatePairs = kCaHco3 * ca + kMgHco3 * mg + kNaHco3 * na;
  const carbonatePairs = kCaCo3 * ca + kMgCo3 * mg;
  const rest = oh - h - hso4 - hf + nh3 + h3sio4 + hpo4 + 2 * po4 - h3po4 + boh4 + ocl + kCaOh * ca * oh;
  let newHco3: number;
  if (known.by === 'carbon') {
    newHco3 = known.molPerKg / (co2PerHco3 + 1 + bicarbonatePairs + co3PerHco3 * (1 + carbonatePairs));
  } else if (known.by === 'alkalinity') {
    newHco3 = (known.eqPerKg - rest) / (1 + bicarbonatePairs + 2 * co3PerHco3 * (1 + carbonatePairs));
    if (newHco3 < 0) {
      if (newHco3 < -1e-9) return null;
      newHco3 = 0;
    }
  } else {
    newHco3 = (K.k1 * K.kh * known.pCO2Atm) / (aH * gamma1);
  }
  const co3 = newHco3 * co3PerHco3;

  const newCa = t.ca / (1 + kCaHco3 * newHco3 + kCaCo3 * co3 + kCaSo4 * newSo4 + kCaOh * oh + kCaF * f);
  const newMg = t.mg / (1 + kMgHco3 * newHco3 + kMgCo3 * co3 + kMgSo4 * newSo4 + kMgF * f);
  const newNa = t.na / (1 + kNaHco3 * newHco3 + kNaSo4 * newSo4);
  const newK = t.k / (1 + kKSo4 * newSo4);

  const caHco3 = kCaHco3 * newCa * newHco3;
  const mgHco3 = kMgHco3 * newMg * newHco3;
  const mgF = kMgF * newMg * f;
  const caF = kCaF * newCa * f;
  const caOh = kCaOh * newCa * oh;
  const naSo4 = kNaSo4 * newNa * newSo4;
  const kSo4 = kKSo4 * newK * newSo4;
  const newI =
    0.5 *
    (4 * (newCa + newMg + t.fe + ba + sr + co3 + newSo4 + hpo4) +
      9 * po4 +
      newNa +
      newK +
      nh4 +
      h +
      oh +
      t.cl +
      t.no3 +
      t.org +
      f +
      newHco3 +
      hso4 +
      h2po4 +
      h3sio4 +
      boh4 +
      ocl +
      caHco3 +
      mgHco3 +
      naSo4 +
      mgF +
      caF +
      caOh +
      kSo4);

  seed.settled = !(
    moved(newI, I) ||
    moved(newCa, ca) ||
    moved(newMg, mg) ||
    moved(newNa, na) ||
    moved(newSo4, so4) ||
    moved(newHco3, hco3)
  );
  seed.I = newI;
  seed.ca = newCa;
  seed.mg = newMg;
  seed.na = newNa;
  seed.k = newK;
  seed.so4 = newSo4;
  seed.hco3 = newHco3;
  const caCo3 = kCaCo3 * newCa * co3;
  const mgCo3 = kMgCo3 * newMg * co3;
  const naHco3 = kNaHco3 * newNa * newHco3;
  const co2 = newHco3 * co2PerHco3;
  const hco3All = newHco3 + caHco3 + mgHco3 + naHco3;
  const co3All = co3 + caCo3 + mgCo3;
  into.pH = pH;
  into.ionicStrength = newI;
  into.gamma1 = gamma1;
  into.gamma2 = gamma2;
  into.gamma0 = gamma0;
  into.h = h;
  into.oh = oh;
  into.ca = newCa;
  into.mg = newMg;
  into.na = newNa;
  into.k = newK;
  into.co2 = co2;
  into.hco3 = newHco3;
  into.co3 = co3;
  into.caHco3 = caHco3;
  into.caCo3 = caCo3;
  into.mgHco3 = mgHco3;
  into.mgCo3 = mgCo3;
  into.naHco3 = naHco3;
  into.so4 = newSo4;
  into.hso4 = hso4;
  into.caSo4 = kCaSo4 * newCa * newSo4;
  into.mgSo4 = kMgSo4 * newMg * newSo4;
  into.naSo4 = naSo4;
  into.kSo4 = kSo4;
  into.ba = ba;
  into.sr = sr;
  into.mgF = mgF;
  into.caF = caF;
  into.caOh = caOh;
  into.nh4 = nh4;
  into.nh3 = nh3;
  into.h3po4 = h3po4;
  into.h2po4 = h2po4;
  into.hpo4 = hpo4;
  into.po4 = po4;
  into.h4sio4 = h4sio4;
  into.h3sio4 = h3sio4;
  into.boh3 = boh3;
  into.boh4 = boh4;
  into.hocl = hocl;
  into.ocl = ocl;
  into.hf = hf;
  into.f = f;
  into.carbon = co2 + hco3All + co3All;
  into.alkalinity = hco3All + 2 * co3All + rest;
  return into;
}

/** Rounds at a fixed pH until nothing moves; at most 24 were ever needed from 0 to 125 °C and twice seawater. */
export function distribute(t: Totals, pH: number, known: CarbonateKnown, K: Equilibria, slope: number, seed: Seed): Species | null {
  const into = unsettled();
  let species: Species | null = null;
  for (let round = 0; round < 300; round++) {
    species = oneRound(t, pH, known, K, slope, seed, into);
    if (!species || seed.settled) return species;
  }
  return species;
}
