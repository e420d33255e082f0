import { fail, ok, L_PER_US_GALLON, type Outcome } from '../quantity';
import type { ElementRow } from './classes';
import { CLEAN, marchElement, marchSetup, type Permeability } from './march';
import type { OsmoticLaw } from './osmosis';
import { feedSpecies } from './species';

/** Sodium chloride as a feed, mmol/L from mg/L. */
export function sodiumChloride(mgL: number): ReturnType<typeof feedSpecies> {
  const mmolL = mgL / (22.99 + 35.453);
  return feedSpecies({ Na: mmolL, Cl: mmolL });
}

/**
 * Finds the permeabilities with which an element makes its nominal flow and rejection at its own test
 * condition; the round trip holds to 1e-8.
 *
 * @returns LMH/bar and LMH at 25 °C, or an error naming `testPressureBar`, `nominalRejection` or `nominalFlowGpd`
 */
export function derivePermeability(row: ElementRow, law: OsmoticLaw): Outcome<Permeability> {
  if (!(row.nominalRejection > 0 && row.nominalRejection < 1)) {
    return fail(
      'nominalRejection',
      row.nominalRejection,
      'above 0 and below 1',
      `Nominal rejection is ${row.nominalRejection}; accepted is above 0 and below 1.`,
    );
  }
  const flow = (row.nominalFlowGpd * L_PER_US_GALLON) / 24;
  const passage = 1 - row.nominalRejection;
  const feed = sodiumChloride(row.testNaClMgL);
  const probe = marchSetup(row, { aLmhPerBar: 1, bLmh: 1 }, CLEAN, feed, 25, law);
  const wall = Float64Array.from(feed.mmolL, (c) => 1.2 * c);
  const netBar = row.testPressureBar - probe.membrane.osmotic(wall);
  if (netBar <= 0) {
    const least = Number(probe.membrane.osmotic(wall).toFixed(2));
    return fail(
      'testPressureBar',
      row.testPressureBar,
      `above ${least} bar`,
      `Test pressure is ${row.testPressureBar} bar, below the osmotic pressure of the test feed; accepted is above ${least} bar.`,
    );
  }
  let a = flow / row.areaM2 / netBar;
  let b = ((flow / row.areaM2) * passage) / (1 - passage);
  for (let round = 0; round < 60; round++) {
    const setup = marchSetup(row, { aLmhPerBar: a, bLmh: b }, CLEAN, feed, 25, law);
    const run = marchElement(setup, flow / row.testRecovery, feed.mmolL, row.testPressureBar, 0);
    if (!run) {
      a *= 0.7;
      continue;
    }
    const made = run.permeateMmolH[0]! / run.permeateLPerH / feed.mmolL[0]!;
    const flowFactor = flow / run.permeateLPerH;
    const saltStep = passage / (1 - passage) / (made / (1 - made));
    a *= flowFactor;
    b *= saltStep;
    if (Math.abs(flowFactor - 1) < 1e-8 && Math.abs(saltStep - 1) < 1e-8) return ok({ aLmhPerBar: a, bLmh: b });
  }
  return fail(
    'nominalFlowGpd',
    row.nominalFlowGpd,
    'a flow this area can make at the test pressure',
    `${row.nominalFlowGpd} gal/day is not reachable with this area and pressure.`,
  );
}

const known = new Map<string, Outcome<Permeability>>();
/** Rows by what they say, for two may say the same. */
const NAMES = new WeakMap<ElementRow, string>();

/**
 * `derivePermeability`, remembered by the row: a train is solved at every keystroke, its label changes
 * rarely, and the derivation costs as much as the solve. Same answer for the same row, always.
 */
export function permeabilityOf(row: ElementRow, law: OsmoticLaw): Outcome<Permeability> {
  const name = NAMES.get(row) ?? JSON.stringify(row);
  NAMES.set(row, name);
  const key = `${law} ${name}`;
  const hit = known.get(key);
  if (hit) return hit;
  const derived = derivePermeability(row, law);
  known.set(key, derived);
  return derived;
}
