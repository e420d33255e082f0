/** What a paper is made of, as plain data; how it is set and printed is the page's. */
export type Block =
  | { readonly kind: 'title'; readonly text: string; readonly under: string }
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'text'; readonly text: string; readonly quiet?: boolean }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'facts'; readonly rows: readonly (readonly [name: string, text: string])[] }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      readonly rows: readonly (readonly string[])[];
      /** Columns set to the right. */
      readonly right: readonly number[];
      /** Rows that sum up. */
      readonly strong?: readonly number[];
    }
  | { readonly kind: 'caution'; readonly title: string; readonly text: string }
  /** The descent, or the flow drawing: drawn by the page. */
  | { readonly kind: 'picture'; readonly of: 'descent' | 'drawing'; readonly says: string }
  | { readonly kind: 'signatures'; readonly names: readonly string[] }
  | { readonly kind: 'qr'; readonly says: string }
  | { readonly kind: 'labels'; readonly labels: readonly Label[] }
  | { readonly kind: 'lines'; readonly says: readonly string[] };

/** A label to stick on: what it says, and what is scanned. */
export interface Label {
  readonly title: string;
  readonly lines: readonly string[];
  readonly qr: boolean;
  /** Colour of the tubing it belongs to. */
  readonly colour: string | null;
}

/** One paper: what it is called, and its blocks. */
export interface Paper {
  readonly key: PaperKey;
  readonly name: string;
  readonly blocks: readonly Block[];
}

export const PAPER_KEYS = ['offer', 'buildSheet', 'record', 'labels', 'card'] as const;
export type PaperKey = (typeof PAPER_KEYS)[number];
export const PAPER_LABELS: Readonly<Record<PaperKey, { readonly name: string; readonly says: string }>> = {
  offer: { name: 'Offer', says: 'The system in words, what it will do on this water and how sure that is, its price and its upkeep.' },
  buildSheet: { name: 'Build sheet', says: 'Descent, flow drawing, cut list, parts without prices, tools and cautions.' },
  record: {
    name: 'Commissioning record',
    says: 'Every figure that was read beside the one that was predicted, deviations, two signatures.',
  },
  labels: { name: 'Labels', says: 'For cartridges, with their days and a code that opens this system, and for the tubing.' },
  card: { name: 'Customer card', says: 'What to read, what is normal, when to call.' },
};

/** Who it is from and for: typed on the page, printed, kept nowhere else. */
export interface Parties {
  readonly workshop: string;
  readonly customer: string;
}
