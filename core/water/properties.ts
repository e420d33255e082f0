/** Properties of pure water with temperature (t in °C), recalled from the named sources. */

/** Density, kg/L. Kell 1975; 0–150 °C. */
export function densityKgPerL(t: number): number {
  const top = 999.83952 + t * (16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - 280.54253e-12 * t))));
  return top / (1 + 16.87985e-3 * t) / 1000;
}

/** Relative permittivity. Malmberg & Maryott 1956; 0–100 °C, used to 130. */
export function permittivity(t: number): number {
  return 87.74 + t * (-0.40008 + t * (9.398e-4 - 1.41e-6 * t));
}

/** Viscosity, mPa·s. Kestin, Sokolov & Wakeham 1978; 0–150 °C. */
export function viscosityMPaS(t: number): number {
  const d = 20 - t;
  return 1.002 * 10 ** ((d / (t + 96)) * (1.2364 - 1.37e-3 * d + 5.7e-6 * d * d));
}

/** Viscosity by the law of Vogel as membrane and film laws were fitted with it, Pa·s; 8.9e-4 at 25 °C. */
export const vogelPaS = (t: number): number => 2.414e-5 * 10 ** (247.8 / (t + 273.15 - 140));

/**
 * Kilograms of water in one litre of solution.
 * The slope is a simplification for mixtures from NaCl to sea salt, good to 0.2 % up to 70 g/L.
 */
export function waterKgPerL(t: number, tdsMgL: number): number {
  return densityKgPerL(t) - (0.3 * tdsMgL) / 1e6;
}

/** Slope A of the Davies activity law at t; 0.5108 at 25 °C. */
export function daviesSlope(t: number): number {
  return (1.82483e6 * Math.sqrt(densityKgPerL(t))) / (permittivity(t) * (t + 273.15)) ** 1.5;
}
