import type { Stage } from '@yes-clear/core/file';
import { rankFluxLmh } from '@yes-clear/core/membrane';
import { formatQuantity, type UnitPreference } from '@yes-clear/core/quantity';
import type { TrainReport } from '@yes-clear/core/train';

/** Figures that belong to one stage alone, read from the solved train: name and text. */
export function stageFacts(stage: Stage, report: TrainReport, units: UnitPreference): readonly (readonly [string, string])[] {
  const { solved } = report;
  /** The stage as its use has left it. */
  const worn = report.train.stages.find((candidate) => candidate.id === stage.id) ?? stage;
  const share = (value: number): string => formatQuantity(value, 'fraction', units).text;
  if (stage.kind === 'membrane' && solved.unit) {
    const { rejection, feedPressureBar, ranks, recovery } = solved.unit;
    const safe = report.scale?.safeRecovery;
    return [
      ['Salt held back', rejection === null ? '–' : share(rejection)],
      ['Pressure at the membrane', formatQuantity(feedPressureBar, 'pressureBar', units).text],
      ['Flux', ranks.length === 0 ? '–' : `${ranks.map((rank) => rankFluxLmh(rank).toFixed(1)).join(' and ')} L/m²h`],
      ['Share taken as product', share(recovery)],
      ...(safe === null || safe === undefined ? [] : [['Safe share, no inhibitor', share(safe)] as const]),
      ...(worn.kind === 'membrane' && worn.waterFactor !== null && worn.saltFactor !== null
        ? [['Output, salt passage against new', `${share(worn.waterFactor)}, ${share(worn.saltFactor)}`] as const]
        : []),
    ];
  }
  if (stage.kind === 'resin') {
    const resin = solved.resins.find((candidate) => candidate.stageId === stage.id);
    if (!resin) return [];
    return [
      ['Capacity usable, anion side', share(resin.utilisation.anion.utilisation)],
      ['Capacity usable, cation side', share(resin.utilisation.cation.utilisation)],
      ['Taken up so far', share(Math.min(1, resin.usedShare))],
    ];
  }
  if (stage.kind === 'carbon') {
    const carbon = solved.carbons.find((candidate) => candidate.stageId === stage.id)?.state;
    if (!carbon) return [];
    const lasts = carbon.litresLeft === null ? 'nothing to remove' : `${formatQuantity(carbon.litresLeft, 'volumeL', units).text} of feed`;
    return [
      ['Contact time', `${carbon.contactTimeS.toFixed(0)} s`],
      ['Chlorine capacity used', share(carbon.usedShare)],
      ['Lasts, by chlorine', lasts],
    ];
  }
  if (worn.kind === 'sediment') return [['Full of dirt, by the log', share(worn.loading ?? 0)]];
  if (stage.kind === 'tank' && report.float?.ok) {
    return [
      ['Starts a day', report.float.value.startsPerDay.toFixed(1)],
      ['Runs a day', `${report.float.value.runHoursPerDay.toFixed(1)} h`],
    ];
  }
  if (stage.kind === 'tank' && report.bladder?.ok) {
    return [
      ['Holds', formatQuantity(report.bladder.value.heldL, 'volumeL', units).text],
      ['Fills in', `${report.bladder.value.hours.toFixed(1)} h`],
    ];
  }
  return [];
}
