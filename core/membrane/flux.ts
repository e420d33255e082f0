import { findRoot } from '../numeric';
import type { OsmoticFunction } from './osmosis';

/** What the local balance needs to know of the membrane and the species that meet it. */
export interface MembraneWall {
  /** Water permeability at the temperature, LMH/bar. */
  readonly aLmhPerBar: number;
  /** Salt permeability of each species at zero potential, LMH; Infinity for gases. */
  readonly bLmh: Float64Array;
  readonly charge: Int8Array;
  readonly osmotic: OsmoticFunction;
}

/** The local state, reused from slice to slice as the first guess of the next. */
export interface FluxState {
  fluxLmh: number;
  /** The electric potential all ions feel, in units of RT/F. */
  potential: number;
  /** Flux and potential one solve earlier; both run smoothly along a channel, so a straight line foretells the next. */
  earlierFlux: number;
  earlierPotential: number;
  beta: number;
  /** Charge of the permeate, meq/L, and its change with the potential. */
  charge: number;
  chargeSlope: number;
  readonly permeate: Float64Array;
  readonly wall: Float64Array;
}

export function fluxState(count: number): FluxState {
  return {
    fluxLmh: 0,
    potential: 0,
    earlierFlux: 0,
    earlierPotential: 0,
    beta: 1,
    charge: 0,
    chargeSlope: 0,
    permeate: new Float64Array(count),
    wall: new Float64Array(count),
  };
}

/** Relative step at which a local balance counts as found. */
export const SETTLED = 1e-8;

/** exp is capped: beyond it the wall is saturated with salt whatever the number. */
const MAX_EXPONENT = 30;

/**
 * Permeate and wall of every species at the state's flux, potential and polarization.
 * Leaves the permeate's charge in `charge` and its slope with the potential in `chargeSlope`.
 */
function crossWall(state: FluxState, membrane: MembraneWall, bulk: Float64Array): void {
  const { fluxLmh: J, beta, permeate, wall } = state;
  const up = Math.exp(state.potential);
  const down = 1 / up;
  let charge = 0;
  let slope = 0;
  for (let i = 0; i < bulk.length; i++) {
    const b = membrane.bLmh[i]!;
    const c = bulk[i]!;
    if (b === Infinity) {
      permeate[i] = c;
      wall[i] = c;
      continue;
    }
    const z = membrane.charge[i]!;
    const carried = beta * (z === 0 ? b : z === 1 ? b * down : z === -1 ? b * up : z === 2 ? b * down * down : b * up * up);
    const share = 1 / (J + carried);
    const cp = carried * c * share;
    permeate[i] = cp;
    wall[i] = cp + (c - cp) * beta;
    charge += z * cp;
    slope -= z * z * cp * J * share;
  }
  state.charge = charge;
  state.chargeSlope = slope;
}

/**
 * Solves the local balance of solution–diffusion with film theory and an electroneutral permeate:
 * J = A(ΔP − π(wall) + π(permeate)), C_wall − C_p = (C_b − C_p)·exp(J/k), Σ z·C_p = 0.
 *
 * Flux and potential are moved together by Newton steps from the neighbouring slice; should that not
 * settle (far below osmotic pressure, say), a bracket on the flux always does.
 *
 * @param pressureBar feed-side less permeate-side pressure, above 0
 * @param transferLmh film mass transfer coefficient k
 * @param settled relative change of the flux, and change of the potential, below which it is found
 */
export function solveFlux(
  state: FluxState,
  membrane: MembraneWall,
  bulk: Float64Array,
  pressureBar: number,
  transferLmh: number,
  settled = SETTLED,
): void {
  const most = membrane.aLmhPerBar * pressureBar;
  if (bulk.length === 0) {
    state.fluxLmh = most;
    return;
  }
  const foretold = state.earlierFlux > 0 ? 2 * state.fluxLmh - state.earlierFlux : state.fluxLmh;
  const foretoldPotential = state.earlierFlux > 0 ? 2 * state.potential - state.earlierPotential : state.potential;
  state.earlierFlux = state.fluxLmh;
  state.earlierPotential = state.potential;
  state.potential = foretoldPotential;
  state.fluxLmh = foretold > 0 && foretold <= most ? foretold : most * 0.9;
  for (let round = 0; round < 40; round++) {
    const J = state.fluxLmh;
    state.beta = Math.exp(Math.min(J / transferLmh, MAX_EXPONENT));
    crossWall(state, membrane, bulk);
    const shift = state.chargeSlope === 0 ? 0 : Math.max(-2, Math.min(2, -state.charge / state.chargeSlope));
    const backBar = membrane.osmotic(state.wall) - membrane.osmotic(state.permeate);
    const miss = J - membrane.aLmhPerBar * (pressureBar - backBar);
    const step = miss / (1 + (membrane.aLmhPerBar * Math.max(0, backBar)) / transferLmh);
    const next = Math.min(most, Math.max(J / 4, J - step));
    if (Math.abs(next - J) <= settled * J && Math.abs(shift) < settled) return;
    state.potential = Math.max(-25, Math.min(25, state.potential + shift));
    state.fluxLmh = next;
  }
  solveFluxByBracket(state, membrane, bulk, pressureBar, transferLmh, most);
}

function solveFluxByBracket(
  state: FluxState,
  membrane: MembraneWall,
  bulk: Float64Array,
  pressureBar: number,
  transferLmh: number,
  most: number,
): void {
  const missAt = (J: number): number => {
    state.fluxLmh = J;
    state.beta = Math.exp(Math.min(J / transferLmh, MAX_EXPONENT));
    const neutral = findRoot(
      (potential) => {
        state.potential = potential;
        crossWall(state, membrane, bulk);
        return state.charge;
      },
      -25,
      25,
      1e-12,
    );
    state.potential = neutral?.x ?? 0;
    crossWall(state, membrane, bulk);
    return J - membrane.aLmhPerBar * (pressureBar - membrane.osmotic(state.wall) + membrane.osmotic(state.permeate));
  };
  const root = findRoot(missAt, most * 1e-12, most, most * 1e-13);
  missAt(root ? root.x : most * 1e-12);
}
