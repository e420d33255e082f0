import type { Block, Label, Paper } from '@yes-clear/core/commission';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { TUBE_PAINT } from '../parts/drawing/picture';
import { runs } from './runs';

/** What a paper is set with: its size, its pictures, and the code that opens its system. */
export interface Setting {
  readonly size: 'A4' | 'LETTER';
  readonly pictures: Readonly<
    Record<'descent' | 'drawing', { readonly svg: string; readonly width: number; readonly height: number } | null>
  >;
  /** The code as a drawing; null where the address does not fit into one. */
  readonly qrSvg: string | null;
  readonly foot: string;
}

/** Page sizes and margins in points. */
const PAGE = { A4: { w: 595, h: 842 }, LETTER: { w: 612, h: 792 } } as const;
const MARGIN = 48;
/** So many pieces behind a heading on its page, cells counted, are enough of what it heads. */
const HEADED = 24;
const INK = '#1b2b2d';
const QUIET = '#5d6b6b';
const LINE = '#d8d2c4';
const WARN = '#a86200';

const LAYOUT = {
  hLineWidth: () => 0.6,
  vLineWidth: () => 0,
  hLineColor: () => LINE,
  paddingLeft: (column: number) => (column === 0 ? 0 : 6),
  paddingRight: () => 6,
  paddingTop: () => 3,
  paddingBottom: () => 3,
};

/** A paper as the PDF library takes it. */
export function definitionOf(paper: Paper, setting: Setting): TDocumentDefinitions {
  const { size, foot } = setting;
  const width = PAGE[size].w - 2 * MARGIN;
  return {
    info: { title: paper.name },
    pageSize: size,
    pageMargins: [MARGIN, 44, MARGIN, 52],
    defaultStyle: { font: 'Atkinson', fontSize: 9.8, lineHeight: 1.22, color: INK },
    content: paper.blocks.map((block) => blockOf(block, setting, width)),
    // A heading goes with what it heads.
    pageBreakBefore: (node, nodes) =>
      node.headlineLevel === 1 && nodes.getNodesOnNextPage().length > 0 && nodes.getFollowingNodesOnPage().length < HEADED,
    footer: (page: number, pages: number): Content => ({
      columns: [
        { text: runs(foot), color: QUIET, fontSize: 8, width: '*' },
        { text: `${page} of ${pages}`, alignment: 'right', color: QUIET, fontSize: 8, width: 50 },
      ],
      margin: [MARGIN, 16, MARGIN, 0],
    }),
  };
}

function blockOf(block: Block, setting: Setting, width: number): Content {
  switch (block.kind) {
    case 'title':
      return {
        stack: [
          { text: runs(block.text), fontSize: 19, bold: true, lineHeight: 1.05 },
          { text: runs(block.under), color: QUIET, margin: [0, 3, 0, 0] },
        ],
        margin: [0, 0, 0, 10],
      };
    case 'heading':
      return { text: runs(block.text), fontSize: 12.5, bold: true, margin: [0, 12, 0, 4], headlineLevel: 1 };
    case 'text':
      return { text: runs(block.text), margin: [0, 2, 0, 4], ...(block.quiet && { color: QUIET, fontSize: 8.8 }) };
    case 'list':
      return {
        ul: block.items.map((item) => ({ text: runs(item), margin: [0, 1, 0, 1] as [number, number, number, number] })),
        margin: [0, 0, 0, 4],
      };
    case 'facts':
      return {
        table: { widths: [120, '*'], body: block.rows.map(([name, text]) => [{ text: runs(name), color: QUIET }, { text: runs(text) }]) },
        layout: LAYOUT,
        margin: [0, 0, 0, 4],
      };
    case 'table':
      return tableOf(block);
    case 'caution':
      return {
        table: { widths: ['*'], body: [[{ text: [{ text: runs(`${block.title}. `), bold: true }, { text: runs(block.text) }] }]] },
        layout: {
          ...LAYOUT,
          hLineWidth: () => 0,
          vLineWidth: (column: number) => (column === 0 ? 3 : 0),
          vLineColor: () => WARN,
          paddingLeft: () => 8,
        },
        margin: [0, 3, 0, 3],
        unbreakable: true,
      };
    case 'picture': {
      const picture = setting.pictures[block.of];
      if (!picture) return { text: runs(block.says), color: QUIET, margin: [0, 0, 0, 6] };
      const scale = Math.min(width / picture.width, (block.of === 'descent' ? 185 : 260) / picture.height, 1);
      return {
        stack: [
          { svg: picture.svg, width: picture.width * scale },
          { text: runs(block.says), color: QUIET, fontSize: 8.8, margin: [0, 3, 0, 0] },
        ],
        margin: [0, 2, 0, 8],
        unbreakable: true,
      };
    }
    case 'signatures':
      return {
        columns: block.names.map((name) => ({
          stack: [
            { canvas: [{ type: 'line', x1: 0, y1: 0, x2: (width - 40) / 2, y2: 0, lineWidth: 0.8, lineColor: INK }] },
            {
              text: runs(`${name}: name, day, signature`),
              color: QUIET,
              fontSize: 8.8,
              margin: [0, 3, 0, 0] as [number, number, number, number],
            },
          ],
        })),
        columnGap: 40,
        margin: [0, 40, 0, 8],
        unbreakable: true,
      };
    case 'qr':
      return setting.qrSvg
        ? {
            columns: [
              { svg: setting.qrSvg, width: 110 },
              { text: runs(block.says), color: QUIET, margin: [12, 8, 0, 0] },
            ],
            margin: [0, 12, 0, 0],
            unbreakable: true,
          }
        : { text: runs('This system is too large for a code: send it as a link or a file.'), color: QUIET, margin: [0, 8, 0, 0] };
    case 'labels':
      return labelsOf(block.labels, setting);
    case 'lines':
      return {
        stack: block.says.map((says) => ({
          columns: [
            { text: runs(says), width: 'auto' },
            { canvas: [{ type: 'line', x1: 0, y1: 11, x2: 300, y2: 11, lineWidth: 0.6, lineColor: QUIET }], width: '*' },
          ],
          columnGap: 8,
          margin: [0, 6, 0, 0] as [number, number, number, number],
        })),
      };
  }
}

function tableOf({ head, rows, right, strong = [] }: Extract<Block, { kind: 'table' }>): Content {
  const columns = Math.max(head.length, ...rows.map((row) => row.length));
  // The widest text of a table takes what is left; what is short stands on one line.
  const longest = Array.from({ length: columns }, (_, k) => Math.max(...[head, ...rows].map((row) => (row[k] ?? '').length)));
  const loose = longest.map((length, k) => length > 16 && !right.includes(k));
  const widths = loose.some(Boolean) ? loose.map((one) => (one ? '*' : 'auto')) : longest.map((_, k) => (k === 0 ? '*' : 'auto'));
  const cell = (text: string, k: number, row: number): TableCell => ({
    text: runs(text),
    alignment: right.includes(k) ? 'right' : 'left',
    bold: strong.includes(row),
  });
  const body = rows.map((row, i) => Array.from({ length: columns }, (_, k) => cell(row[k] ?? '', k, i)));
  const top = head.some((text) => text !== '')
    ? [
        Array.from({ length: columns }, (_, k): TableCell => ({
          text: runs(head[k] ?? ''),
          color: QUIET,
          alignment: right.includes(k) ? 'right' : 'left',
          fontSize: 8.8,
        })),
      ]
    : [];
  return {
    table: { widths, headerRows: top.length, dontBreakRows: true, body: [...top, ...body] },
    layout: LAYOUT,
    fontSize: columns > 4 ? 8.6 : 9.4,
    margin: [0, 0, 0, 6],
  };
}

/** Labels three in a row, each in its own frame to cut along. */
function labelsOf(labels: readonly Label[], { qrSvg, size }: Setting): Content {
  const PER_ROW = 3;
  const width = (PAGE[size].w - 2 * MARGIN) / PER_ROW - 10;
  const cell = (label: Label | undefined): TableCell => {
    if (!label) return { text: '' };
    const says: Content = {
      stack: [{ text: runs(label.title), bold: true, fontSize: 11 }, ...label.lines.map((line) => ({ text: runs(line), fontSize: 8.4 }))],
      margin: [0, 2, 0, 2],
    };
    const stripe: Content[] = label.colour
      ? [
          {
            canvas: [
              {
                type: 'rect',
                x: 0,
                y: 0,
                w: width - 4,
                h: 7,
                color: TUBE_PAINT[label.colour as keyof typeof TUBE_PAINT],
                lineColor: INK,
                lineWidth: 0.5,
              },
            ],
          },
        ]
      : [];
    const code: Content[] = label.qr && qrSvg ? [{ svg: qrSvg, width: 112, margin: [0, 2, 0, 2] }] : [];
    return { stack: [...stripe, says, ...code], margin: [4, 3, 4, 3] };
  };
  const rows: TableCell[][] = [];
  // Those with a code first, those without after them: a row is as high as its highest.
  for (const group of [labels.filter(({ qr }) => qr), labels.filter(({ qr }) => !qr)])
    for (let i = 0; i < group.length; i += PER_ROW) rows.push(Array.from({ length: PER_ROW }, (_, k) => cell(group[i + k])));
  return {
    table: { widths: Array.from({ length: PER_ROW }, () => '*'), body: rows, dontBreakRows: true },
    layout: {
      hLineWidth: () => 0.5,
      vLineWidth: () => 0.5,
      hLineColor: () => QUIET,
      vLineColor: () => QUIET,
      hLineStyle: () => ({ dash: { length: 3 } }),
      vLineStyle: () => ({ dash: { length: 3 } }),
    },
  };
}
