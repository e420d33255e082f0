import type { Sample, Source } from './schema';

/** The sample a system is planned with. */
export function currentSample(source: Source): Sample {
  // A file whose sampleId points nowhere is refused at reading.
  return source.samples.find((sample) => sample.id === source.sampleId) ?? source.samples[0]!;
}

/** A sample with nothing entered but its kind of supply, ready to be filled. */
export function emptySample(id: string, takenOn: string, like: Sample): Sample {
  return {
    id,
    takenOn,
    character: like.character,
    way: like.way,
    temperatureC: like.temperatureC,
    reading: null,
    instrumentId: like.instrumentId,
    kit: NO_KIT,
    report: NO_REPORT,
    chlorineMgL: like.chlorineMgL,
    chloramineMgL: like.chloramineMgL,
  };
}

/** A test kit of which nothing was used yet. */
export const NO_KIT: Sample['kit'] = {
  hardnessMgL: null,
  alkalinityMgL: null,
  pH: null,
  nitrateMgL: null,
  ammoniaMgL: null,
  phosphateMgL: null,
  silicaMgL: null,
  hardnessCount: null,
  alkalinityCount: null,
};
export const NO_REPORT: Sample['report'] = { title: '', text: '', values: [], closeBalance: false };

/** A source whose current sample is changed. */
export function withSample(source: Source, changes: Partial<Sample>): Source {
  const { id } = currentSample(source);
  return { ...source, samples: source.samples.map((sample) => (sample.id === id ? { ...sample, ...changes } : sample)) };
}
