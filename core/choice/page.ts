import type { Block } from '../commission';
import type { System } from '../file';
import { moneyText, words } from '../quantity';
import type { OptionsSifted, Shown, Row } from './compare';
import { reasonText, ROLE_WORDS, RULE_WORDS } from './says';
import type { Found } from './search';

/** The comparison as a page of the offer: what was held against what, and why this one. */

export function comparisonPage(system: System, sifted: OptionsSifted, { rows, chosen }: Shown): Block[] {
  const say = words(system.units);
  const { currency } = system.prices;
  const best = chosen.recommendation;
  const found = (id: string): Found | undefined => sifted.found.find((one) => one.id === id);
  const [winner, cheapest] = best ? [found(best.id), found(best.cheapest)] : [];
  const reason = best && winner && cheapest ? reasonText(best, winner, cheapest, currency) : null;
  const line = (name: string, of: (row: Row) => string): string[] => [name, ...rows.map(of)];
  return [
    { kind: 'heading', text: 'What it was chosen among' },
    {
      kind: 'text',
      text: `${sifted.tried} trains were solved on this water, ${sifted.found.length} would do.${reason ? ` ${reason[0]}. ${reason[1]}` : ''}`,
    },
    {
      kind: 'table',
      head: ['', ...rows.map(({ role }) => ROLE_WORDS[role])],
      rows: [
        line('', ({ title }) => title),
        line('Cost a year', ({ figures }) => moneyText(figures.annualCost, currency)),
        line('To buy', ({ figures }) => (figures.capital === 0 ? 'stands' : moneyText(figures.capital, currency))),
        line('Waste a year', ({ figures }) => say.of(figures.wasteL, 'volumeL')),
        line('Visits a year', ({ figures }) => figures.visitsPerYear.toFixed(1)),
        line('Coldest day against need', ({ figures }) => figures.winterMargin.toFixed(1)),
        line('Would it do', ({ rejection }) => (rejection ? `no: ${RULE_WORDS[rejection.rule].toLowerCase()}` : 'yes')),
      ],
      right: rows.map((_, i) => i + 1),
    },
    {
      kind: 'text',
      quiet: true,
      text: 'Prices are this job’s where they were typed, placeholders otherwise: the order of things, not a quotation.',
    },
  ];
}
