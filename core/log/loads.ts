import { ionicLoad, loadSd, type IonicLoad } from '../exchange';
import type { Reading, System } from '../file';
import { lastFrom, mean, median } from '../numeric';
import { DAY_MS } from '../quantity';
import type { SolvedTrain } from '../train';
import { carbonicUScm } from '../water';
import type { LitresCounted } from './litres';
import { inOrder, probeEc25, probeRoles } from './series';

/**
 * Equivalents that reach the first resin over the life of a log (science of logs, 5.1): litres by `litres.ts`, salts by
 * what is read before it, carbon dioxide and silica by the modelled water, for no meter of a keeper shows them.
 */

export interface LoadCounted {
  /** Equivalents passed up to an instant, ms. */
  readonly at: (ms: number) => Totals;
  /** What a litre brings of late, meq. */
  readonly perLitre: (ms: number) => { readonly cationMeqL: number; readonly anionMeqL: number };
  /** Relative doubt of the random part of what was taken up between two instants. */
  readonly sdOf: (fromMs: number, toMs: number) => number;
}
export interface Totals {
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
}

/** Strength goes with about this power of conductivity in a tap (5.1); a permeate is too weak for its ions to hinder each other. */
const STRENGTH_POWER = { tap: 1.05, weak: 1.01, fromUScm: 100 } as const;
/** Below this no share of the model's salts is told from a meter. */
const LEAST_SHARE = 0.02;
/** Random part of a load whose litres only the plan tells, of one week (5.1). */
const UNMETERED_SD = 0.15;
/** What the carbon dioxide of a supply moves a load from one cartridge to the next, by its own season (product assumption). */
const CARBON_SEASON_SD = 0.03;
/** How far a figure before the resin may lie from those around it, as a factor, before it is passed over. */
const FAR = 4;
/** Days by which the strength of late is told. */
const LATE_MS = 45 * DAY_MS;

/** Turns what is read before the resin into its share of the modelled salts. */
export function saltShare(load: Pick<IonicLoad, 'bicarbonateMeqL'>, co2MmolL: number, modelUScm: number): (ec25UScm: number) => number {
  const saltUScm = Math.max(1e-6, modelUScm - carbonicUScm(load.bicarbonateMeqL, co2MmolL));
  const power = 1 / (modelUScm > STRENGTH_POWER.fromUScm ? STRENGTH_POWER.tap : STRENGTH_POWER.weak);
  const shows = (share: number): number => share ** power * saltUScm + carbonicUScm(share * load.bicarbonateMeqL, co2MmolL);
  return (ec25UScm) => {
    let [low, high] = [LEAST_SHARE, 1];
    if (shows(low) >= ec25UScm) return low;
    while (shows(high) < ec25UScm) high *= 2;
    for (let round = 0; round < 40; round++) {
      const middle = (low + high) / 2;
      if (shows(middle) < ec25UScm) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
}

/** Counts what reaches the first resin; null without one. */
export function loadCounted(system: System, readings: readonly Reading[], solved: SolvedTrain, litres: LitresCounted): LoadCounted | null {
  const resin = solved.resins[0];
  if (!resin) return null;
  const at = solved.stations.findIndex((station) => station.after === resin.stageId);
  const before = solved.stations[at - 1];
  if (!before || before.state.ec25UScm <= 0) return null;
  const load = ionicLoad(resin.feed);
  const silica = resin.feed.mgL.SiO2 / 60.084;
  const shareOf = saltShare(load, Math.max(0, load.weakAcidMeqL - silica), before.state.ec25UScm);
  const { beforeResin } = probeRoles(system);
  const read = beforeResin
    ? inOrder(readings).flatMap((reading) => {
        const ec25 = probeEc25(reading, beforeResin.id, system.instruments);
        return ec25 === null ? [] : [{ ms: Date.parse(reading.at), ec25 }];
      })
    : [];
  const shares = believed(read).map(({ ms, ec25 }) => ({ ms, share: shareOf(ec25) }));
  const perLitreAt = (share: number): { cationMeqL: number; anionMeqL: number } => ({
    cationMeqL: share * load.cationMeqL,
    anionMeqL: share * (load.anionMeqL - load.weakAcidMeqL) + load.weakAcidMeqL,
  });
  const totals = running(shares, litres);
  const totalsAt = (ms: number): Totals => {
    const [passed, weighted] = totals(ms);
    const { cationMeqL, anionMeqL } = perLitreAt(1);
    const seen = (meqL: number): number => (weighted * meqL) / 1000;
    return {
      litres: passed,
      cationEq: seen(cationMeqL),
      anionEq: seen(anionMeqL - load.weakAcidMeqL) + (passed * load.weakAcidMeqL) / 1000,
    };
  };
  return {
    at: totalsAt,
    perLitre: (ms) => {
      const late = shares.filter((one) => one.ms <= ms && one.ms > ms - LATE_MS);
      const own = late.length > 0 ? late : shares.filter((one) => one.ms <= ms).slice(-1);
      return perLitreAt(own.length > 0 ? mean(own.map(({ share }) => share)) : 1);
    },
    sdOf: (fromMs, toMs) => {
      const count = shares.filter(({ ms }) => ms > fromMs && ms <= toMs).length;
      const told = litres.toldBy(fromMs, toMs);
      const weeks = Math.max(1, (toMs - fromMs) / (7 * DAY_MS));
      const unmetered = told === 'meter' ? 0 : (told === 'both' ? 0.5 : 1) * (UNMETERED_SD / Math.sqrt(weeks));
      return Math.hypot(CARBON_SEASON_SD, loadSd(count), unmetered);
    },
  };
}

/** Readings before the resin without what lies far from those around it alone. */
function believed(
  read: readonly { readonly ms: number; readonly ec25: number }[],
): readonly { readonly ms: number; readonly ec25: number }[] {
  return read.filter(({ ec25 }, i) => {
    const near = [read[i - 2], read[i - 1], read[i + 1], read[i + 2]].flatMap((one) => (one ? [one.ec25] : []));
    if (near.length < 2) return true;
    const middle = median(near);
    if (!(middle > 0)) return true;
    return ec25 > middle / FAR && ec25 < middle * FAR;
  });
}

/** Litres, and litres weighted by the share of salts in them, up to an instant: the share runs in a line between readings. */
function running(
  shares: readonly { readonly ms: number; readonly share: number }[],
  litres: LitresCounted,
): (ms: number) => readonly [litres: number, weighted: number] {
  if (shares.length === 0) return (ms) => [litres.at(ms), litres.at(ms)];
  const passed = shares.map(({ ms }) => litres.at(ms));
  const weighted: number[] = [passed[0]! * shares[0]!.share];
  for (let i = 1; i < shares.length; i++)
    weighted.push(weighted[i - 1]! + ((passed[i]! - passed[i - 1]!) * (shares[i]!.share + shares[i - 1]!.share)) / 2);
  return (ms) => {
    const total = litres.at(ms);
    const first = shares[0]!;
    if (ms <= first.ms) return [total, weighted[0]! + (total - passed[0]!) * first.share];
    const at = lastFrom(shares, (one) => one.ms, ms);
    const here = shares[at]!;
    const next = shares[at + 1];
    const since = total - passed[at]!;
    if (!next) return [total, weighted[at]! + since * here.share];
    const whole = passed[at + 1]! - passed[at]!;
    const share = whole > 0 ? here.share + ((next.share - here.share) * since) / whole : here.share;
    return [total, weighted[at]! + (since * (here.share + share)) / 2];
  };
}
