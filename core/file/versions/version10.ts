import { asItWas, each, isData, type FileVersion } from './raw';

/** Classes of elements were named by the digits of their size and letters of their use. */
const ELEMENTS: Readonly<Record<string, string>> = {
  '1812-24': 'household25',
  '1812-50': 'household50',
  '1812-75': 'household75',
  '1812-100': 'household100',
  '1812-150': 'household150',
  '1812-200': 'household200',
  '2012-200': 'household200Wide',
  '2540-BW': 'in25Usual',
  '2540-LE': 'in25Low',
  '4040-BW': 'in4Usual',
  '4040-LE': 'in4Low',
  '4040-XLE': 'in4Lowest',
  '2540-SW': 'in25Sea',
  '4040-SW': 'in4Sea',
  '4040-NF': 'in4Loose',
};
const HOUSINGS: Readonly<Record<string, string>> = { housing2012: 'housingWide', housing2540: 'housing25', housing4040: 'housing4' };
const ELEMENT_PART = 'element-';

const renamed = (value: unknown): unknown => (typeof value === 'string' ? (ELEMENTS[value] ?? HOUSINGS[value] ?? value) : value);
const partRenamed = (part: unknown): unknown =>
  typeof part === 'string' && part.startsWith(ELEMENT_PART)
    ? `${ELEMENT_PART}${String(renamed(part.slice(ELEMENT_PART.length)))}`
    : renamed(part);

/** Steps of a dial that stood in every cartridge until somebody typed its own. */
const PLACEHOLDER = JSON.stringify([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6].map((bypass, i) => ({ label: String(i), bypass })));
const NOT_TYPED = { litres: null, hardnessMgL: null, bypass: null };

/** A stage as it is now: an element by its word, a cartridge with a place for what its box prints, and what it held before. */
function stageFrom9(stage: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
  if ('elementClass' in stage) return { ...stage, elementClass: renamed(stage['elementClass']) };
  if (!('capacityEq' in stage && 'settings' in stage)) return stage;
  return { ...stage, box: NOT_TYPED, settings: JSON.stringify(stage['settings']) === PLACEHOLDER ? [] : stage['settings'] };
}
/** What a goal was worked by where nobody had chosen: the first of its schools then. */
const FIRST_SCHOOLS: Readonly<Record<string, string>> = { laboratory: 'astm-I', brewWater: 'american', steamOven: 'strict' };
const goalFrom9 = (goal: Readonly<Record<string, unknown>>): unknown =>
  goal['school'] === null ? { ...goal, school: FIRST_SCHOOLS[String(goal['id'])] ?? null } : goal;

/** Stages and goals wherever they stand: in the train, in its uses, in a train as it was handed over. */
function broughtUp(data: unknown, key = ''): unknown {
  if (Array.isArray(data)) return data.map((one) => broughtUp(one));
  if (!isData(data)) return data;
  const within = Object.fromEntries(Object.entries(data).map(([inner, value]) => [inner, broughtUp(value, inner)]));
  return key === 'goal' ? goalFrom9(within) : stageFrom9(within);
}
/** A cartridge was chosen by a place in a row of sizes. */
const SIZES: Readonly<Record<number, number>> = { 1: 1, 2: 2, 3: 4, 4: 8 };
const axisFrom9 = (one: Readonly<Record<string, unknown>>): unknown => {
  const values = Array.isArray(one['values']) ? one['values'] : [];
  return one['axis'] === 'size'
    ? { ...one, axis: 'cartridgeL', values: values.flatMap((value: unknown) => SIZES[Number(value)] ?? []) }
    : { ...one, values: values.map(renamed) };
};

function systemFrom9(system: unknown): unknown {
  const named = broughtUp(system);
  if (!isData(named)) return named;
  const { build, choice } = named;
  return {
    ...named,
    ...(isData(build)
      ? { build: { ...build, partPrices: each(build['partPrices'], (one) => ({ ...one, part: partRenamed(one['part']) })) } }
      : {}),
    ...(isData(choice)
      ? {
          choice: {
            ...choice,
            prices: each(choice['prices'], (one) => ({ ...one, part: renamed(one['part']) })),
            kept: each(choice['kept'], axisFrom9),
          },
        }
      : {}),
  };
}

/** Version 10: classes of elements by words; what a cartridge's box prints; goals lead with their own limits. */
export const version10: FileVersion = { version: 10, system: systemFrom9, reading: asItWas };
