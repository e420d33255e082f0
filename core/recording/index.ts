export { canBe, channelOf, FIGURE_OF, FIGURES, instrumentAt, instrumentsAt, probeOf, type Channel, type Figure } from './channel';
export { blockEnd, blocksOf, blockStart, joinedBlock, rolledUp, samplesOf, trace, type Block, type Tier } from './block';
export { isRecorded, joinedDays, readingOfDay, recordedDays, type RecordedDay } from './day';
export { packedFigures, unpackedBlock } from './packed';
export { between, joinedSamples, NO_SAMPLES, ordered, without, type Samples } from './samples';
export { canRead, figureOf, plainFigure, readSenml, type Heard } from './senml';
export { proposedPairs } from './propose';
