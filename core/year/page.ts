import type { Block } from '../commission';
import { DAY_MS, moneyText, words, type UnitPreference } from '../quantity';
import type { YearBands } from './bands';
import { COST_LINES } from '../ledger';
import { boundWords, costLineWord, outlookTitle, type Outlook } from './outlook';

/** The year ahead as a page of the offer: what comes when, and what it costs to keep. */

/** A calendar day, told in full: paper is read later. */
const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

export function yearPage(outlook: Outlook, bands: YearBands | null, units: UnitPreference, currency: string): Block[] {
  const { run, startMs, names, goal } = outlook;
  const say = words(units);
  const named = new Map(names);
  const cost = COST_LINES.filter((line) => run.total[line] >= 0.5);
  const least = Math.min(...run.couldMakeL);
  const need = outlook.needL.reduce((sum, litres) => sum + litres, 0) / outlook.days;
  return [
    { kind: 'heading', text: outlookTitle(outlook, units, currency) },
    {
      kind: 'facts',
      rows: [
        ['Begins', dayOf(startMs)],
        ['Makes at the least', `${say.perDay(least)} on its coldest day; ${say.perDay(need)} are needed on average`],
        [
          'Outside the goal',
          boundWords(goal, units) === null
            ? 'its goal is not about strength'
            : run.offSpecDays === 0
              ? 'on no day, if changes are made when due'
              : `on ${run.offSpecDays} days`,
        ],
        ...(bands
          ? [
              [
                'How sure',
                `${moneyText(bands.cost.p10, currency)} to ${moneyText(bands.cost.p90, currency)} in 8 of 10 cases: use, tap, resin and prices are not known exactly`,
              ] as const,
            ]
          : []),
      ],
    },
    {
      kind: 'table',
      head: ['Visit', 'Around', 'What is changed'],
      rows: run.events.map(({ day, parts }, i) => [
        String(i + 1),
        dayOf(startMs + day * DAY_MS),
        parts.map((part) => named.get(part) ?? part).join(', '),
      ]),
      right: [],
    },
    {
      kind: 'table',
      head: ['A year of it', currency],
      rows: [...cost.map((line) => [costLineWord(line), run.total[line].toFixed(0)]), ['All together', run.totalCost.toFixed(0)]],
      right: [1],
      strong: [cost.length],
    },
    {
      kind: 'text',
      quiet: true,
      text: 'Estimates by the season, the use that was given and the prices of this job. Dates move with what is drawn; the log of the system moves them.',
    },
  ];
}
