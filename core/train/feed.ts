import { currentSample, readingGivesWay, type Instrument, type Sample, type Source } from '../file';
import { fail, ok, type Outcome } from '../quantity';
import {
  completeWater,
  dropResult,
  isSolute,
  kitAmmonia,
  meterEc25,
  meterSalinity,
  mixWaters,
  seaConductivityMScm,
  settleWater,
  SOLUTES,
  type CompletedWater,
  type KitAmmonia,
  type Origin,
  type PartialAnalysis,
  type Solute,
} from '../water';

/** Conductivity at 25 °C behind the sample's meter reading; undefined when there is none. */
function readingEc25(sample: Sample, instruments: readonly Instrument[]): Outcome<number | undefined> {
  if (sample.reading === null) return ok(undefined);
  const instrument = instruments.find((candidate) => candidate.id === sample.instrumentId);
  if (!instrument)
    return fail(
      'instrumentId',
      sample.instrumentId,
      'an instrument of this system',
      'The meter this reading was taken with is no longer listed.',
    );
  if (sample.reading === 0)
    return fail(
      'reading',
      0,
      'a reading above 0',
      'A tap that reads 0 is not a supply: check the meter, or enter hardness or alkalinity instead.',
    );
  // Sea water goes by its salinity: its conductivity does not change by a meter's 2 % a degree.
  const salinity = sample.character === 'seawater' ? meterSalinity(sample.reading, instrument, sample.temperatureC) : null;
  if (salinity?.ok) return ok(1000 * seaConductivityMScm(salinity.value, 25));
  return meterEc25(sample.reading, instrument, sample.temperatureC);
}

/** Doubt of a reading, as a share: a pen that was never compared may be 5 % off (common practice). */
const readingDoubt = (sample: Sample, instruments: readonly Instrument[]): number =>
  instruments.find(({ id }) => id === sample.instrumentId)?.calibratedOn ? 0.03 : 0.05;
/** Doubt of a laboratory's conductivity. */
const LABORATORY_DOUBT = 0.01;

/** Supplies that chloramine is not dosed to. */
const NEVER_DOSED: readonly Sample['character'][] = ['brackish', 'seawater', 'rain'];

/** What the kit for ammonia read, told apart; null where it was not used. */
function ammoniaOf(sample: Sample, ec25UScm: number | undefined, chlorineTested: boolean): KitAmmonia | null {
  const { way, kit, character, chloramineMgL } = sample;
  if (way !== 'kit' || kit.ammoniaMgL === null) return null;
  return kitAmmonia(kit.ammoniaMgL, chlorineTested ? chloramineMgL : null, ec25UScm, !NEVER_DOSED.includes(character));
}

/** What the ammonia of a source's own kit is made of; null where the kit was not used. */
export function ammoniaInKit(source: Source, instruments: readonly Instrument[]): KitAmmonia | null {
  const sample = currentSample(source);
  const ec25 = readingGivesWay(source) ? ok(undefined) : readingEc25(sample, instruments);
  return ammoniaOf(sample, ec25.ok ? ec25.value : undefined, !source.assumed.includes('chlorine'));
}

/** A strip's range as a figure: its middle, and as much to either side. */
const middle = (from: number, to: number | null): number => (to === null ? from : (from + to) / 2);
const span = (from: number | null, to: number | null): number | undefined =>
  from === null || to === null ? undefined : Math.abs(to - from) / 2;

/** The kit's figures, with the doubt of the drops they were counted by. */
function kitAnalysis({ kit }: Sample, ammonia: KitAmmonia | null): Partial<PartialAnalysis> {
  const plusMinus = (count: Sample['kit']['hardnessCount']): number | undefined => {
    const result = count && dropResult(count);
    return result?.ok ? result.value.plusMinusMgL : undefined;
  };
  const hardness = span(kit.hardnessMgL, kit.hardnessToMgL) ?? plusMinus(kit.hardnessCount);
  const alkalinity = span(kit.alkalinityMgL, kit.alkalinityToMgL) ?? plusMinus(kit.alkalinityCount);
  return {
    ...(kit.hardnessMgL === null ? {} : { hardnessMgL: middle(kit.hardnessMgL, kit.hardnessToMgL) }),
    ...(kit.alkalinityMgL === null ? {} : { alkalinityMgL: middle(kit.alkalinityMgL, kit.alkalinityToMgL) }),
    ...(kit.pH === null ? {} : { pH: kit.pH }),
    mgL: {
      ...(kit.nitrateMgL === null ? {} : { NO3: kit.nitrateMgL }),
      ...(ammonia === null ? {} : { NH4N: ammonia.ammoniaNMgL }),
      ...(kit.phosphateMgL === null ? {} : { PO4: kit.phosphateMgL }),
      ...(kit.silicaMgL === null ? {} : { SiO2: kit.silicaMgL }),
    },
    plusMinus: {
      ...(hardness === undefined ? {} : { hardnessMgL: hardness }),
      ...(alkalinity === undefined ? {} : { alkalinityMgL: alkalinity }),
    },
  };
}

/** A report's accepted values. */
function reportAnalysis({ report }: Sample): Partial<PartialAnalysis> {
  const mgL: Partial<Record<Solute, number>> = {};
  const below: Partial<Record<Solute, number>> = {};
  const sums: { ec25UScm?: number; hardnessMgL?: number; alkalinityMgL?: number; pH?: number } = {};
  for (const { quantity, value, below: isBelow } of report.values) {
    if (isSolute(quantity)) (isBelow ? below : mgL)[quantity] = value;
    else if (!isBelow && quantity !== 'tdsMgL' && quantity !== 'temperatureC') sums[quantity] = value;
  }
  return { ...sums, mgL, below, closeBalance: report.closeBalance };
}

/** The analysis behind a sample, by the way in that counts. */
export function sampleAnalysis(sample: Sample, instruments: readonly Instrument[], chlorineTested = true): Outcome<PartialAnalysis> {
  const base = { character: sample.character, temperatureC: sample.temperatureC };
  if (sample.way === 'usual') return ok({ ...base, usual: true });
  if (sample.way === 'report') return ok({ ...base, ...reportAnalysis(sample), ec25Doubt: LABORATORY_DOUBT });
  const ec25 = readingEc25(sample, instruments);
  if (!ec25.ok) return ec25;
  const read = ec25.value === undefined ? {} : { ec25UScm: ec25.value, ec25Doubt: readingDoubt(sample, instruments) };
  return ok({ ...base, ...read, ...(sample.way === 'kit' ? kitAnalysis(sample, ammoniaOf(sample, ec25.value, chlorineTested)) : {}) });
}

/**
 * The complete water of one sample, disinfectant included.
 *
 * @param chlorineTested somebody looked at free and total chlorine, or it is what a template filled in
 */
export function sampleWater(sample: Sample, instruments: readonly Instrument[], chlorineTested = true): Outcome<CompletedWater> {
  const analysis = sampleAnalysis(sample, instruments, chlorineTested);
  if (!analysis.ok) return analysis;
  const completed = completeWater(analysis.value);
  if (!completed.ok) return completed;
  const stated = (solute: 'chlorine' | 'chloramine'): boolean =>
    analysis.value.mgL?.[solute] !== undefined || analysis.value.below?.[solute] !== undefined;
  const { water, origins, plusMinusMgL } = completed.value;
  const ammonia = ammoniaOf(sample, analysis.value.ec25UScm, chlorineTested);
  const disinfectant = sample.way === 'usual' || !chlorineTested ? 'assumed' : 'measured';
  const mgL = {
    ...water.mgL,
    chlorine: stated('chlorine') ? water.mgL.chlorine : sample.chlorineMgL,
    chloramine: stated('chloramine') ? water.mgL.chloramine : (ammonia?.chloramineMgL ?? sample.chloramineMgL),
  };
  const split = ammonia?.plusMinusMgL ?? null;
  return ok({
    ...completed.value,
    water: { ...water, mgL },
    origins: {
      ...origins,
      chlorine: disinfectant,
      chloramine: disinfectant,
      ...(split === null ? {} : { NH4N: 'assumed' as const }),
    },
    plusMinusMgL: {
      ...plusMinusMgL,
      // What a template filled in: half of it may be missing or more (our judgement).
      ...(chlorineTested ? {} : { chlorine: mgL.chlorine / 2, chloramine: mgL.chloramine / 2 }),
      ...(split === null ? {} : { NH4N: split }),
    },
  });
}

/** The complete water at the head of a train: the source's sample, blended with its second water where there is one. */
export function tapWater(source: Source, instruments: readonly Instrument[]): Outcome<CompletedWater> {
  const sample = currentSample(source);
  const first = sampleWater(
    readingGivesWay(source) ? { ...sample, reading: null } : sample,
    instruments,
    !source.assumed.includes('chlorine'),
  );
  return first.ok ? mixed(source, instruments, first.value) : first;
}

/** A first water, with the second where there is one. */
function mixed(source: Source, instruments: readonly Instrument[], first: CompletedWater): Outcome<CompletedWater> {
  const { second } = source;
  if (!second || second.share === 0) return ok(first);
  const other = sampleWater(second.sample, instruments);
  if (!other.ok) return fail(other.error.field, other.error.value, other.error.accepted, `${second.name}: ${other.error.message}`);
  return blended(first, other.value, second.share);
}

/** Two completed waters in one: what is assumed in either is assumed of the mixture. */
function blended(a: CompletedWater, b: CompletedWater, shareB: number): Outcome<CompletedWater> {
  const mixed = mixWaters([
    { water: a.water, volumeL: 1 - shareB },
    { water: b.water, volumeL: shareB },
  ]);
  if (!mixed.ok) return mixed;
  const doubt: readonly Origin[] = ['measured', 'derived', 'assumed'];
  const origins = { ...a.origins };
  const plusMinusMgL = { ...a.plusMinusMgL };
  for (const key of [...SOLUTES, 'alkalinity'] as const) {
    origins[key] = doubt[Math.max(doubt.indexOf(a.origins[key]), doubt.indexOf(b.origins[key]))]!;
    plusMinusMgL[key] = Math.hypot((1 - shareB) * a.plusMinusMgL[key], shareB * b.plusMinusMgL[key]);
  }
  origins.pH = 'derived';
  return ok({ ...a, readUScm: null, water: mixed.value, origins, plusMinusMgL, warning: a.warning ?? b.warning });
}

/** The span of a source over the year. */
export interface SeasonSpan {
  readonly lowestTemperatureC: number;
  readonly highestTemperatureC: number;
  /** Conductivity at 25 °C, µS/cm; null when neither entered nor shown by the samples. */
  readonly weakestUScm: number | null;
  readonly strongestUScm: number | null;
}

/** The year's span as entered, or failing that as the dated samples have it. */
export function seasonSpan(source: Source, instruments: readonly Instrument[]): SeasonSpan {
  const seen = source.samples.flatMap((sample) => {
    const water = sampleWater(sample, instruments);
    const state = water.ok ? settleWater(water.value.water) : water;
    return state.ok ? [state.value.ec25UScm] : [];
  });
  const { season } = source;
  return {
    lowestTemperatureC: season.lowestTemperatureC,
    highestTemperatureC: season.highestTemperatureC,
    weakestUScm: season.weakestUScm ?? (seen.length > 0 ? Math.min(...seen) : null),
    strongestUScm: season.strongestUScm ?? (seen.length > 0 ? Math.max(...seen) : null),
  };
}

/** Coldest month of water north of the equator: February (common practice). */
export const COLDEST_MONTH = 1;

/** A yearly course between two ends, the higher in a given month. */
export const yearlyCourse = (low: number, high: number, month: number, peak: number): number =>
  (low + high) / 2 + ((high - low) / 2) * Math.cos(((month - peak) * Math.PI) / 6);

/** Temperature of a source in a month, 0 for January; parts of months count. */
export const temperatureInMonth = (
  { lowestTemperatureC, highestTemperatureC }: Pick<SeasonSpan, 'lowestTemperatureC' | 'highestTemperatureC'>,
  month: number,
): number => yearlyCourse(highestTemperatureC, lowestTemperatureC, month, COLDEST_MONTH);
