import { goalLimits } from '@yes-clear/core/goal';
import { probeEc25 } from '@yes-clear/core/log';
import type { Probe, Reading, System } from '@yes-clear/core/file';
import { formatQuantity } from '@yes-clear/core/quantity';
import { words, type SolvedTrain, type TrainReport } from '@yes-clear/core/train';
import type { ResinTracking } from '@yes-clear/core/log';
import type { DescentInput } from './drawing';

/** The picture's material from a system, its solved train and its log. */
export function descentInput(
  system: System,
  report: TrainReport,
  readings: readonly Reading[],
  tracking: ResinTracking | null,
): DescentInput {
  const { solved } = report;
  const say = words(system.units);
  const limit = goalLimits(system.goal, system.units.ppmFactor).find((candidate) => candidate.quantity === 'ec25UScm');
  const first = readings[0];
  const last = readings[readings.length - 1];
  const fill: Record<string, number> = {};
  for (const stage of system.train.stages) {
    if (stage.kind === 'sediment' || stage.kind === 'carbon') fill[stage.id] = stage.loading;
    if (stage.kind === 'tank') fill[stage.id] = 0.7;
    if (stage.kind === 'resin') fill[stage.id] = tracking?.stageId === stage.id ? 1 - tracking.remaining.p50 : 0;
  }
  const unit = solved.unit;
  const wasteWater = solved.waste ? say.water(solved.waste.state.ec25UScm) : '';
  const ratio = unit?.wasteToProduct ? say.ratio(unit.wasteToProduct) : 'all of it';
  return {
    stages: system.train.stages,
    stations: solved.stations,
    pressureUnit: system.units.system === 'trade' ? 'psi' : 'bar',
    // Standing water is no waste.
    waste:
      solved.waste && solved.waste.flowLPerH > 0
        ? {
            after: solved.waste.after,
            ec25UScm: solved.waste.state.ec25UScm,
            pressureBar: solved.waste.pressureBar,
            texts: [`waste to drain · ${wasteWater} · ${ratio}`, `waste · ${wasteWater} · ${ratio}`, `waste ${ratio}`],
          }
        : null,
    secondWaste: solved.secondPass
      ? {
          after: solved.secondPass.waste.after,
          ec25UScm: solved.secondPass.waste.state.ec25UScm,
          pressureBar: solved.secondPass.waste.pressureBar,
          texts: [`waste · ${say.water(solved.secondPass.waste.state.ec25UScm)}`, 'waste'],
        }
      : null,
    recycle: recycleOf(system, solved),
    bypass: bypassOf(system, solved),
    goal: limit ? { low: limit.low, high: limit.high, texts: goalTexts(limit.low, limit.high, system) } : null,
    probes: system.train.probes.map((probe) => {
      const latest = seenAt(last, probe, system, solved);
      return {
        id: probe.id,
        after: probe.after,
        texts: latest === null ? [probe.name.toLowerCase(), 'probe'] : [latest.text],
        baseline: readings.length > 1 ? (seenAt(first, probe, system, solved)?.ec25UScm ?? null) : null,
        latest: latest?.ec25UScm ?? null,
      };
    }),
    fill,
    tapTexts: [`Tap ${say.water(solved.stations[0]?.state.ec25UScm ?? 0)}`, 'Tap'],
  };
}

/** Concentrate led back before the pump, or before the membrane where there is none. */
function recycleOf(system: System, solved: SolvedTrain): DescentInput['recycle'] {
  const { unit, waste, unitStageId } = solved;
  if (!unit || !waste || !unitStageId || unit.recycleLPerH === 0) return null;
  const at = system.train.stages.findIndex((stage) => stage.id === unitStageId);
  const pump = system.train.stages.slice(0, at).findLast((stage) => stage.kind === 'pump');
  const flow = formatQuantity(unit.recycleLPerH, 'flowLPerH', system.units).text;
  return { from: unitStageId, to: pump?.id ?? unitStageId, ec25UScm: waste.state.ec25UScm, texts: [`${flow} led back`, 'led back'] };
}

/** Feed that runs past the membrane into the product. */
function bypassOf(system: System, solved: SolvedTrain): DescentInput['bypass'] {
  const at = system.train.stages.findIndex((stage) => stage.id === solved.unitStageId);
  const stage = system.train.stages[at];
  const feed = solved.stations[at];
  if (stage?.kind !== 'membrane' || stage.bypassShare === 0 || !feed) return null;
  const share = `${Math.round(100 * stage.bypassShare)}\u202f%`;
  return { past: stage.id, ec25UScm: feed.state.ec25UScm, texts: [`${share} past the membrane`, share] };
}

/**
 * Where a probe's reading stands. A meter that shows 0 is blind below its smallest step: if the model lies in
 * that range the reading agrees with it, and the ring stands on the line.
 */
function seenAt(
  reading: Reading | undefined,
  probe: Probe,
  system: System,
  solved: SolvedTrain,
): { ec25UScm: number; text: string } | null {
  const ec25UScm = reading ? probeEc25(reading, probe.id, system.instruments) : null;
  if (ec25UScm === null) return null;
  const text = words(system.units).water(ec25UScm);
  const instrument = system.instruments.find((candidate) => candidate.id === probe.instrumentId);
  const blind = (instrument?.resolution ?? 1) / (instrument?.scale.kind === 'conductivity' ? 1 : system.units.ppmFactor);
  if (ec25UScm > 0) return { ec25UScm, text };
  const model = solved.stations.find((station) => station.after === probe.after)?.state.ec25UScm ?? blind;
  return { ec25UScm: Math.min(model, blind), text };
}

/** The goal in the crew's words, with what that means in µS/cm. */
function goalTexts(low: number | null, high: number | null, system: System): string[] {
  const show = (ec: number): string => formatQuantity(ec, 'conductivityUScm', { ...system.units, system: 'metric' }).text;
  if (low !== null && high !== null) return [`Goal: ${show(low)} to ${show(high)}`, 'Goal'];
  if (high === null) return ['Goal'];
  const ppm = system.goal.crewLimitPpm;
  const inPpm =
    ppm !== null
      ? `reads ${ppm} ppm or less`
      : `at most ${formatQuantity(high, 'conductivityUScm', { ...system.units, system: 'trade' }).text}`;
  return [`Goal: ${inPpm} (below ${show(high)})`, `Goal: below ${show(high)}`, 'Goal'];
}
