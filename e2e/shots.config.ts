import { defineConfig } from '@playwright/test';
import base from '../playwright.config';

/** `npm run shots`: the pictures in docs/screenshots, always of the demonstration on the same day. */
export default defineConfig({ ...base, testDir: '.', testMatch: 'shots.ts', webServer: base.webServer });
