import type { Reading, System } from '../file';
import { normalise, type UnitReading } from '../membrane';
import { meterEc25 } from '../water';
import { probeRoles } from './series';

/** A reading brought to the conditions of another by the standard way, as ratios to it. */
export interface AstmFigures {
  readonly permeate: number;
  readonly saltPassage: number;
}

/** mg/L as NaCl for a µS/cm, in the range of tap waters and permeates: what a ppm meter of factor 0.5 shows (common practice). */
const MG_PER_USCM = 0.5;

/** What the standard asks of a reading; null where one of its figures was not taken. */
function unitReading(system: System, reading: Reading): UnitReading | null {
  const roles = probeRoles(system);
  const { pressureBar, temperatureC, productLPerH, wasteLPerH } = reading;
  if (pressureBar === null || temperatureC === null || productLPerH === null || wasteLPerH === null) return null;
  if (!(pressureBar > 0 && productLPerH > 0) || roles.blendShare > 0) return null;
  const strength = (probeId: string | undefined): number | null => {
    const value = reading.values.find((one) => one.probeId === probeId);
    const instrument = system.instruments.find(({ id }) => id === value?.instrumentId);
    const ec25 = value && instrument ? meterEc25(value.shown, instrument, temperatureC) : null;
    return ec25?.ok ? ec25.value * MG_PER_USCM : null;
  };
  const [feedMgL, permeateMgL] = [strength(roles.tap?.id), strength(roles.afterMembrane?.id)];
  if (feedMgL === null || permeateMgL === null) return null;
  return {
    feedPressureBar: pressureBar,
    // Household units have no second gauge: what an element takes is small beside the pressure.
    pressureDropBar: 0,
    permeatePressureBar: 0,
    feedMgL,
    permeateMgL,
    temperatureC,
    permeateLPerH: productLPerH,
    recovery: productLPerH / (productLPerH + wasteLPerH),
  };
}

/**
 * Output and salt passage of a reading at the pressure, temperature and feed of a reference, as ratios to it, by
 * ASTM D4516 (recalled) with its own 3 % a degree. Stands beside the solver's own figures: it knows no polarization, and
 * a cold reading of a clean membrane shows a tenth more salt passage than there is (membrane chapter, 7).
 *
 * @returns null where either reading lacks pressure, temperature, both flows or both probes, or cannot be normalised
 */
export function astmFigures(system: System, reference: Reading, actual: Reading): AstmFigures | null {
  const [from, to] = [unitReading(system, reference), unitReading(system, actual)];
  if (!from || !to) return null;
  const found = normalise(from, to, 'astm');
  if (!found.ok) return null;
  return { permeate: 1 + found.value.changes.permeate, saltPassage: 1 + found.value.changes.saltPassage };
}
