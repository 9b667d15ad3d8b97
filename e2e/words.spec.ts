import type { Page } from '@playwright/test';
import { DEMO_RIG, expect, test } from './server.ts';

/** Views whose words are data, each with what in it comes from elsewhere still. */
const VIEWS = [
  { path: '/', but: ['[aria-label="Backup"]'] },
  {
    path: `/rigs/${DEMO_RIG}/plan`,
    // Purposes, gear, tolerances, ways and findings are told by core.
    but: ['select', '[aria-label*="mîîx-mîînüüs"]', 'ul.plain', '.moments'],
  },
];

/** Text on the page that is neither marked, nor a name out of the rig, nor figures and keys. */
const unmarked = (page: Page, but: readonly string[], names: readonly string[]): Promise<string[]> =>
  page.evaluate(
    ({ but, names }) => {
      const found = new Set<string>();
      const DATE = /[A-Z][a-z]{2} \d{1,2}, \d{4}, \d{1,2}:\d{2}\s[AP]M/g;
      const walker = document.createTreeWalker(document.getElementById('root')!, NodeFilter.SHOW_TEXT);
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const element = node.parentElement!;
        if (element.closest(['kbd', '.letter', '.mark', ...but].join(','))) continue;
        let text = node.textContent!;
        for (const name of names) text = text.replaceAll(name, '');
        // A sentence may have parts that stand out: its marks are around all of them.
        // And one may stand in another.
        for (let before = ''; before !== text; ) {
          before = text;
          text = text.replace(/⟦[^⟦⟧]*⟧/g, '');
        }
        const rest = text.replace(/⟦[^⟧]*$|^[^⟦]*⟧/g, '').replace(DATE, '');
        const isInside = /⟦[^⟧]*$/.test(textBefore(node, element.closest('p, button, summary, h1, h2, td') ?? element));
        if (!isInside && /\p{L}{2,}/u.test(rest)) found.add(rest.trim());
      }
      return [...found];

      function textBefore(node: Node, within: Element): string {
        const range = document.createRange();
        range.selectNodeContents(within);
        range.setEndBefore(node);
        return range.toString();
      }
    },
    { but, names },
  );

/** Buttons, heads and labels that are too narrow for what they say. */
const cut = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button, th, h1, h2, nav a, .frame-verdict, .frame-rests')]
      .filter((e) => e.offsetParent !== null && getComputedStyle(e).position !== 'absolute')
      .filter((e) => e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).display !== 'inline')
      .map((e) => e.textContent!.trim()),
  );

test('every word of the views that are done comes from words, and has room when it is longer', async ({
  page,
  server,
}) => {
  await page.addInitScript(() => localStorage.setItem('mellow-language', 'marked'));
  const answers = await Promise.all(
    ['/api/rigs', `/api/rigs/${DEMO_RIG}`].map(async (path) =>
      JSON.stringify(await (await page.request.get(server.url + path)).json()),
    ),
  );
  const names = [...new Set([...answers.join().matchAll(/"name":"((?:[^"\\]|\\.)*)"/g)].map((m) => m[1]!))].sort(
    (a, b) => b.length - a.length,
  );
  for (const { path, but } of VIEWS) {
    await page.goto(server.url + path);
    await expect(page.getByText('⟦').first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    for (const [width, height] of [
      [1280, 800],
      [1920, 1080],
    ] as const) {
      await page.setViewportSize({ width, height });
      expect(await unmarked(page, but, [...names, 'Mellow Tap']), path).toEqual([]);
      expect(await cut(page), `${path} at ${width}`).toEqual([]);
    }
  }
});
