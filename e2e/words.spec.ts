import type { Page } from '@playwright/test';
import { catalogue } from '../core/model/rig/index.ts';
import { textFaults } from './layout.ts';
import { COUCH_CLAP, DEMO_RIG, expect, FIVE_TRACKS, HOST_TOO_LOUD, RELAY_BACKUP, RELAY_TRACK, test } from './server.ts';

const rig = (path: string) => `/rigs/${DEMO_RIG}/${path}`;

/** Every view, with something that is there once it has worked out what it shows. */
const VIEWS: readonly { readonly path: string; readonly ready?: string }[] = [
  { path: '/' },
  { path: '/new' },
  { path: rig('next'), ready: '.next-steps' },
  { path: rig('how') },
  { path: rig('how/gains') },
  { path: rig('plan') },
  { path: rig('wire') },
  { path: rig('route'), ready: '[role=grid]' },
  { path: rig('level?source=wren&listener=backup') },
  { path: rig('sync?source=couch') },
  { path: rig('sync?listener=all') },
  { path: rig('sync/paths'), ready: '[data-testid=next-takes]' },
  { path: rig('run'), ready: '[data-testid=run-step]' },
  { path: rig('tap') },
  { path: rig('scan') },
  { path: rig('trouble') },
  { path: rig('measured') },
  { path: rig('log') },
  { path: rig('versions') },
  { path: rig('desk') },
  { path: rig('beside') },
  { path: rig('ways'), ready: 'table' },
  { path: rig('gear') },
  { path: rig('bench') },
  { path: rig(`bench?takes=${COUCH_CLAP}`), ready: '[data-testid=levels]' },
  { path: rig(`bench?takes=${HOST_TOO_LOUD}`), ready: '[data-testid=faults]' },
  { path: `/bench?takes=${RELAY_BACKUP},${RELAY_TRACK}`, ready: '[data-testid=findings]' },
  { path: rig(`bench/balance?takes=${FIVE_TRACKS}`), ready: '[data-testid=whole]' },
  { path: `/bench/try?takes=${HOST_TOO_LOUD}`, ready: '[data-testid=treated]' },
  { path: `/bench/blind?takes=${RELAY_BACKUP},${RELAY_TRACK}` },
  { path: '/bench/join' },
  { path: '/slate' },
  { path: '/tune' },
  { path: '/round-trip' },
];

const SIZES = [
  [1280, 800],
  [1920, 1080],
  [1024, 768],
  [390, 844],
  // 1280 by 800 at twice the size.
  [640, 400],
] as const;

/** Keys of texts in the device library; its other strings are ids and kinds, which a page has words for. */
const LIBRARY_TEXTS = new Set([
  'name',
  'family',
  'group',
  'label',
  'source',
  'summary',
  'says',
  'unit',
  'needs',
  'words',
]);

/** What is data and no sentence: every string of a rig or take, or those under the given keys. */
const namesIn = (value: unknown, keys?: ReadonlySet<string>, into = new Set<string>(), isName = !keys): Set<string> => {
  if (typeof value === 'string') {
    if (isName) into.add(value);
  } else if (Array.isArray(value)) for (const own of value) namesIn(own, keys, into, isName);
  else if (typeof value === 'object' && value !== null)
    for (const [key, own] of Object.entries(value)) namesIn(own, keys, into, !keys || keys.has(key));
  return into;
};

/** Text on the page that is neither marked, nor data, nor figures and keys. */
const unmarked = (page: Page, names: readonly string[]): Promise<string[]> =>
  page.evaluate((names) => {
    const found = new Set<string>();
    const FIGURES =
      /([A-Z][a-z]+day, )?[A-Z][a-z]{2,} \d{1,2}, \d{4}(, \d{1,2}:\d{2}\s[AP]M)?|\d{1,2}:\d{2}(:\d{2})?\s?[AP]M|(?<![\p{L}])(dB(FS|TP|u|V)?|SPL|LUFS|LU|ms|kHz|Hz|ppm|fps|GB|MB|kB|Mbit|Gbit|min|mm|ft|EUR|USB|XLR|HDMI|CSV|EDL|OTIO|WAV|SVG|PDF|JSON|DOT|ISO|ITU-R BT|EBU R|ATSC IS|Markdown|MP4|WebM|H\.264|AAC|VP9|Opus)(?![\p{L}])/gu;
    const escaped = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
    const NAME = new RegExp(`(?<![\\p{L}\\p{N}])(${escaped.join('|')})(?![\\p{L}\\p{N}])`, 'gu');
    const walker = document.createTreeWalker(document.getElementById('root')!, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const element = node.parentElement!;
      // A name on the map stands in several lines, and is cut where it is long.
      if (
        element.closest('kbd, .letter, .mark, textarea, text.map-name, text.map-fact') ||
        /…$/.test(node.textContent!)
      )
        continue;
      let text = node.textContent!;
      text = text.replace(NAME, '');
      // A sentence may have parts that stand out: its marks are around all of them. And one may stand in another.
      for (let before = ''; before !== text; ) {
        before = text;
        text = text.replace(/⟦[^⟦⟧]*⟧/g, '');
      }
      const rest = text.replace(/⟦[^⟧]*$|^[^⟦]*⟧/g, '').replace(FIGURES, '');
      const isInside = /⟦[^⟧]*$/.test(
        textBefore(node, element.closest('p, button, summary, h1, h2, td, li') ?? element),
      );
      // A part that stands out is drawn by itself: its accents say where it comes from.
      const own = (rest.match(/\p{L}{2,}/gu) ?? []).filter((word) => !/[åéîöüÅÉÎÖÜ]/.test(word));
      if (!isInside && own.length > 0) found.add(rest.trim());
    }
    return [...found];

    function textBefore(node: Node, within: Element): string {
      const range = document.createRange();
      range.selectNodeContents(within);
      range.setEndBefore(node);
      return range.toString();
    }
  }, names);

/** Buttons, heads and labels that are too narrow for what they say. */
const cut = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button, th, h1, h2, nav a, .frame-verdict, .frame-rests')]
      .filter((e) => e.offsetParent !== null && getComputedStyle(e).position !== 'absolute')
      .filter((e) => e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).display !== 'inline')
      .filter((e) => getComputedStyle(e).textOverflow !== 'ellipsis')
      .map((e) => e.textContent!.trim()),
  );

test('every word of every view comes from words, and has room when it is longer', async ({ page, server }) => {
  test.setTimeout(300_000);
  await page.addInitScript(() => localStorage.setItem('mellow-language', 'marked'));
  const answers = await Promise.all(
    ['/api/rigs', `/api/rigs/${DEMO_RIG}`, '/api/takes', `/api/rigs/${DEMO_RIG}/day?after=0`].map(async (path) =>
      (await page.request.get(server.url + path)).json(),
    ),
  );
  const names = [...namesIn([answers, 'Mellow Tap']), ...namesIn(catalogue, LIBRARY_TEXTS)]
    .filter((name) => /\p{L}{2,}/u.test(name))
    // As a sentence or a button begins.
    .flatMap((name) => [name, `${name.charAt(0).toUpperCase()}${name.slice(1)}`])
    .sort((a, b) => b.length - a.length);
  for (const { path, ready } of VIEWS) {
    await page.goto(server.url + path);
    await expect(page.getByText('⟦').first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    if (ready) await expect(page.locator(ready).first()).toBeVisible({ timeout: 60_000 });
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      expect.soft(await unmarked(page, names), path).toEqual([]);
      expect.soft(await cut(page), `${path} at ${width}`).toEqual([]);
      expect.soft(await textFaults(page), `${path} at ${width}`).toEqual({ small: [], cut: [], overlapping: [] });
    }
  }
});
