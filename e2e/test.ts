import { test as base } from '@playwright/test';

/**
 * A page that does not fetch other pages ahead while it rests: each test sees a page or two, and a browser that is busy
 * with ten others answers late. What works without a connection is proved with `@playwright/test` as it is.
 */
export const test = base.extend({
  page: async ({ page }, use) => {
    await page.addInitScript({ content: 'window.requestIdleCallback = () => 0;' });
    await use(page);
  },
});
export { expect, type Locator, type Page } from '@playwright/test';
