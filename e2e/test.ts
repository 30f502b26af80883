/** Tests on the demo: the first address that a page opens asks for it, as `npm run demo` does. */
import { test as base, type Page } from '@playwright/test';

export { expect } from '@playwright/test';

export const test = base.extend({
  page: async ({ page }, use) => {
    await use(onDemo(page));
  },
});

/** The page, whose browser will show the demo where it has kept nothing yet. */
export function onDemo(page: Page): Page {
  const goto = page.goto.bind(page);
  let isFirst = true;
  page.goto = (url, options) => {
    const asked = isFirst ? `${url}${url.includes('?') ? '&' : '?'}demo` : url;
    isFirst = false;
    return goto(asked, options);
  };
  return page;
}
