import { chromium } from '@playwright/test';
const [,, path, out, w='1280', h='800', full] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const ctx = await b.newContext({ viewport: { width: +w, height: +h }, reducedMotion: 'reduce', timezoneId:'UTC', locale:'en-GB', serviceWorkers: 'block' });
const p = await ctx.newPage();
p.on('console', m => { if (['error','warning'].includes(m.type())) console.log('console', m.type(), m.text().slice(0,300)); });
p.on('pageerror', e => console.log('pageerror', e.message, e.stack?.slice(0,400)));
await p.goto('http://127.0.0.1:4190/'); await p.waitForTimeout(2500);
if (path !== '/') { await p.goto('http://127.0.0.1:4190'+path); await p.waitForTimeout(2000); }
await p.screenshot({ path: out, fullPage: full==='full' });
await b.close();
