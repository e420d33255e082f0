export { answered, confirmed, isChloramineUntested, readingGivesWay, tapIsAssumed, withUntestedChloramine } from './assumed';
export { bytesOfText, textOfBytes, type Beside, type PackedPhoto, type PackedRecording } from './beside';
export { FIRST_YEAR, LAST_YEAR, USUAL_LINE_PRESSURE, USUAL_WATER_TEMPERATURE, isLikelyDate } from './bounds';
export { applyChanges, changesBetween, joined, same, takenBack, type Change } from './changes';
export { NOTHING_BUILT, NOTHING_SAID, OPEN_CHOICE, PLACEHOLDER_PRICES, USUAL_TURBIDITY_NTU } from './defaults';
export {
  readDocument,
  readingIssue,
  saveDocument,
  systemIssue,
  unlikelyDates,
  writeDocument,
  type FileError,
  type FileIssue,
} from './document';
export { FILE_ENDING, envelope, fileText } from './envelope';
export {
  SYSTEM_PARTS,
  alike,
  compareRecords,
  copyOf,
  mergeRecords,
  newerOf,
  withPlainId,
  type MergeChoices,
  type ReadingSide,
  type RecordComparison,
  type SystemPart,
} from './merge';
export { behind, isSamePlace, placeKey, type Place } from './place';
export {
  GAUGE_WORDS,
  alongTrain,
  furtherGauges,
  gaugeDimension,
  gaugePlaces,
  gaugeValue,
  isPlace,
  lastProbeWithin,
  nameMoved,
  outletPlace,
  probePlaces,
  probesWith,
  probesWithout,
  productProbe,
  readsFlow,
  vesselName,
  type NamedPlace,
} from './places';
export { saysTheSame, withEdit } from './readingChanges';
export { removalsAfter, withRemovals } from './removed';
export { isSameWork, likelySameWork } from './sameWork';
export { linked, withLinked } from './design';
export { fileFromLink, linkText } from './link';
export type { SystemRecord } from './record';
export {
  ASSUMABLE,
  HANGINGS,
  HOOK_UPS,
  SENSOR_READS,
  SERVICE_WHY,
  STANDS_HOW,
  TEMPLATE_IDS,
  TUBE_COLOURS,
  WORK_KINDS,
  kitSchema,
  sampleSchema,
  ratioSchema,
  readingSchema,
  systemSchema,
  taskSchema,
  upkeepRuleSchema,
  type Assumable,
  type Branch,
  type Build,
  type BoughtSet,
  type Cartridge,
  type ChoiceSettings,
  type Comparison,
  type Deviation,
  type Gauge,
  type Hanging,
  type HookUp,
  type Instrument,
  type Kit,
  type LoopSettings,
  type Measured,
  type PortReading,
  type Prices,
  type Probe,
  type Reading,
  type Sample,
  type SampleWay,
  type Season,
  type Sensor,
  type SensorReads,
  type Away,
  type GaugePlace,
  type Service,
  type ServiceWhy,
  type Source,
  type Stands,
  type System,
  type TemplateId,
  type Task,
  type Train,
  type TubeColour,
  type UpkeepRule,
  type Work,
  type WorkKind,
} from './schema';
export {
  NO_KIT,
  NO_REPORT,
  allStages,
  currentSample,
  emptySample,
  feedPump,
  fittedProbes,
  lastTank,
  mapStages,
  membraneStage,
  tankVolumeL,
  withSample,
  withDraws,
} from './select';
export { awaySince, PRESERVED_DAYS } from './away';
export { STANDS_WORDS, asItStands, isBeingDescribed, stoodBefore, undatedStages, withFittedOn, withStands } from './stands';
export { FILE_VERSION, FILE_VERSIONS } from './versions';
export { asItWas } from './versions/raw';
