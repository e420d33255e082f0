import { membraneStage, type System } from '../file';

/** What two jugs gave of the unit as it stands: it overrules what was solved wherever somebody is promised something. */
export interface MeasuredOutput {
  readonly at: string;
  readonly productLPerDay: number;
  readonly wasteToProduct: number;
  readonly pressureBar: number | null;
  readonly temperatureC: number | null;
}

/** The last ratio test, where it is still of the unit as it stands: null where its tube was cut or changed since, or none was made. */
export function standingRatio({ build, train }: Pick<System, 'build' | 'train'>): System['build']['ratios'][number] | null {
  const last = build.ratios.at(-1);
  const membrane = membraneStage(train.stages);
  if (!last || !membrane) return null;
  const cut = membrane.valve === null && membrane.restrictor.form === 'tube';
  return cut && Math.abs(membrane.restrictor.lengthMm - last.restrictorLengthMm) > SAME_MM ? null : last;
}
/** A length is the same to this. */
const SAME_MM = 0.05;

/** What the last ratio test of the unit as it stands comes to in a day; null where nothing tells. */
export function measuredOutput(system: Pick<System, 'build' | 'train'>): MeasuredOutput | null {
  const last = standingRatio(system);
  if (!last || last.productL <= 0 || last.seconds === null || last.seconds <= 0) return null;
  return {
    at: last.at,
    productLPerDay: (86_400 * last.productL) / last.seconds,
    wasteToProduct: last.wasteL / last.productL,
    pressureBar: last.pressureBar,
    temperatureC: last.temperatureC,
  };
}
