import { RESIN_ROWS } from '@yes-clear/core/exchange';
import { kindOf, unitRanks, type Stage } from '@yes-clear/core/stage';
import { knownOf, type TrainReport } from '@yes-clear/core/advice';
import { baselineOf, probeEc25, type ResinTracking } from '@yes-clear/core/log';
import {
  allStages,
  feedPump,
  lastTank,
  outletPlace,
  productProbe,
  tapIsAssumed,
  type Probe,
  type Reading,
  type System,
} from '@yes-clear/core/file';
import { formatQuantity, inSentence, words } from '@yes-clear/core/quantity';
import { smallestStepUScm } from '@yes-clear/core/water';
import { atPlace, productStation, type SolvedTrain } from '@yes-clear/core/train';
import type { DescentInput, DrawnStage } from './drawing';

const drawn = (stage: Stage): DrawnStage => ({
  id: stage.id,
  kind: stage.kind,
  name: stage.name,
  form: kindOf(stage).form,
  dyed: stage.kind === 'resin' && RESIN_ROWS[stage.resinClass].colours,
});

/** The picture's material from a system, its solved train and its log. */
export function descentInput(
  system: System,
  report: TrainReport,
  readings: readonly Reading[],
  tracking: ResinTracking | null,
): DescentInput {
  const { solved } = report;
  const say = words(system.units);
  const limit = report.strength;
  const first = baselineOf(system, readings) ?? undefined;
  const last = readings[readings.length - 1];
  const fill: Record<string, number> = {};
  for (const stage of allStages(report.train)) {
    const left = tracking?.stageId === stage.id ? tracking.remaining.p50 : null;
    fill[stage.id] = kindOf(stage).fill(knownOf(stage, report, system.units, left));
  }
  const unit = solved.unit;
  const wasteWater = solved.waste ? say.water(solved.waste.state.ec25UScm) : '';
  const ratio = unit?.wasteToProduct ? say.ratio(unit.wasteToProduct) : 'all of it';
  return {
    stages: system.train.stages.map(drawn),
    stations: [...solved.stations, ...report.branches.flatMap((branch) => branch.stations.slice(1))],
    pressureUnit: system.units.pressure,
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
    secondWaste: secondWasteOf(system, solved),
    recycle: recycleOf(system, solved),
    loop: loopOf(system, solved),
    branches: report.branches.map(({ branch, stations }) => {
      const water = say.water(stations[stations.length - 1]!.state.ec25UScm);
      return { id: branch.id, after: branch.after, stages: branch.stages.map(drawn), texts: [`${branch.name} · ${water}`, branch.name] };
    }),
    bypass: bypassOf(system, solved),
    goal: limit ? { low: limit.lowUScm, high: limit.highUScm, texts: goalTexts(limit.lowUScm, limit.highUScm, system) } : null,
    probes: system.train.probes.map((probe) => {
      const latest = seenAt(last, probe, system, solved);
      return {
        id: probe.id,
        after: probe.after,
        side: probe.side,
        vessel: probe.vessel,
        expected: atPlace(solved, probe)?.state.ec25UScm ?? null,
        // A reading stands beside what the model has: it says which it is.
        texts: latest === null ? [inSentence(probe.name), 'probe'] : [`read ${latest.text}`],
        baseline: readings.length > 1 ? (seenAt(first, probe, system, solved)?.ec25UScm ?? null) : null,
        latest: latest?.ec25UScm ?? null,
      };
    }),
    unread: productProbe(system.train) ? null : outletPlace(system.train),
    fill,
    ranks: Object.fromEntries(
      system.train.stages.flatMap((stage) => (stage.kind === 'membrane' ? [[stage.id, unitRanks(stage)] as const] : [])),
    ),
    notes: Object.fromEntries(
      solved.stations.flatMap((station) =>
        station.kind === 'pump' ? [[station.after, formatQuantity(station.pressureBar, 'pressureBar', system.units).text] as const] : [],
      ),
    ),
    tapTexts: tapTexts(system, say.water(report.tapReadUScm ?? solved.stations[0]?.state.ec25UScm ?? 0)),
  };
}

/** The tap by its reading, or by what is assumed of it. */
const tapTexts = (system: System, water: string): string[] =>
  tapIsAssumed(system.source) ? [`Tap, assumed ${water}`, `Tap ~${water}`, 'Tap'] : [`Tap ${water}`, 'Tap'];

/** Concentrate led back before the pump, or before the membrane where there is none. */
function recycleOf(system: System, solved: SolvedTrain): DescentInput['recycle'] {
  const { unit, waste, unitStageId } = solved;
  if (!unit || !waste || !unitStageId || unit.recycleLPerH === 0) return null;
  const pump = feedPump(system.train.stages);
  const flow = formatQuantity(unit.recycleLPerH, 'flowLPerH', system.units).text;
  return { from: unitStageId, to: pump?.id ?? unitStageId, ec25UScm: waste.state.ec25UScm, texts: [`${flow} led back`, 'led back'] };
}

/** What circulates between the last tank and the outlets. */
function loopOf(system: System, solved: SolvedTrain): NonNullable<DescentInput['loop']> | null {
  const { loop, stages } = system.train;
  const tank = lastTank(stages);
  if (!loop || !tank) return null;
  const flow = formatQuantity(loop.flowLPerH, 'flowLPerH', system.units).text;
  return { to: tank.id, ec25UScm: productStation(solved).state.ec25UScm, texts: [`${flow} round the loop`, 'loop'] };
}

/** Waste of a second pass: to the drain, or back before the pump of the first. */
function secondWasteOf({ train, units }: System, { secondPass }: SolvedTrain): DescentInput['secondWaste'] {
  if (!secondPass) return null;
  const { waste } = secondPass;
  const stage = train.stages.find((one) => one.id === waste.after);
  const back = stage?.kind === 'membrane' && stage.wasteToFirstPass ? (feedPump(train.stages)?.id ?? null) : null;
  const water = words(units).water(waste.state.ec25UScm);
  return {
    after: waste.after,
    to: back,
    ec25UScm: waste.state.ec25UScm,
    pressureBar: waste.pressureBar,
    texts: back === null ? [`waste · ${water}`, 'waste'] : [`${water} led back`, 'led back'],
  };
}

/** Water that runs past the membrane into the product, from right before it or from further ahead. */
function bypassOf(system: System, solved: SolvedTrain): DescentInput['bypass'] {
  const at = system.train.stages.findIndex((stage) => stage.id === solved.unitStageId);
  const stage = system.train.stages[at];
  if (stage?.kind !== 'membrane' || stage.bypassShare === 0) return null;
  const ahead = system.train.stages.slice(0, at).findIndex((s) => s.id === stage.bypassAfter);
  const taken = solved.stations[ahead < 0 ? at : ahead + 1];
  if (!taken) return null;
  const share = `${Math.round(100 * stage.bypassShare)}\u202f%`;
  return {
    past: stage.id,
    from: ahead < 0 || ahead === at - 1 ? null : taken.after,
    ec25UScm: taken.state.ec25UScm,
    texts: [`${share} past the membrane`, share],
  };
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
  const blind = instrument ? smallestStepUScm(instrument) : 1 / system.units.ppmFactor;
  if (ec25UScm > 0) return { ec25UScm, text };
  const model = atPlace(solved, probe)?.state.ec25UScm ?? blind;
  return { ec25UScm: Math.min(model, blind), text };
}

/** The goal in the crew's words, with what that means in µS/cm. */
function goalTexts(low: number | null, high: number | null, system: System): string[] {
  const show = (ec: number): string => formatQuantity(ec, 'conductivityUScm', { ...system.units, strength: 'µS/cm' }).text;
  if (low !== null && high !== null) return [`Goal: ${show(low)} to ${show(high)}`, 'Goal'];
  if (high === null) return ['Goal'];
  const ppm = system.goal.crewLimitPpm;
  const inPpm =
    ppm !== null
      ? ppm === 0
        ? 'reads 0 ppm'
        : `reads ${ppm} ppm or less`
      : `at most ${formatQuantity(high, 'conductivityUScm', { ...system.units, strength: 'ppm' }).text}`;
  return [`Goal: ${inPpm} (below ${show(high)})`, `Goal: below ${show(high)}`, 'Goal'];
}
