import { membraneStage, type System } from '../file';
import type { Stage, Finding } from '../stage';
import { siltDensityIndex, type SiltDensity } from '../pretreatment';
import { THIN, inSentence, words } from '../quantity';
import type { TrainFacts } from './facts';

/** What the order of the stages asks for, and whether what comes first is clean enough for what follows. */
export const orderFindings = (system: System, facts: TrainFacts): (Finding | null)[] => [
  carbonFirst(system),
  resinFirst(system, facts),
  silt(system),
];

/** Turbidity and silt density from which carbon wants sediment before it (common practice). */
const CARBON_NTU = 1;
const CARBON_SDI = 3;
/** Silt density a spiral element stands, and what is aimed at (recalled). */
const MOST_SDI = 5;

/** Silt density of the source; null where it was not tested, or the test does not hold. */
function sourceSdi({ source }: System): SiltDensity | null {
  if (!source.silt) return null;
  const { initialSeconds, finalSeconds, minutes } = source.silt;
  const sdi = siltDensityIndex(initialSeconds, finalSeconds, minutes);
  return sdi.ok ? sdi.value : null;
}

/** Whether a test says more silt than carbon should meet; a short one was needed because a long one plugged. */
const tooSilty = (sdi: SiltDensity | null): boolean => sdi !== null && (sdi.pastLimit || sdi.index > CARBON_SDI);

/** The stages with one of them put before another. */
const moved = (stages: readonly Stage[], from: number, to: number): string[] => {
  const ids = stages.map((stage) => stage.id);
  const [id] = ids.splice(from, 1);
  ids.splice(to, 0, id!);
  return ids;
};

/** Carbon before any sediment filter: some put the sediment last, to catch fines; on dirty water that clogs the carbon. */
function carbonFirst(system: System): Finding | null {
  const { stages } = system.train;
  const carbon = stages.findIndex((stage) => stage.kind === 'carbon');
  const sediment = stages.findIndex((stage) => stage.kind === 'sediment');
  if (carbon < 0 || (sediment >= 0 && sediment < carbon)) return null;
  const sdi = sourceSdi(system);
  const { turbidityNTU } = system.source;
  const dirty = turbidityNTU > CARBON_NTU || tooSilty(sdi);
  const meets = sdi && tooSilty(sdi) ? `a silt density of ${sdi.index.toFixed(1)} by ${sdi.minutes} min` : `${turbidityNTU}${THIN}NTU`;
  const name = stages[carbon]!.name;
  if (!dirty && sediment < 0) return null;
  return {
    id: 'carbonFirst',
    severity: dirty ? 'mind' : 'note',
    title: `${name} meets ${meets} before any sediment filter`,
    why: dirty
      ? 'The dirt clogs the carbon long before its chlorine does. Sediment belongs before it.'
      : 'Some put sediment last, to catch carbon fines. It does no harm on clear water; the usual order spares the carbon.',
    ...(sediment >= 0
      ? { action: { do: 'order' as const, ids: moved(stages, sediment, carbon), label: `Put ${inSentence(stages[sediment]!.name)} first` } }
      : {}),
  };
}

/** Resin ahead of the membrane takes up all the salt the membrane would send to waste. */
function resinFirst(system: System, { solved }: TrainFacts): Finding | null {
  const { stages } = system.train;
  const membrane = stages.findIndex((stage) => stage.kind === 'membrane');
  const resin = stages.findIndex((stage) => stage.kind === 'resin');
  if (membrane < 0 || resin < 0 || resin > membrane) return null;
  const met = solved.stations[resin];
  if (!met) return null;
  return {
    id: 'resinFirst',
    severity: 'mind',
    title: `${stages[resin]!.name} takes up the whole ${words(system.units).water(met.state.ec25UScm)}, before the membrane`,
    why: 'Behind the membrane it would last ten to twenty times as long, and could not be fed preservative from a new one.',
    action: { do: 'order', ids: moved(stages, resin, membrane), label: `Put ${inSentence(stages[resin]!.name)} behind it` },
  };
}

/** Silt density against what an element stands. */
function silt(system: System): Finding | null {
  const { silt: test } = system.source;
  if (!test || !membraneStage(system.train.stages)) return null;
  const sdi = siltDensityIndex(test.initialSeconds, test.finalSeconds, test.minutes);
  if (!sdi.ok) return { id: 'silt', severity: 'mind', title: 'The silt test does not hold', why: sdi.error.message };
  if (!tooSilty(sdi.value)) return null;
  const { index, minutes, pastLimit } = sdi.value;
  return {
    id: 'silt',
    severity: pastLimit ? 'bad' : 'mind',
    title: `SDI${minutes} is ${index.toFixed(1)}: ${pastLimit ? `a membrane stands ${MOST_SDI} in 15 min` : `${CARBON_SDI} is aimed at`}`,
    why: 'Fine dirt settles on the membrane from the first element on. A finer or a second filter before it, and test again behind it.',
  };
}
