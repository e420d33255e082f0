import { z } from 'zod';
import { between, id, maybe, name } from '../quantity';

/** What the water is for, as it is kept: which goal, whose limits, what is put to it, how much of it and when. */

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

/** What a need is spoken of by. */
export const DEMAND_PER = ['day', 'week', 'hour', 'cups'] as const;

export const demandSchema = z.strictObject({
  /** What the need is spoken of by: a day, a week, an hour of those it is drawn in, or cups a day. */
  per: z.enum(DEMAND_PER),
  /** Hours a day it is drawn in, where it is spoken of by the hour; what a cup takes, where by cups. */
  hoursPerDay: between(0.25, 24),
  cupL: between(0.01, 5),
  /** Litres on each day, Monday first. */
  dayL: z.array(between(0, 1_000_000)).length(7),
  /** Relative draw of each hour of a day. */
  hourShare: z.array(between(0, 1000)).length(24),
  /** Amounts taken at once: so many times so much, in barrels or drums of one's own. */
  batches: z
    .array(
      z.strictObject({
        id,
        name,
        weekday: z.int().min(0).max(6),
        hour: z.int().min(0).max(23),
        count: z.int().min(1).max(1000),
        litres: between(0, 1_000_000),
      }),
    )
    .max(40),
  /** Taps and benches that may run at the same time, each with its flow. */
  draws: z.array(z.strictObject({ id, name, lPerH: between(0.1, 100_000) })).max(20),
  /** How far the use swings over the year about its mean, and the month of most; null where nobody said. */
  season: maybe(z.strictObject({ share: between(0, 1), busiestMonth: z.int().min(1).max(12) })),
});

export const preparationSchema = z.discriminatedUnion('how', [
  z.strictObject({ how: z.literal('none') }),
  z.strictObject({ how: z.literal('salt'), salinity: between(0, 80) }),
  z.strictObject({
    how: z.literal('minerals'),
    hardnessMgL: between(0, 2000),
    calciumShare: between(0, 1),
    alkalinityMgL: between(0, 2000),
    bicarbonate: z.enum(['Na', 'K']),
  }),
  z.strictObject({ how: z.literal('blend'), tapShare: between(0, 1) }),
]);

export const goalSchema = z.strictObject({
  id: z.enum(GOAL_IDS),
  /** Which school's limits; null: the goal's first. */
  school: maybe(name),
  /** The crew's own limit in ppm, where the goal leaves it open. */
  crewLimitPpm: maybe(between(0, 1000)),
  /** Limits set for this job in place of, or beside, the school's. */
  ownLimits: z
    .array(z.strictObject({ quantity: z.enum(LIMIT_QUANTITIES), low: maybe(between(0, 300_000)), high: maybe(between(0, 300_000)) }))
    .max(LIMIT_QUANTITIES.length),
  /** What is put to the product before it is used. */
  prepare: preparationSchema,
  demand: demandSchema,
});

export type Demand = z.infer<typeof demandSchema>;
export type Preparation = z.infer<typeof preparationSchema>;
export type OwnLimit = z.infer<typeof goalSchema>['ownLimits'][number];
export type Goal = z.infer<typeof goalSchema>;
