import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { vogelPaS } from '../water';
import { RESIN_ROWS, type Bed } from './resins';

/** Kinematic viscosity, m²/s (8.93e-7 at 25 °C). */
const kinematicViscosity = (temperatureC: number): number => vogelPaS(temperatureC) / 997;

/** Film transfer of one side of a bed. */
export interface FilmSide {
  readonly htuMm: number;
  /** Depth over HTU: how many times over the bed could take the ions up. */
  readonly transferUnits: number;
  /** Share of the stoichiometric capacity used when the outlet first passes the breakthrough fraction. */
  readonly utilisation: number;
}

export interface BedUtilisation {
  readonly reynolds: number;
  readonly cation: FilmSide;
  readonly anion: FilmSide;
  /** The bed is too short or the flow too high to hold the breakthrough level at all. */
  readonly tooShort: boolean;
}

/**
 * Share of capacity used at breakthrough for the constant-pattern front of irreversible, film-controlled
 * uptake: η = 1 + (1 + ln(c_b/c0))/N (Hall et al. 1966, recalled). Zero when the bed is too short.
 */
export function utilisationAt(transferUnits: number, breakthroughFraction: number): number {
  return Math.max(0, 1 + (1 + Math.log(breakthroughFraction)) / transferUnits);
}

/**
 * Outlet over inlet of a bed whose used share of stoichiometric capacity is T.
 * A fresh bed leaves exp(−κN) until T = 1/N; from there the same front as above, read the other way:
 * c/c0 = exp(N(T − 1) − 1) until it reaches 1.
 *
 * @param kinetic κ: how much slower than a strong ion it is taken within the beads
 */
export function frontLeak(transferUnits: number, usedShare: number, kinetic = 1): number {
  // No resin for this side, no hold on it.
  if (transferUnits <= 0) return 1;
  return Math.min(1, Math.max(Math.exp(-kinetic * transferUnits), Math.exp(transferUnits * (usedShare - 1) - 1)));
}

function bedError(bed: Bed): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('volumeL', 'Resin volume', bed.volumeL, 0.05, 1000, 'L'),
    outOfRange('depthMm', 'Resin depth', bed.depthMm, 50, 3000, 'mm'),
    outOfRange('packing', 'Packing', bed.packing, 0.5, 1),
  );
}

/** Range over which the film correlation was measured. */
const LOWEST_REYNOLDS = 0.0016;
const HIGHEST_REYNOLDS = 55;

/** Slowest flow the film law covers, L/h. Slower water is taken up no worse, so this is the safe end for a trickle. */
export function slowestFlowLPerH(bed: Bed, temperatureC: number): number {
  const velocity = (1.001 * LOWEST_REYNOLDS * kinematicViscosity(temperatureC)) / (RESIN_ROWS[bed.resin].beadMm / 1000);
  return (velocity * 3600 * bed.volumeL) / (bed.depthMm / 1000);
}

/**
 * Utilisation of both sides of a bed at a flow.
 *
 * Film coefficient by Wilson & Geankoplis 1966 (recalled), Re 0.0016–55. A mixed bed's side has only its
 * own share of the beads as surface.
 *
 * @param breakthroughFraction outlet over inlet called breakthrough; 0.01 for a first visible rise
 */
export function bedUtilisation(bed: Bed, flowLPerH: number, temperatureC: number, breakthroughFraction = 0.01): Outcome<BedUtilisation> {
  const invalid = firstError(
    bedError(bed),
    outOfRange('flowLPerH', 'Flow', flowLPerH, 1e-6, 1e6, 'L/h'),
    outOfRange('temperatureC', 'Temperature', temperatureC, 0.1, 60, '°C'),
    outOfRange('breakthroughFraction', 'Breakthrough fraction', breakthroughFraction, 0.0001, 0.5),
  );
  if (invalid) return { ok: false, error: invalid };
  const resin = RESIN_ROWS[bed.resin];
  const depthM = bed.depthMm / 1000;
  const velocity = ((flowLPerH / bed.volumeL) * depthM) / 3600;
  const bead = resin.beadMm / 1000;
  const viscosity = kinematicViscosity(temperatureC);
  const diffusivity = (1.5e-9 * ((temperatureC + 273.15) / 298.15) * kinematicViscosity(25)) / viscosity;
  const reynolds = (bead * velocity) / viscosity;
  if (reynolds < LOWEST_REYNOLDS || reynolds > HIGHEST_REYNOLDS) {
    const scale = flowLPerH / reynolds;
    const accepted = `${(LOWEST_REYNOLDS * scale).toPrecision(2)} to ${(HIGHEST_REYNOLDS * scale).toPrecision(2)} L/h`;
    return fail(
      'flowLPerH',
      flowLPerH,
      accepted,
      `A flow of ${flowLPerH} L/h through this bed is outside what the film law covers: ${accepted}.`,
    );
  }
  const film = (1.09 / resin.voidFraction) * velocity * reynolds ** (-2 / 3) * (viscosity / diffusivity) ** (-2 / 3);
  const side = (share: number): FilmSide => {
    // A bed of the other resin alone takes nothing of this side.
    if (share <= 0) return { htuMm: 0, transferUnits: 0, utilisation: 0 };
    const area = ((6 * (1 - resin.voidFraction)) / bead) * share;
    const htuM = velocity / (film * area);
    const transferUnits = depthM / htuM;
    return { htuMm: htuM * 1000, transferUnits, utilisation: utilisationAt(transferUnits, breakthroughFraction) };
  };
  const cation = side(resin.cationShare);
  const anion = side(1 - resin.cationShare);
  const tooShort = [cation, anion].some((one) => one.transferUnits > 0 && one.utilisation <= 0);
  return ok({ reynolds, cation, anion, tooShort });
}

/**
 * Pressure a packed bed takes, bar. Ergun 1952 (recalled): viscous and inertial terms for spheres.
 */
export function bedPressureBar(bed: Bed, flowLPerH: number, temperatureC: number): number {
  const { beadMm, voidFraction: e } = RESIN_ROWS[bed.resin];
  const velocity = ((flowLPerH / bed.volumeL) * bed.depthMm) / 1000 / 3600;
  const d = beadMm / 1000;
  const viscosity = kinematicViscosity(temperatureC) * 997;
  const perMetre =
    (150 * viscosity * velocity * (1 - e) ** 2) / (e ** 3 * d * d) + (1.75 * 997 * velocity * velocity * (1 - e)) / (e ** 3 * d);
  return (perMetre * bed.depthMm) / 1000 / 1e5;
}
