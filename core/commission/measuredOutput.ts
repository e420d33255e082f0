import { membraneStage, type System } from '../file';

/** What two jugs gave of the unit as it stands: it overrules what was solved wherever somebody is promised something. */
export interface MeasuredOutput {
  readonly at: string;
  readonly productLPerDay: number;
  readonly wasteToProduct: number;
  readonly pressureBar: number | null;
  readonly temperatureC: number | null;
}

/** The last ratio test of the unit as it stands, as a day of it; null where it was cut or rebuilt since, or never measured. */
export function measuredOutput({ build, train }: Pick<System, 'build' | 'train'>): MeasuredOutput | null {
  const last = build.ratios.at(-1);
  const membrane = membraneStage(train.stages);
  if (!last || !membrane || last.productL <= 0 || last.seconds === null || last.seconds <= 0) return null;
  if (membrane.valve === null && Math.abs(membrane.restrictor.lengthMm - last.restrictorLengthMm) > SAME_MM) return null;
  return {
    at: last.at,
    productLPerDay: (86_400 * last.productL) / last.seconds,
    wasteToProduct: last.wasteL / last.productL,
    pressureBar: last.pressureBar,
    temperatureC: last.temperatureC,
  };
}
/** A length typed twice is the same to this. */
const SAME_MM = 0.5;
