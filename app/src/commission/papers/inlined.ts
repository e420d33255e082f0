/** What a picture's look is made of, where it stands in no page. */
const LOOKS = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'stop-color',
  'opacity',
  'font-size',
  'font-weight',
  'text-anchor',
] as const;
/** What only a hand or an eye on the screen needs. */
const SCREEN_ONLY = '.drift, .reach, title, desc, [display=none]';
const NUMBERS: ReadonlySet<string> = new Set(['font-size', 'stroke-width']);
const SVG = 'http://www.w3.org/2000/svg';

/** A picture of the page as a file's text: what the style sheet says of each piece stands on the piece. */
export interface PagePicture {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

/** Pictures that lie over each other on the page, such as one and its axis, as one. */
export function inlined(pictures: readonly SVGSVGElement[]): PagePicture {
  const whole = document.createElementNS(SVG, 'svg');
  let [width, height] = [0, 0];
  for (const picture of pictures) {
    const box = picture.viewBox.baseVal;
    [width, height] = [Math.max(width, box.width), Math.max(height, box.height)];
    for (const piece of styled(picture)) whole.append(piece);
  }
  whole.setAttribute('viewBox', `0 0 ${width} ${height}`);
  whole.setAttribute('width', String(width));
  whole.setAttribute('height', String(height));
  return { svg: new XMLSerializer().serializeToString(whole), width, height };
}

function styled(picture: SVGSVGElement): Element[] {
  const copy = picture.cloneNode(true) as SVGSVGElement;
  const made = copy.querySelectorAll<SVGElement>('*');
  picture.querySelectorAll<SVGElement>('*').forEach((element, i) => {
    const target = made[i]!;
    const style = getComputedStyle(element);
    if (style.display === 'none' || style.visibility === 'hidden') target.setAttribute('display', 'none');
    for (const look of LOOKS) {
      const value = style.getPropertyValue(look).replaceAll('"', '');
      if (value !== '') target.setAttribute(look, NUMBERS.has(look) ? String(Number.parseFloat(value)) : value);
    }
  });
  for (const piece of copy.querySelectorAll(SCREEN_ONLY)) piece.remove();
  for (const piece of copy.querySelectorAll('*')) {
    for (const { name } of [...piece.attributes])
      if (['class', 'style', 'tabindex', 'role'].includes(name) || name.startsWith('data-') || name.startsWith('aria-'))
        piece.removeAttribute(name);
    if (piece.tagName === 'text') inFonts(piece);
  }
  return [...copy.children];
}

/** A text in the fonts a paper has: one with a µ wholly in the font that has it, an Ω by itself, arrows left away. */
function inFonts(text: Element): void {
  text.setAttribute('font-family', 'Atkinson');
  if (text.children.length > 0) return;
  const says = (text.textContent ?? '').replaceAll(/[↑↓→]/g, '').replaceAll('\u202f', '\u00a0').trimEnd();
  if (says.includes('µ')) text.setAttribute('font-family', 'Signs');
  text.textContent = '';
  for (const run of says.match(/Ω+|[^Ω]+/g) ?? []) {
    const piece = document.createElementNS(SVG, 'tspan');
    piece.textContent = run;
    if (run.startsWith('Ω')) piece.setAttribute('font-family', 'Greek');
    text.append(piece);
  }
}
