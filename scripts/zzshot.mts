// usage: npx tsx scripts/zzshot.mts W H out.png path [js-ish steps file]
import { chromium } from '@playwright/test';
import { pathToFileURL } from 'node:url';
const [w, h, out, path, steps] = process.argv.slice(2);
const b = await chromium.launch({ executablePath: '/usr/bin/chromium' });
const c = await b.newContext({ viewport: { width: Number(w), height: Number(h) }, hasTouch: Number(w) < 500, reducedMotion: 'reduce' });
const page = await c.newPage();
page.on('pageerror', (e) => console.log('ERR', e.message));
await page.goto('http://127.0.0.1:4190' + path);
await page.waitForTimeout(2500);
if (steps) await (await import(pathToFileURL(steps).href)).default(page);
await page.waitForTimeout(800);
await page.screenshot({ path: out });
await b.close();
