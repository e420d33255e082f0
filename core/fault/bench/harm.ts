/** Harm that can be done on the bench, once each: what it costs as minutes of effort, and the caution it teaches (product assumptions). */
export const HARMS = {
  floor: {
    minutes: 240,
    title: 'The floor is under water.',
    caution: 'Stay while a tank fills, or turn the product to drain: a float or a shut-off that sticks floods the floor.',
  },
  preservative: {
    minutes: 120,
    title: 'Preservative or cleaner went through the resin.',
    caution: 'Take the product line off and rinse a new or cleaned membrane to drain for an hour before resin sees its water.',
  },
  chlorine: {
    minutes: 60,
    title: 'The membrane ran on chlorinated water.',
    caution: 'Never run a membrane without its carbon: what chlorine takes does not come back.',
  },
  pressure: {
    minutes: 60,
    title: 'A housing was opened under pressure.',
    caution: 'Shut the feed, let the pressure out, and wait until the gauge reads nothing before a housing is opened.',
  },
  pump: {
    minutes: 90,
    title: 'The pump ran dry, or against a shut end.',
    caution: 'Switch the pump off before its feed is shut, and never close its outlet.',
  },
  relief: {
    minutes: 240,
    title: 'The pressure had nowhere to go, or came up too fast.',
    caution: 'Never plug a relief valve. Bring a seawater membrane up slowly, by at most 0.7 bar (10 psi) a second.',
  },
  badWater: {
    minutes: 60,
    title: 'Water that misses the goal went to where it is used.',
    caution: 'Turn the product to drain until it has been read and is good.',
  },
  hotFeed: {
    minutes: 60,
    title: 'The membrane was cooked.',
    caution: 'Cold water only: above 45 °C a membrane is lost. Never tee into the hot side.',
  },
} as const satisfies Record<string, { readonly minutes: number; readonly title: string; readonly caution: string }>;
export type HarmId = keyof typeof HARMS;
