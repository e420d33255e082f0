/** Conductivity that carbonic acid adds to a weak water (science of logs, 2.2): a meter sees it, no membrane holds it. */

/** Limiting conductivity of hydrogen with bicarbonate, µS/cm for mol/L, and the first dissociation of carbonic acid at 25 °C. */
export const HYDROGEN_BICARBONATE_USCM = 394.3e3;
export const CARBONIC_K1 = 4.45e-7;

/**
 * What carbonic acid adds to the conductivity of a water that holds bicarbonate, µS/cm at 25 °C.
 *
 * @param bicarbonateMeqL of the salts alone
 * @param co2MmolL carbon dioxide, free and as acid
 */
export function carbonicUScm(bicarbonateMeqL: number, co2MmolL: number): number {
  const [b, c] = [Math.max(0, bicarbonateMeqL) / 1000, Math.max(0, co2MmolL) / 1000];
  return (HYDROGEN_BICARBONATE_USCM * (-b + Math.sqrt(b * b + 4 * CARBONIC_K1 * c))) / 2;
}
