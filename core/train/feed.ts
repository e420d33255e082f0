import type { Instrument, Source } from '../file';
import { fail, ok, type Outcome } from '../quantity';
import { completeWater, ec25FromReading, type CompletedWater, type PartialAnalysis } from '../water';

/** The analysis behind a source's sample: the meter's reading turned into conductivity by its own scale. */
export function sampleAnalysis(source: Source, instruments: readonly Instrument[]): Outcome<PartialAnalysis> {
  const { sample } = source;
  const instrument = instruments.find((candidate) => candidate.id === sample.instrumentId);
  if (!instrument)
    return fail(
      'instrumentId',
      sample.instrumentId,
      'an instrument of this system',
      'The meter this reading was taken with is no longer listed.',
    );
  let ec25UScm: number | undefined;
  if (sample.reading !== null) {
    if (sample.reading === 0)
      return fail(
        'reading',
        0,
        'a reading above 0',
        'A tap that reads 0 is not a supply: check the meter, or enter hardness or alkalinity instead.',
      );
    const ec25 = ec25FromReading(sample.reading, instrument.scale);
    if (!ec25.ok) return ec25;
    ec25UScm = ec25.value;
  }
  return ok({
    character: sample.character,
    temperatureC: sample.temperatureC,
    ...(ec25UScm === undefined ? {} : { ec25UScm }),
    ...(sample.hardnessMgL === null ? {} : { hardnessMgL: sample.hardnessMgL }),
    ...(sample.alkalinityMgL === null ? {} : { alkalinityMgL: sample.alkalinityMgL }),
    ...(sample.pH === null ? {} : { pH: sample.pH }),
  });
}

/** The complete tap water of a source, disinfectant included. */
export function tapWater(source: Source, instruments: readonly Instrument[]): Outcome<CompletedWater> {
  const analysis = sampleAnalysis(source, instruments);
  if (!analysis.ok) return analysis;
  const completed = completeWater(analysis.value);
  if (!completed.ok) return completed;
  const { chlorineMgL, chloramineMgL } = source.sample;
  const { water } = completed.value;
  return ok({
    ...completed.value,
    water: { ...water, mgL: { ...water.mgL, chlorine: chlorineMgL, chloramine: chloramineMgL } },
    origins: { ...completed.value.origins, chlorine: 'measured', chloramine: 'measured' },
  });
}
