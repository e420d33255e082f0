/** `npm run icons`: the icons a phone wants, drawn from app/public/mark.svg by the browser the tests use. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { CHROMIUM } from '../playwright.config';

const PUBLIC = fileURLToPath(new URL('../app/public/', import.meta.url));
const mark = readFileSync(`${PUBLIC}mark.svg`, 'utf8');
/** Share of the side the mark takes: a maskable icon keeps it within the inner circle, others nearly fill the tile. */
const ICONS = [
  { name: 'icon-192.png', side: 192, share: 0.74, round: true },
  { name: 'icon-512.png', side: 512, share: 0.74, round: true },
  { name: 'icon-maskable.png', side: 512, share: 0.56, round: false },
  { name: 'apple-touch-icon.png', side: 180, share: 0.7, round: false },
];

const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] });
for (const { name, side, share, round } of ICONS) {
  const page = await browser.newPage({ viewport: { width: side, height: side } });
  const inner = Math.round(side * share);
  await page.setContent(
    `<style>html,body{margin:0;background:transparent}div{width:${side}px;height:${side}px;display:grid;place-items:center;background:#f3f0e8;border-radius:${round ? side * 0.2 : 0}px}svg{width:${inner}px;height:${inner}px}</style><div>${mark}</div>`,
  );
  writeFileSync(`${PUBLIC}${name}`, await page.screenshot({ omitBackground: true }));
  await page.close();
}
await browser.close();
