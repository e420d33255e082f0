/** The space of options of a job: one value from each axis, in ascending size, so that an option's id stays (science of options, 2). */

type Value = string | number | boolean;
/** What is chosen among along one axis. */
export interface Axis<Id extends string = string, V extends Value = Value> {
  readonly id: Id;
  readonly values: readonly V[];
}
/** What an option takes along each axis. */
export type Choice = Readonly<Record<string, Value>>;
/** The same, where the axes are known. */
export type ChoiceOf<Axes extends readonly Axis[]> = { readonly [A in Axes[number] as A['id']]: A['values'][number] };

export interface Option {
  /** Place along each axis, joined by dots. */
  readonly id: string;
  readonly places: readonly number[];
}

/** How many options a space holds. */
export const spaceSize = (axes: readonly Axis[]): number => axes.reduce((product, { values }) => product * values.length, 1);

/** Every option of a space, the last axis running fastest. */
export function* enumerateOptions(axes: readonly Axis[]): Generator<Option> {
  if (axes.some(({ values }) => values.length === 0)) return;
  const places = axes.map(() => 0);
  for (;;) {
    yield { id: places.join('.'), places: [...places] };
    let k = axes.length - 1;
    while (k >= 0 && places[k] === axes[k]!.values.length - 1) places[k--] = 0;
    if (k < 0) return;
    places[k]! += 1;
  }
}

/** The value an option takes along an axis. */
export const valueOf = (axes: readonly Axis[], { places }: Option, axis: string): Value | undefined => {
  const k = axes.findIndex(({ id }) => id === axis);
  return k < 0 ? undefined : axes[k]!.values[places[k]!];
};

const axis = <const Id extends string, const V extends readonly Value[]>(id: Id, ...values: V): Axis<Id, V[number]> => ({ id, values });
const YES_NO = [false, true] as const;
export const SMALL = ['household25', 'household50', 'household75', 'household100', 'household150', 'household200'] as const;
const NUMBER = ['one', 'twoInSeries', 'twoInParallel'] as const;
const CARBON = ['one', 'two', 'chloramine'] as const;

/** Axes of each job. Hours of running are an outcome, and re-used concentrate a cost: neither is an axis. */
export const JOB_AXES = {
  marine: [
    axis('element', ...SMALL),
    axis('number', ...NUMBER),
    axis('booster', ...YES_NO),
    axis('wasteToProduct', 2, 3, 4, 5),
    axis('carbon', ...CARBON),
    axis('resin', 'none', '0.6', '1.2', '2x0.6', '2x1.2', '1.2+silica'),
    axis('tankL', 0, 60, 120, 200),
  ],
  breeder: [
    axis('element', ...SMALL),
    axis('number', ...NUMBER),
    axis('booster', ...YES_NO),
    axis('wasteToProduct', 2, 3, 4, 5),
    axis('carbon', ...CARBON),
    axis('finish', 'none', 'blend', 'remineralise', 'both'),
    axis('drumL', 120, 200, 400),
  ],
  resinAlone: [axis('vesselL', '7', '11', '25', '2x7', '2x11', '2x25'), axis('prefilter', ...YES_NO), axis('reservoirL', 0, 250, 650)],
  window: [
    axis('element', 'in25Low', 'in25Usual', 'in4Low', 'in4Lowest'),
    axis('number', 1, 2, 3),
    axis('pump', 'line', 'booster', 'cart'),
    axis('recovery', 0.4, 0.5, 0.6, 0.7),
    axis('recycle', ...YES_NO),
    axis('scale', 'nothing', 'inhibitor', 'softener'),
    axis('resin', 'none', '1.2', '7', '11', '25', '2x11'),
    axis('tankL', 0, 250, 400, 650),
  ],
  espresso: [
    axis('cartridge', 'decarbonising', 'magnesium', 'softening'),
    axis('cartridgeL', 1, 2, 4, 8),
    axis('bypass', 'below', 'computed', 'above'),
    axis('prefilter', ...YES_NO),
  ],
  counter: [
    axis('softener', 'none', 'small', 'large'),
    axis('unit', 'small', 'large'),
    axis('recovery', 0.4, 0.5, 0.6),
    axis('blend', 1, 2, 3, 4, 5),
    axis('tankL', 30, 60, 120),
    axis('espresso', 1, 2, 3, 4, 5),
    axis('iceFilter', ...YES_NO),
  ],
  laboratory: [
    axis('element', 'in4Low', 'in4Usual', 'in4Lowest'),
    axis('array', '1', '2', '1:1', '2:1', '2:2', '3:2'),
    axis('recovery', 0.5, 0.6, 0.7, 0.75),
    axis('recycle', 'none', 'some', 'much'),
    axis('pretreatment', 'carbon', 'inhibitor', 'softener'),
    axis('degassing', ...YES_NO),
    axis('tankL', 500, 1000, 1500),
    axis('polisher', 'none', 'single', 'leadAndLag', 'electro'),
    axis('uv', ...YES_NO),
  ],
  watermaker: [
    axis('element', 'in25Sea', 'in4Sea'),
    axis('number', 1, 2, 3, 4),
    axis('pump', 'small', 'middle', 'large'),
    axis('pressureBar', 45, 50, 55, 60),
    axis('energyRecovery', ...YES_NO),
    axis('tankL', 100, 200, 400),
    axis('flush', ...YES_NO),
  ],
} as const satisfies Record<string, readonly Axis[]>;
export type Job = keyof typeof JOB_AXES;
