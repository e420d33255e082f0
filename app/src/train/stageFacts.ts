import type { Stage } from '@yes-clear/core/file';
import { formatQuantity, type UnitPreference } from '@yes-clear/core/quantity';
import type { SolvedTrain } from '@yes-clear/core/train';

/** Figures that belong to one stage alone, read from the solved train: name and text. */
export function stageFacts(stage: Stage, solved: SolvedTrain, units: UnitPreference): readonly (readonly [string, string])[] {
  const share = (value: number): string => formatQuantity(value, 'fraction', units).text;
  if (stage.kind === 'membrane' && solved.unit) {
    const { rejection, feedPressureBar, ranks, recovery } = solved.unit;
    return [
      ['Salt held back', rejection === null ? '–' : share(rejection)],
      ['Pressure at the membrane', formatQuantity(feedPressureBar, 'pressureBar', units).text],
      ['Flux', ranks.length === 0 ? '–' : `${ranks.map((rank) => rank.fluxLmh.toFixed(1)).join(' and ')} L/m²h`],
      ['Share taken as product', share(recovery)],
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
      ['Lasts, by chlorine', lasts],
    ];
  }
  return [];
}
