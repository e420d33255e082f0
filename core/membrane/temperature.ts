/** How permeabilities change with temperature, relative to 25 °C. */

const inverseKelvin = (temperatureC: number): number => 1 / 298.15 - 1 / (temperatureC + 273.15);

/** Water permeability factor; Arrhenius with 2640 K above 25 °C and 3020 K below (common design practice, recalled). */
export function waterFactor(temperatureC: number): number {
  return Math.exp((temperatureC > 25 ? 2640 : 3020) * inverseKelvin(temperatureC));
}

/** Water permeability factor of ASTM D4516 in its default form (recalled); for normalising logs only. */
export function waterFactorAstm(temperatureC: number): number {
  return 1.03 ** (temperatureC - 25);
}

/** Salt permeability factor; 4000 K (practice ranges 3000–5500 K). */
export function saltFactor(temperatureC: number): number {
  return Math.exp(4000 * inverseKelvin(temperatureC));
}
