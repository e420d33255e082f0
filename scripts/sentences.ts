/**
 * `npm run sentences`: every sentence the app can say, one line each with the room it is said in, taken from the code:
 * to be read aloud once, and again where it changed. Written to the terminal.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'vue/compiler-sfc';
import ts from 'typescript';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
/** Fewer words than this are a label, not a sentence. */
const FEWEST_WORDS = 4;

const files = ['core', 'app/src', 'server'].flatMap((room) =>
  readdirSync(join(ROOT, room), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|vue)$/.test(name) && !/\.test\.ts$|testing\/|node_modules/.test(name))
    .map((name) => `${room}/${name}`),
);

/** What is said in a piece of code: texts and templates, what is filled in as {…}. */
function saidIn(code: string): string[] {
  const source = ts.createSourceFile('x.ts', code, ts.ScriptTarget.ES2023, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    if (ts.isTemplateExpression(node)) found.push(node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join(''));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Text that stands in a page. */
const inTemplate = (html: string): string[] =>
  html
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/<[^>]*>/g, '\n')
    .replace(/\{\{[\s\S]*?\}\}/g, '{…}')
    .split('\n');

const plain = (text: string): string => text.replace(/[\s\u202f]+/g, ' ').trim();
const isSentence = (text: string): boolean => (text.match(/\p{L}{2,}/gu) ?? []).length >= FEWEST_WORDS && !/[;=]\s*$|^[./@]/.test(text);

for (const file of files.sort()) {
  const text = readFileSync(join(ROOT, file), 'utf8');
  const sfc = file.endsWith('.vue') ? parse(text).descriptor : null;
  const said = sfc
    ? [...saidIn(sfc.scriptSetup?.content ?? sfc.script?.content ?? ''), ...inTemplate(sfc.template?.content ?? '')]
    : saidIn(text);
  for (const sentence of new Set(said.map(plain).filter(isSentence))) console.log(`${file}\t${sentence}`);
}
