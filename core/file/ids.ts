/** Names of the kinds a file can hold; the rooms that know what they mean key their tables by them. */

export const ELEMENT_CLASSES = [
  '1812-24',
  '1812-50',
  '1812-75',
  '1812-100',
  '1812-150',
  '1812-200',
  '2012-200',
  '2540-BW',
  '2540-LE',
  '4040-BW',
  '4040-LE',
  '4040-XLE',
  '2540-SW',
  '4040-SW',
  '4040-NF',
] as const;
export type ElementClass = (typeof ELEMENT_CLASSES)[number];

export const RESIN_CLASSES = ['mixedBed', 'colourMixedBed', 'silicaStage', 'cationBed', 'anionBed'] as const;
export type ResinClassId = (typeof RESIN_CLASSES)[number];

export const CARBON_MEDIA = ['block', 'granular'] as const;
export type CarbonMedium = (typeof CARBON_MEDIA)[number];

export const GOAL_IDS = [
  'marineMakeUp',
  'reefTank',
  'softWaterBreeding',
  'freshwaterCommunity',
  'windowCleaning',
  'laboratory',
  'espresso',
  'brewWater',
  'steamOven',
  'ice',
  'drinking',
  'watermaker',
  'custom',
] as const;
export type GoalId = (typeof GOAL_IDS)[number];

/** What a limit can be about; each is a figure of a solved water. */
export const LIMIT_QUANTITIES = [
  'ec25UScm',
  'tdsMgL',
  'residueMgL',
  'salinity',
  'hardnessMgL',
  'calciumHardnessMgL',
  'alkalinityMgL',
  'pH',
  'calciumMgL',
  'magnesiumMgL',
  'sodiumMgL',
  'chlorideMgL',
  'sulfateMgL',
  'nitrateMgL',
  'phosphateMgL',
  'silicaMgL',
  'fluorideMgL',
  'boronMgL',
  'ammoniaMgL',
  'chlorineMgL',
  'boilerScaleMgL',
] as const;
export type LimitQuantity = (typeof LIMIT_QUANTITIES)[number];

export const TEMPLATE_IDS = [
  'marineHousehold',
  'marinePair',
  'breeder',
  'vanTank',
  'vanCart',
  'resinVessel',
  'skid',
  'watermaker',
  'espressoBar',
  'counterSoft',
  'counterHard',
] as const;
export type TemplateId = (typeof TEMPLATE_IDS)[number];
