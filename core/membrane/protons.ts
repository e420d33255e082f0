import { findRoot } from '../numeric';
import { balanced, closedSpecies, daviesSlope, equilibria, MOLAR_MASS, molalWater, solutesMgL, type Solute, type Water } from '../water';
import { channelOf, channelState, feedFluid } from './channel';
import type { ElementRow } from './classes';
import type { FoulingFactors, Permeability } from './march';
import { osmoticFunction, type OsmoticFunction, type OsmoticLaw } from './osmosis';
import type { VesselRank } from './ranks';
import { passageOf, SPECIES_ROWS, type SpeciesId } from './species';
import { saltFactor, waterFactor } from './temperature';

/**
 * Hydroxide and hydrogen through the membrane. Protons pass between species at once, while CO2 and bicarbonate change
 * into each other in many seconds (hydration 0.04 1/s, recalled), longer than water stays in an element: along the march
 * CO2 is a gas of its own, and only what is collected comes to full equilibrium. One film and one potential as in the
 * march without them; the operating point is that march's, for flows differ by less than a thousandth.
 */

/** Passage of hydroxide and hydrogen relative to NaCl where the skin is charged, or not (product assumptions: fitted to one measured case). */
const PASSAGE_OH = 900;
const PASSAGE_H = 30;
/** Of ammonia: finite here, for what crosses as NH3 is caught as NH4 in a sour permeate (chosen towards the same case). */
const PASSAGE_NH3 = 120;
/** Ionisation of the skin's carboxyl groups. Coronell et al. 2008 (recalled): about 5.2 and 9. */
const SKIN_PK = { low: 5.2, high: 9.2 } as const;

const STRONG = ['Ca', 'Mg', 'Na', 'K', 'Fe', 'Ba', 'Sr', 'Cl', 'SO4', 'NO3', 'F', 'organic'] as const satisfies readonly SpeciesId[];

/** Two species that change into each other by one proton, and the total they share. */
interface Family {
  readonly of: 'carbon' | Solute;
  readonly acid: SpeciesId;
  readonly base: SpeciesId;
  readonly chargeAcid: number;
  /** Equivalents of alkalinity of the acid form; the base form has one more. */
  readonly alkalinityAcid: number;
  /** Charge with which the total stands in the balance of strong ions. */
  readonly counted: number;
}
const FAMILIES: readonly Family[] = [
  { of: 'carbon', acid: 'HCO3', base: 'CO3', chargeAcid: -1, alkalinityAcid: 1, counted: 0 },
  { of: 'NH4N', acid: 'NH4', base: 'NH3', chargeAcid: 1, alkalinityAcid: 0, counted: 1 },
  { of: 'SiO2', acid: 'SiO2', base: 'H3SiO4', chargeAcid: 0, alkalinityAcid: 0, counted: 0 },
  { of: 'B', acid: 'BOH3', base: 'BOH4', chargeAcid: 0, alkalinityAcid: 0, counted: 0 },
  { of: 'PO4', acid: 'H2PO4', base: 'HPO4', chargeAcid: -1, alkalinityAcid: 0, counted: -1 },
];

/** Constants that turn an activity of H+ into shares: of each family its base, and mmol/L of OH- and H+. */
interface Side {
  readonly K: readonly number[];
  readonly kw: number;
  /** mmol/L of H+ per unit of its activity. */
  readonly perActivity: number;
}

/** The water ahead of the membrane as the march takes it, mmol/L. */
interface Bulk {
  readonly strong: Float64Array;
  readonly family: Float64Array;
  alkalinity: number;
}

interface ProtonMarch {
  readonly row: ElementRow;
  /** What is in the water at all. */
  readonly ions: readonly SpeciesId[];
  readonly charge: Int8Array;
  readonly families: readonly Family[];
  readonly temperatureC: number;
  readonly aLmhPerBar: number;
  /** Salt permeability at zero potential, LMH: of each strong ion, of each family's acid and base, of OH- and H+. */
  readonly strongB: Float64Array;
  readonly acidB: Float64Array;
  readonly baseB: Float64Array;
  readonly ohB: number;
  readonly hB: number;
  readonly wall: Side;
  readonly permeate: Side;
  readonly osmotic: OsmoticFunction;
}
/** Share of a family that stands as its base. */
const baseShare = (side: Side, k: number, aH: number): number => side.K[k]! / (side.K[k]! + aH);

/** Alkalinity of a side at an activity of H+, meq/L. */
function alkalinityAt(side: Side, families: readonly Family[], totals: ArrayLike<number>, aH: number): number {
  let sum = side.kw / aH - side.perActivity * aH;
  for (let k = 0; k < families.length; k++) sum += totals[k]! * (families[k]!.alkalinityAcid + baseShare(side, k, aH));
  return sum;
}

/** Its slope with the logarithm of the activity, always below 0. */
function alkalinitySlope(side: Side, families: readonly Family[], totals: ArrayLike<number>, aH: number): number {
  let sum = -side.kw / aH - side.perActivity * aH;
  for (let k = 0; k < families.length; k++) {
    const share = baseShare(side, k, aH);
    sum -= totals[k]! * share * (1 - share);
  }
  return sum;
}

/** Activity of H+ at which totals have an alkalinity: Newton steps on its logarithm; the sum only falls with it. */
function activityAt(side: Side, families: readonly Family[], totals: ArrayLike<number>, alkalinity: number, guess: number): number {
  let ln = Math.log(guess);
  for (let round = 0; round < 40; round++) {
    const aH = Math.exp(ln);
    const step = (alkalinity - alkalinityAt(side, families, totals, aH)) / alkalinitySlope(side, families, totals, aH);
    ln += Math.max(-1, Math.min(1, step));
    if (Math.abs(step) < 1e-7) break;
  }
  return Math.exp(ln);
}

/** The local state, carried from slice to slice as the first guess of the next. */
interface Local {
  flux: number;
  beta: number;
  potential: number;
  /** pH of the permeate, and activity of H+ at the wall. */
  pH: number;
  wallActivity: number;
  readonly strong: Float64Array;
  readonly family: Float64Array;
  alkalinity: number;
  /** Slopes of charge and current with potential and pH, kept from slice to slice; null where they have to be taken anew. */
  slopes: readonly [number, number, number, number] | null;
  /** Room for the wall and for all species in the order of the osmotic function. */
  readonly wall: Float64Array;
  readonly wallFamily: Float64Array;
  readonly species: Float64Array;
}

const ROUNDS = 12;
const SETTLED = 1e-4;

/** Solves the local balance at a slice: flux, potential and the permeate's pH together, no current, an electroneutral permeate. */
function solveSlice(m: ProtonMarch, state: Local, bulk: Bulk, differenceBar: number, transferLmh: number): void {
  const { families, charge: charges } = m;
  const { wall, wallFamily, species, strong, family } = state;
  const count = charges.length;
  const most = m.aLmhPerBar * differenceBar;
  if (!(state.flux > 0 && state.flux <= most)) state.flux = 0.9 * most;
  for (let round = 0; round < ROUNDS; round++) {
    const J = state.flux;
    const beta = (state.beta = Math.exp(Math.min(J / transferLmh, 30)));
    let wallCations = 0;
    for (let i = 0; i < count; i++) {
      wall[i] = strong[i]! + (bulk.strong[i]! - strong[i]!) * beta;
      if (charges[i]! > 0) wallCations += charges[i]! * wall[i]!;
    }
    for (let k = 0; k < families.length; k++) wallFamily[k] = family[k]! + (bulk.family[k]! - family[k]!) * beta;
    const aW = activityAt(m.wall, families, wallFamily, state.alkalinity + (bulk.alkalinity - state.alkalinity) * beta, state.wallActivity);
    state.wallActivity = aW;
    const pHw = -Math.log10(aW);
    const ohB = m.ohB / (1 + 10 ** (SKIN_PK.high - pHw));
    const hB = m.hB / (1 + 10 ** (pHw - SKIN_PK.low));
    const ohW = m.wall.kw / aW;
    const hW = m.wall.perActivity * aW;

    /** Charge of the permeate against its alkalinity, and current through the skin, at a potential and an activity of H+ in the permeate. */
    const balance = (potential: number, pH: number): Balance => {
      const up = Math.exp(potential);
      const down = 1 / up;
      const aP = Math.exp(-pH * Math.LN10);
      let charge = 0;
      let cations = 0;
      for (let i = 0; i < count; i++) {
        const z = charges[i]!;
        const carried = beta * m.strongB[i]! * (z === 1 ? down : z === -1 ? up : z === 2 ? down * down : up * up);
        const cp = (carried * bulk.strong[i]!) / (J + carried);
        strong[i] = cp;
        charge += z * cp;
        if (z > 0) cations += z * cp;
      }
      let current = J * charge;
      for (let k = 0; k < families.length; k++) {
        const { chargeAcid, counted } = families[k]!;
        const acid = m.acidB[k]! * (chargeAcid === 0 ? 1 : chargeAcid === 1 ? down : up);
        const z = chargeAcid - 1;
        const base = m.baseB[k]! * (z === 0 ? 1 : z === -1 ? up : up * up);
        const baseW = wallFamily[k]! * baseShare(m.wall, k, aW);
        const acidW = wallFamily[k]! - baseW;
        const inPermeate = baseShare(m.permeate, k, aP);
        const total = (acid * acidW + base * baseW) / (J + acid * (1 - inPermeate) + base * inPermeate);
        family[k] = total;
        charge += counted * total;
        current += chargeAcid * acid * (acidW - total * (1 - inPermeate)) + z * base * (baseW - total * inPermeate);
      }
      const sigma = wallCations > 0 ? Math.min(1, cations / wallCations) : 1;
      current -= ohB * up * (ohW - sigma * (m.permeate.kw / aP));
      current += hB * down * (hW - m.permeate.perActivity * aP);
      state.alkalinity = charge;
      return [charge - alkalinityAt(m.permeate, families, family, aP), current];
    };
    neutral(state, balance);

    for (let i = 0; i < count; i++) species[i] = strong[i]! + (bulk.strong[i]! - strong[i]!) * beta;
    fillFamilies(m.wall, families, wallFamily, aW, species, count);
    const wallBar = m.osmotic(species);
    species.set(strong);
    fillFamilies(m.permeate, families, family, Math.exp(-state.pH * Math.LN10), species, count);
    const backBar = wallBar - m.osmotic(species);
    const miss = J - m.aLmhPerBar * (differenceBar - backBar);
    const next = Math.min(most, Math.max(J / 4, J - miss / (1 + (m.aLmhPerBar * Math.max(0, backBar)) / transferLmh)));
    state.flux = next;
    if (Math.abs(next - J) <= SETTLED * J && round > 0) return;
  }
}

/** Acid and base of every family, behind the strong ions. */
function fillFamilies(
  side: Side,
  families: readonly Family[],
  totals: ArrayLike<number>,
  aH: number,
  into: Float64Array,
  from: number,
): void {
  for (let k = 0; k < families.length; k++) {
    const base = totals[k]! * baseShare(side, k, aH);
    into[from + 2 * k] = totals[k]! - base;
    into[from + 2 * k + 1] = base;
  }
}

type Balance = readonly [charge: number, current: number];

/** Steps of the search: how near is near enough, and the step in which slopes are taken. */
const NEAR = 1e-6;
const STEP = 1e-5;

/**
 * Potential and pH of the permeate at which it is neutral and no current flows: both together by steps on slopes that are
 * kept while they serve, and by a bracket where that fails.
 */
function neutral(state: Local, balance: (potential: number, pH: number) => Balance): void {
  let { potential, pH } = state;
  let last = Infinity;
  for (let round = 0; round < 40; round++) {
    const [a, b] = balance(potential, pH);
    if (!state.slopes) {
      const [aX, bX] = balance(potential + STEP, pH);
      const [aY, bY] = balance(potential, pH + STEP);
      state.slopes = [(aX - a) / STEP, (bX - b) / STEP, (aY - a) / STEP, (bY - b) / STEP];
    }
    const [dax, dbx, day, dby] = state.slopes;
    const determinant = dax * dby - day * dbx;
    const moveX = (b * day - a * dby) / determinant;
    const moveY = (a * dbx - b * dax) / determinant;
    const size = Math.abs(moveX) + Math.abs(moveY);
    if (!Number.isFinite(size)) break;
    if (size < NEAR) {
      // The last evaluation stands in the state.
      balance(potential, pH);
      state.potential = potential;
      state.pH = pH;
      return;
    }
    // Slopes that no longer bring it nearer are taken anew.
    if (size > 0.3 * last) state.slopes = null;
    last = size;
    potential = Math.max(-25, Math.min(25, potential + Math.max(-1, Math.min(1, moveX))));
    pH = Math.max(1, Math.min(13, pH + Math.max(-0.7, Math.min(0.7, moveY))));
  }
  state.slopes = null;
  const pHAt = (at: number): number => findRoot((y) => balance(at, y)[0], 1, 13, 1e-10)?.x ?? state.pH;
  const root = findRoot((x) => balance(x, pHAt(x))[1], -25, 25, 1e-9);
  state.potential = root?.x ?? state.potential;
  state.pH = pHAt(state.potential);
  balance(state.potential, state.pH);
}

/** What a march runs at: the point found without protons. */
export interface ProtonPoint {
  readonly membraneFeedLPerH: number;
  readonly feedPressureBar: number;
  readonly permeatePressureBar: number;
}

/** Whether protons move the permeate at all: hydroxide and hydrogen against the salt, or ammonia that could be caught. */
export function protonsMatter(feed: Water): boolean {
  const molal = molalWater(feed);
  const settled = closedSpecies(molal, feed.temperatureC);
  if (!settled.ok) return false;
  const s = settled.value;
  const cations =
    2 * (molal.totals.ca + molal.totals.mg + molal.totals.fe + molal.totals.ba + molal.totals.sr) +
    molal.totals.na +
    molal.totals.k +
    molal.totals.nh4;
  const oh = (PASSAGE_OH * s.oh) / (1 + 10 ** (SKIN_PK.high - s.pH));
  const h = (PASSAGE_H * s.h) / (1 + 10 ** (s.pH - SKIN_PK.low));
  return (oh + h) / Math.max(cations, 1e-12) >= LEAST_SHARE || feed.mgL.NH4N >= LEAST_AMMONIA_MG_L;
}
const LEAST_SHARE = 0.005;
const LEAST_AMMONIA_MG_L = 0.05;

/**
 * Permeate of a unit at a point already found, with hydroxide and hydrogen crossing the skin.
 *
 * @returns null when the feed cannot be speciated or runs dry
 */
export function marchProtons(
  row: ElementRow,
  ranks: readonly VesselRank[],
  permeability: Permeability,
  factors: FoulingFactors,
  law: OsmoticLaw,
  feed: Water,
  point: ProtonPoint,
): Water | null {
  const t = feed.temperatureC;
  const molal = molalWater(feed);
  const settled = closedSpecies(molal, t);
  if (!settled.ok) return null;
  const s = settled.value;
  const K = equilibria(t);
  const perLitre = 1000 * molal.waterKgPerL25;
  const aH = 10 ** -s.pH;
  // Apparent constants: pairs are counted with their anion.
  const hco3 = s.hco3 + s.caHco3 + s.mgHco3 + s.naHco3;
  const co3 = s.co3 + s.caCo3 + s.mgCo3;
  const apparent = (acid: number, base: number, thermodynamic: number): number =>
    acid > 0 && base > 0 ? (aH * base) / acid : thermodynamic;
  const root = Math.sqrt(1e-4);
  const gamma1 = 10 ** (-daviesSlope(t) * (root / (1 + root) - 0.3e-4));
  const gamma2 = gamma1 ** 4;
  const thermodynamic = [
    (K.k2 * gamma1) / gamma2,
    K.ammonium * gamma1,
    K.silicic / gamma1,
    K.boric / gamma1,
    (K.phosphoric2 * gamma1) / gamma2,
  ];
  const apparentOf: readonly number[] = [
    apparent(hco3, co3, thermodynamic[0]!),
    apparent(s.nh4, s.nh3, thermodynamic[1]!),
    apparent(s.h4sio4, s.h3sio4, thermodynamic[2]!),
    apparent(s.boh3, s.boh4, thermodynamic[3]!),
    apparent(s.h2po4 + s.h3po4, s.hpo4 + s.po4, thermodynamic[4]!),
  ];
  const mmolL = (solute: Solute): number => feed.mgL[solute] / MOLAR_MASS[solute];
  const co2 = s.co2 * perLitre;
  const familyMmolL = ({ of }: Family): number => (of === 'carbon' ? (hco3 + co3) * perLitre : mmolL(of));
  const ions = STRONG.filter((id) => mmolL(id) > 0);
  const families = FAMILIES.filter((one) => familyMmolL(one) > 0);
  const present = families.map((one) => FAMILIES.indexOf(one));
  const wall: Side = { K: present.map((k) => apparentOf[k]!), kw: s.oh * perLitre * aH, perActivity: (s.h * perLitre) / aH };
  const permeate: Side = { K: present.map((k) => thermodynamic[k]!), kw: (K.kw / gamma1) * perLitre, perActivity: perLitre / gamma1 };
  const b = permeability.bLmh * factors.salt * saltFactor(t);
  const passage = (id: SpeciesId): number => b * (id === 'NH3' ? PASSAGE_NH3 : passageOf(id, row));
  const march: ProtonMarch = {
    row,
    ions,
    charge: Int8Array.from(ions, (id) => SPECIES_ROWS[id].charge),
    families,
    temperatureC: t,
    aLmhPerBar: permeability.aLmhPerBar * factors.water * waterFactor(t),
    strongB: Float64Array.from(ions, passage),
    acidB: Float64Array.from(families, ({ acid }) => passage(acid)),
    baseB: Float64Array.from(families, ({ base }) => passage(base)),
    ohB: b * PASSAGE_OH,
    hB: b * PASSAGE_H,
    wall,
    permeate,
    osmotic: osmoticFunction(law, [...ions, ...families.flatMap(({ acid, base }) => [acid, base])], t),
  };
  const bulk: Bulk = {
    strong: Float64Array.from(ions, (id) => mmolL(id)),
    family: Float64Array.from(families, familyMmolL),
    alkalinity: 0,
  };
  bulk.alkalinity = alkalinityAt(wall, families, bulk.family, aH);
  const state: Local = {
    flux: 0,
    beta: 1,
    potential: 0,
    pH: Math.max(3, Math.min(11, s.pH - 1)),
    wallActivity: aH,
    strong: Float64Array.from(bulk.strong, (c) => 0.02 * c),
    family: Float64Array.from(bulk.family, (c) => 0.02 * c),
    alkalinity: 0.02 * bulk.alkalinity,
    slopes: null,
    wall: new Float64Array(ions.length),
    wallFamily: new Float64Array(families.length),
    species: new Float64Array(ions.length + 2 * families.length),
  };

  let flow = point.membraneFeedLPerH;
  let pressure = point.feedPressureBar;
  let made = 0;
  const out = { strong: new Float64Array(ions.length), family: new Float64Array(families.length) };
  let current: Bulk = bulk;
  for (const rank of ranks) {
    let perVessel = flow / rank.vessels;
    for (let element = 0; element < rank.elementsPerVessel; element++) {
      const run = marchOne(march, state, perVessel, current, pressure, point.permeatePressureBar);
      if (!run) return null;
      made += (perVessel - run.flow) * rank.vessels;
      ions.forEach((_, i) => (out.strong[i]! += (perVessel * current.strong[i]! - run.flow * run.bulk.strong[i]!) * rank.vessels));
      families.forEach((_, k) => (out.family[k]! += (perVessel * current.family[k]! - run.flow * run.bulk.family[k]!) * rank.vessels));
      perVessel = run.flow;
      pressure = run.pressure;
      current = run.bulk;
    }
    flow = perVessel * rank.vessels;
  }
  if (!(made > 0)) return null;
  const waterOf = (strong: (i: number) => number, family: (k: number) => number): Water => {
    const mgL: Partial<Record<Solute, number>> = {};
    ions.forEach((id, i) => (mgL[id] = Math.max(0, strong(i)) * MOLAR_MASS[id]));
    let carbon = co2;
    families.forEach(({ of }, k) => {
      if (of === 'carbon') carbon += Math.max(0, family(k));
      else mgL[of] = Math.max(0, family(k)) * MOLAR_MASS[of];
    });
    // Gases stand alike on both sides.
    return balanced(solutesMgL({ ...mgL, chlorine: feed.mgL.chlorine, chloramine: feed.mgL.chloramine }), carbon, t);
  };
  return waterOf(
    (i) => out.strong[i]! / made,
    (k) => out.family[k]! / made,
  );
}

/** Equal-area slices of the second march: its flows are the first one's, and six find what passes within the rows' tolerance. */
const PROTON_SLICES = 6;

/** One element by explicit midpoint, as the march without protons has it; null when it runs dry. */
function marchOne(
  m: ProtonMarch,
  state: Local,
  feedLPerH: number,
  feed: Bulk,
  feedBar: number,
  permeateBar: number,
): { readonly flow: number; readonly bulk: Bulk; readonly pressure: number } | null {
  const channel = channelOf(m.row);
  const fluid = feedFluid(m.temperatureC);
  const dS = m.row.areaM2 / PROTON_SLICES;
  const amounts = {
    strong: Float64Array.from(feed.strong, (c) => c * feedLPerH),
    family: Float64Array.from(feed.family, (c) => c * feedLPerH),
  };
  let alkalinity = feed.alkalinity * feedLPerH;
  let q = feedLPerH;
  let pressure = feedBar;
  const bulk: Bulk = { strong: new Float64Array(feed.strong.length), family: new Float64Array(feed.family.length), alkalinity: 0 };
  /** The bulk after so much of the flux at hand has left. */
  const at = (flow: number, left: number): void => {
    for (let i = 0; i < bulk.strong.length; i++) bulk.strong[i] = (amounts.strong[i]! - left * state.strong[i]!) / flow;
    for (let k = 0; k < bulk.family.length; k++) bulk.family[k] = (amounts.family[k]! - left * state.family[k]!) / flow;
    bulk.alkalinity = (alkalinity - left * state.alkalinity) / flow;
  };
  const strength = (): number => {
    let mg = 0;
    m.ions.forEach((id, i) => (mg += SPECIES_ROWS[id].gPerMol * bulk.strong[i]!));
    m.families.forEach(({ acid }, k) => (mg += SPECIES_ROWS[acid].gPerMol * bulk.family[k]!));
    return mg;
  };
  for (let slice = 0; slice < PROTON_SLICES; slice++) {
    at(q, 0);
    const inlet = channelState(channel, fluid, q, strength());
    if (pressure <= permeateBar) return null;
    solveSlice(m, state, bulk, pressure - permeateBar, inlet.transferLmh);
    const qHalf = q - (state.flux * dS) / 2;
    if (qHalf <= 0.001 * feedLPerH) return null;
    at(qHalf, (state.flux * dS) / 2);
    const half = channelState(channel, fluid, qHalf, strength());
    solveSlice(m, state, bulk, Math.max(1e-9, pressure - inlet.lossBar / (2 * PROTON_SLICES) - permeateBar), half.transferLmh);
    const taken = state.flux * dS;
    q -= taken;
    if (q <= 0.001 * feedLPerH) return null;
    for (let i = 0; i < amounts.strong.length; i++) amounts.strong[i]! -= taken * state.strong[i]!;
    for (let k = 0; k < amounts.family.length; k++) amounts.family[k]! -= taken * state.family[k]!;
    alkalinity -= taken * state.alkalinity;
    pressure -= half.lossBar / PROTON_SLICES;
  }
  const left: Bulk = {
    strong: Float64Array.from(amounts.strong, (n) => n / q),
    family: Float64Array.from(amounts.family, (n) => n / q),
    alkalinity: alkalinity / q,
  };
  return { flow: q, bulk: left, pressure };
}
