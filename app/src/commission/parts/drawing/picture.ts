import type { System, TubeColour } from '@yes-clear/core/file';
import { isBoat, type TubeLine } from '@yes-clear/core/commission';
import { formatQuantity } from '@yes-clear/core/quantity';
import { drawingOf, type Drawing, type Piece, type Run, type Spot } from './layout';
import { node, words, type SvgNode } from './svgNode';

/** Tubing as it is sold; white stands on its dark edge. */
export const TUBE_PAINT: Readonly<Record<TubeColour, string>> = {
  white: '#ffffff',
  blue: '#2f6fb3',
  red: '#b8342a',
  black: '#23282a',
  yellow: '#e0b22c',
  green: '#3f8a54',
  grey: '#9aa3a4',
};
const INK = '#1b2b2d';
const SHEET = '#fffdf8';
const MUTED = '#56656a';

const path = (spots: readonly Spot[]): string =>
  spots.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' ');

/** The flow drawing of a system, as one tree for page and paper. */
export function flowDrawing(
  system: System,
  lines: readonly TubeLine[],
  chosen: string | null = null,
): { readonly drawing: Drawing; readonly svg: SvgNode } {
  const drawing = drawingOf(system, lines);
  const { w, h } = drawing;
  const svg = node(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${w} ${h}`,
      width: w,
      height: h,
      'font-family': 'Atkinson',
      'font-size': 12,
      role: 'group',
      'aria-label': `Flow drawing of ${system.name}`,
    },
    [
      ...drawing.runs.flatMap((run) => runOf(run, system, run.line.id === chosen)),
      ...drawing.pieces.flatMap(pieceOf),
      ...drawing.runs.flatMap((run) => heldOf(run)),
      ...drawing.runs.map((run) => labelOf(run, system, run.line.id === chosen)),
      ...drawing.ends.map(({ text, x, y, anchor }) =>
        words(x, y, text === 'tap' && isBoat(system) ? 'sea' : text, { fill: MUTED, 'text-anchor': anchor }),
      ),
    ],
  );
  return { drawing, svg };
}

function runOf({ line, strokes, tees }: Run, system: System, chosen: boolean): SvgNode[] {
  const colour = system.build.colours[line.carries];
  const paint = colour === null ? SHEET : TUBE_PAINT[colour];
  const join = { fill: 'none', 'stroke-linejoin': 'round', 'stroke-linecap': 'butt' };
  const each = (width: number, stroke: string): SvgNode[] =>
    strokes.map((spots) => node('path', { d: path(spots), stroke, 'stroke-width': width, ...join }));
  const drains = line.ends.some(({ at }) => at === 'drain') ? strokes.findLast((spots) => spots.length > 1)?.at(-1) : undefined;
  return [
    // A line that passes another goes over it with a gap.
    ...each(chosen ? 14 : 11, chosen ? '#c9dfe0' : SHEET),
    ...each(7.4, INK),
    ...each(5, paint),
    ...tees.map(({ x, y }) =>
      node('rect', { x: x - 6, y: y - 6, width: 12, height: 12, rx: 3, fill: SHEET, stroke: INK, 'stroke-width': 1.4 }),
    ),
    ...(drains ? drainOf(line, strokes, drains, isBoat(system) ? 'overboard' : 'drain, air gap') : []),
  ];
}

/** The drain stands apart from the line that runs to it: the gap is drawn. */
function drainOf(line: TubeLine, strokes: readonly (readonly Spot[])[], end: Spot, says: string): SvgNode[] {
  const at = line.tees > 0 ? (strokes.find((spots) => spots.length === 3)?.at(-1) ?? end) : end;
  return [
    node('path', { d: `M${at.x} ${at.y} L${at.x} ${at.y + 12}`, stroke: INK, 'stroke-width': 5, fill: 'none' }),
    node('path', {
      d: `M${at.x - 13} ${at.y + 22} L${at.x - 7} ${at.y + 34} L${at.x + 7} ${at.y + 34} L${at.x + 13} ${at.y + 22}`,
      fill: 'none',
      stroke: INK,
      'stroke-width': 1.6,
    }),
    words(at.x - 18, at.y + 31, says, { fill: MUTED, 'text-anchor': 'end' }),
  ];
}

function pieceOf({ form, name, x, y, w, h }: Piece): SvgNode[] {
  const shape = { fill: SHEET, stroke: INK, 'stroke-width': 1.8 };
  const under = shortened(name, 20);
  switch (form) {
    case 'membrane':
      return [
        node('rect', { x, y, width: w, height: h, rx: 9, ...shape }),
        // The cap end, where the feed port is alone.
        node('path', { d: `M${x + 16} ${y} L${x + 16} ${y + h}`, stroke: INK, 'stroke-width': 1.8, fill: 'none' }),
        node('path', {
          d: `M${x + 24} ${y + h / 2} L${x + w - 34} ${y + h / 2}`,
          stroke: '#b9c3c2',
          'stroke-width': 1,
          fill: 'none',
          'stroke-dasharray': '5 4',
        }),
        words(x + (w - 44) / 2, y + h / 2 - 4, shortened(name, 16), { fill: INK, 'text-anchor': 'middle', 'font-weight': 700 }),
        words(x + 21, y + h / 2 - 4, 'feed', { fill: MUTED, 'font-size': 12 }),
        words(x + w - 6, y + h / 2 - 4, 'product, centre', { fill: MUTED, 'text-anchor': 'end', 'font-size': 12 }),
        words(x + w - 6, y + h - 3, 'waste, offset', { fill: MUTED, 'text-anchor': 'end', 'font-size': 12 }),
      ];
    case 'tank':
      return [
        node('path', { d: `M${x} ${y} L${x} ${y + h} L${x + w} ${y + h} L${x + w} ${y}`, ...shape }),
        node('path', { d: `M${x + 8} ${y + 30} L${x + 30} ${y + 30}`, stroke: INK, 'stroke-width': 1.6, fill: 'none' }),
        node('circle', { cx: x + 36, cy: y + 30, r: 6, ...shape }),
        words(x + w / 2, y + h + 14, under, { fill: INK, 'text-anchor': 'middle', 'font-weight': 700 }),
      ];
    case 'machine':
      return [
        node('circle', { cx: x + w / 2, cy: y + h / 2, r: w / 2, ...shape }),
        node('path', {
          d: `M${x + w / 2 - 7} ${y + h / 2 - 9} L${x + w / 2 + 10} ${y + h / 2} L${x + w / 2 - 7} ${y + h / 2 + 9} Z`,
          fill: INK,
        }),
        words(x + w / 2, y + h + 14, under, { fill: INK, 'text-anchor': 'middle', 'font-weight': 700 }),
      ];
    case 'valve':
      return [
        node('path', { d: `M${x} ${y + 3} L${x + w} ${y + h - 3} L${x + w} ${y + 3} L${x} ${y + h - 3} Z`, ...shape }),
        words(x + w / 2, y + h + 11, name, { fill: MUTED, 'text-anchor': 'middle' }),
      ];
    default:
      return [
        node('rect', { x: x - 4, y, width: w + 8, height: 26, rx: 5, ...shape }),
        node('rect', { x, y: y + 26, width: w, height: h - 26, rx: 10, ...shape }),
        words(x + w / 2, y + h + 14, under, { fill: INK, 'text-anchor': 'middle', 'font-weight': 700 }),
      ];
  }
}

function heldOf({ line, held }: Run): SvgNode[] {
  if (!held) return [];
  return [
    node('rect', { x: held.x - 8, y: held.y - 13, width: 16, height: 26, rx: 4, fill: SHEET, stroke: INK, 'stroke-width': 1.6 }),
    node('path', { d: `M${held.x - 4} ${held.y + 6} L${held.x + 4} ${held.y - 6}`, stroke: INK, 'stroke-width': 1.6, fill: 'none' }),
    words(held.x - 13, held.y + 4, line.holds ?? '', { fill: MUTED, 'text-anchor': 'end' }),
  ];
}

/** A line's letter and length; one nobody measured stands with a tilde. */
function labelOf({ line, label }: Run, { units }: System, chosen: boolean): SvgNode {
  const text = `${line.letter} ${line.measured ? '' : '~'}${formatQuantity(line.lengthMm, 'lengthMm', units).text}`;
  const width = 6.9 * text.length + 8;
  return node(
    'g',
    { 'data-line': line.id, role: 'button', tabindex: 0, 'aria-label': `Line ${text}: change its length`, class: 'line-label' },
    [
      node('rect', {
        x: label.x - width / 2,
        y: label.y - 10,
        width,
        height: 18,
        rx: 5,
        fill: chosen ? '#c9dfe0' : SHEET,
        stroke: chosen ? INK : 'none',
      }),
      words(label.x, label.y + 3.5, text, { fill: INK, 'text-anchor': 'middle', 'font-size': 13 }),
    ],
  );
}

const shortened = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);
