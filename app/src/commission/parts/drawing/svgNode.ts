import { h, type VNode } from 'vue';

/** A piece of a drawing as plain data: shown on the page by Vue, and written as text into a paper. */
export interface SvgNode {
  readonly tag: string;
  readonly at?: Readonly<Record<string, string | number | null>>;
  readonly text?: string;
  readonly kids?: readonly SvgNode[];
}

export const node = (tag: string, at: SvgNode['at'] = {}, kids: readonly SvgNode[] = []): SvgNode => ({ tag, at, kids });
export const words = (x: number, y: number, text: string, at: SvgNode['at'] = {}): SvgNode => ({ tag: 'text', at: { x, y, ...at }, text });

const safe = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The drawing as a file's text. */
export function svgText({ tag, at = {}, text, kids = [] }: SvgNode): string {
  const attributes = Object.entries(at)
    .filter((entry): entry is [string, string | number] => entry[1] !== null)
    .map(([key, value]) => ` ${key}="${safe(String(value))}"`)
    .join('');
  return `<${tag}${attributes}>${safe(text ?? '')}${kids.map(svgText).join('')}</${tag}>`;
}

/** The drawing as the page shows it. */
export const svgVNode = ({ tag, at = {}, text, kids = [] }: SvgNode): VNode => h(tag, { ...at }, [text ?? '', ...kids.map(svgVNode)]);
