import { AxeBuilder } from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import {
  COUCH_CLAP,
  DEMO_RIG,
  expect,
  FIVE_TRACKS,
  HOST_TOO_LOUD,
  leaveByEscape,
  RELAY_BACKUP,
  RELAY_TRACK,
  test,
} from './server.ts';
import { UNSAID } from './unsaid.ts';

/** What a checker finds against WCAG 2.1 AA, one line each. */
async function found(page: Page, colors: 'ours' | 'forced' = 'ours', within = 'html'): Promise<string[]> {
  // Nothing that core says is shown without its words.
  const text = await page.locator('body').textContent();
  expect(text).not.toMatch(UNSAID);
  // A name is quoted once.
  expect(text).not.toMatch(/“[^”\n]{0,60}“/);
  const { violations } = await new AxeBuilder({ page })
    .include(within)
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    // Colors that are forced are the reader's own, and the checker reads ours.
    .disableRules(colors === 'forced' ? ['color-contrast'] : [])
    .analyze();
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`);
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`every view can be read and reached, ${colorScheme}`, async ({ page, server }) => {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await page.goto(server.url);
    await expect(page.getByRole('row', { name: /Boathouse relay/ })).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync?source=couch`);
    await expect(page.getByRole('button', { name: /^Couch voices:/ })).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.keyboard.press('p');
    await page.keyboard.press('d');
    await page.keyboard.press('t');
    await expect(page.getByRole('heading', { name: 'To-do list' })).toBeVisible();
    await expect(page.getByText(/affects \d+/).first()).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('heading', { name: 'To-do list' })).toBeHidden();
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync?listener=all`);
    await expect(page.getByRole('img', { name: 'Timing at “Stream”' })).toBeVisible();
    expect(await found(page)).toEqual([]);
    for (const view of ['plan', 'route']) {
      await page.goto(`${server.url}/rigs/${DEMO_RIG}/${view}`);
      await expect(page.getByRole('grid')).toBeVisible();
      expect(await found(page)).toEqual([]);
    }
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
    await expect(page.getByRole('application')).toBeVisible();
    await page.keyboard.press('i');
    await expect(page.getByRole('table', { name: 'Issues' })).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench`);
    await expect(page.getByText(/Your takes/)).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${COUCH_CLAP}`);
    await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/bench?takes=${RELAY_BACKUP},${RELAY_TRACK}`);
    await expect(page.getByTestId('findings')).toContainText('ppm', { timeout: 60_000 });
    expect(await found(page)).toEqual([]);
  });
}

test('path test, order and slate can be read and reached, light and dark', async ({ page, server }) => {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync/paths`);
    await expect(page.getByTestId('next-takes')).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/run`);
    await expect(page.getByTestId('run-step')).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/slate`);
    await expect(page.getByRole('button', { name: 'Video' })).toBeVisible();
    expect(await found(page)).toEqual([]);
  }
});

test('the gain ladder and a measured take can be read and reached, light and dark', async ({ page, server }) => {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/level?source=wren&listener=backup`);
    await expect(page.getByRole('slider', { name: 'Mixer, Channel 1, gain' })).toBeVisible();
    await page.keyboard.press('p');
    await expect(page.getByText(/Result:/)).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${HOST_TOO_LOUD}`);
    await expect(page.getByTestId('faults')).toContainText('Clipping', { timeout: 60_000 });
    expect(await found(page)).toEqual([]);
  }
});

test('balance, settings tried and a blind trial can be read and reached, light and dark', async ({ page, server }) => {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench/balance?takes=${FIVE_TRACKS}`);
    await expect(page.getByTestId('whole')).toBeVisible({ timeout: 60_000 });
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/bench/try?takes=${HOST_TOO_LOUD}`);
    await expect(page.getByTestId('treated')).toContainText('Peak-to-loudness ratio', { timeout: 60_000 });
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/bench/blind?takes=${RELAY_BACKUP},${RELAY_TRACK}`);
    await page.getByRole('button', { name: /^Start/ }).click({ timeout: 60_000 });
    await expect(page.getByRole('button', { name: /^X is A/ })).toBeVisible();
    expect(await found(page)).toEqual([]);
  }
});

test('the tap test can be read and reached, light and dark', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/tap?view=takes`);
  await page.getByLabel('Destination to simulate').selectOption('Stream');
  await expect(page.getByRole('button', { name: 'Next: readings' })).toBeVisible({ timeout: 60_000 });
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    for (const view of ['play', 'takes', 'read']) {
      await page.goto(`${server.url}/rigs/${DEMO_RIG}/tap?view=${view}`);
      const there = page.getByRole('button', { name: view === 'play' ? 'Print the sheet' : 'Next: readings' });
      await expect(view === 'read' ? page.getByTestId('reading') : there).toBeVisible();
      expect(await found(page)).toEqual([]);
    }
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/measured`);
    await expect(page.getByText(/Nothing measured yet/)).toBeVisible();
    expect(await found(page)).toEqual([]);
    await page.goto(`${server.url}/tune?id=2&for=Wren`);
    await expect(page.getByRole('button', { name: /^Play “?Wren/ })).toBeVisible();
    expect(await found(page)).toEqual([]);
  }
});

test('a term and a figure are asked why by keyboard, and let go again', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync?source=couch`);
  const card = page.getByLabel('Tap point', { exact: true });
  const figure = card.getByRole('button', { name: '114 ms, why?' });
  await figure.focus();
  await page.keyboard.press('Enter');
  const why = page.getByRole('dialog', { name: /^Why 114 ms/ });
  await expect(why).toContainText('Camera capture');
  await leaveByEscape(page, why);
  await expect(figure).toBeFocused();
  await card.getByRole('button', { name: 'Tap point', exact: true }).press('Enter');
  await expect(page.getByRole('dialog')).toContainText(/place|where/i);
});

test('all of the page is reached by Tab, and what has focus shows it', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  await expect(page.getByRole('button', { name: /^Couch voices:/ })).toBeVisible();
  const seen = new Set<string>();
  for (let i = 0; i < 140; i++) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => {
      const element = document.activeElement;
      if (!element || element === document.body) return null;
      const style = getComputedStyle(element);
      const shows =
        style.outlineStyle !== 'none' ||
        style.boxShadow !== 'none' ||
        element.closest('svg')?.querySelector(':focus-visible');
      return {
        name: element.getAttribute('aria-label') ?? element.textContent?.trim().slice(0, 40) ?? '',
        shows: Boolean(shows),
      };
    });
    if (!at) continue;
    expect(at.shows, `'${at.name}' has focus and shows nothing`).toBe(true);
    seen.add(at.name);
  }
  for (const name of ['Sync', 'Measure', 'Destination', 'Tolerance']) {
    expect([...seen].some((s) => s.includes(name))).toBe(true);
  }
});

test('the day, the log, a trouble and the ways can be read and reached, light and dark', async ({ page, server }) => {
  const rig = `${server.url}/rigs/${DEMO_RIG}`;
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    for (const [view, shows] of [
      ['checks', 'No go yet'],
      ['budgets', 'Enter what you read'],
      ['during', 'Not monitored'],
      ['phone', 'Phone access is off'],
    ] as const) {
      await page.goto(`${rig}/run?view=${view}`);
      await expect(page.getByText(shows).first()).toBeVisible();
      if (view === 'during') await page.keyboard.press('m');
      expect(await found(page), view).toEqual([]);
    }
    await page.goto(`${rig}/log`);
    await expect(page.getByText('has changed up by more than chance')).toBeVisible();
    expect(await found(page), 'log').toEqual([]);
    await page.goto(`${rig}/trouble`);
    const likely = page.getByRole('region', { name: 'Most common problems on this rig' });
    const look = page.getByTestId('next-look');
    await expect(likely.or(look)).toBeVisible();
    if (await likely.isVisible()) await likely.getByRole('button').first().click();
    await expect(look).toBeVisible();
    expect(await found(page), 'trouble').toEqual([]);
    await page.goto(`${rig}/ways`);
    await expect(page.getByRole('table', { name: 'Alternatives' })).toBeVisible();
    expect(await found(page), 'ways').toEqual([]);
    await page.goto(`${server.url}/hand`);
    await expect(page.getByRole('link', { name: 'Boathouse relay', exact: true })).toBeVisible();
    expect(await found(page), 'hand').toEqual([]);
  }
});

/** Dialogs by the key that opens them on the map. */
const DIALOG_KEYS = ['?', '/', 'p', 'a', 'Shift+A', 'u'];
const SCHEMES = [
  { colorScheme: 'light', forcedColors: 'none' },
  { colorScheme: 'dark', forcedColors: 'none' },
  { colorScheme: 'dark', forcedColors: 'active' },
] as const;

test('every dialog can be read and reached, in light, in dark and in the reader’s own colors', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  await expect(page.getByRole('application')).toBeVisible();
  for (const key of DIALOG_KEYS) {
    await page.keyboard.press(key);
    const dialog = page.getByRole('dialog');
    await expect(dialog).toBeVisible();
    await expect.poll(() => dialog.evaluate((node) => node.contains(document.activeElement))).toBe(true);
    for (const scheme of SCHEMES) {
      await page.emulateMedia({ ...scheme, reducedMotion: 'reduce' });
      const colors = scheme.forcedColors === 'active' ? 'forced' : 'ours';
      expect(await found(page, colors, '[role=dialog]'), `${key}, ${scheme.colorScheme}`).toEqual([]);
    }
    // It is left by Escape, and the focus is on the page again.
    await leaveByEscape(page, dialog);
    await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true);
  }
});

test('every view in the reader’s own colors: nothing is lost, and where one is shows', async ({ page, server }) => {
  await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' });
  for (const view of ['plan', 'wire', 'route', 'level', 'sync', 'run', 'next', 'desk', 'log', 'bench', 'gear']) {
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/${view}`);
    await expect(page.getByRole('main')).toBeVisible();
    await page.waitForLoadState('networkidle');
    expect(await found(page, 'forced'), view).toEqual([]);
    const stages = page.getByRole('navigation', { name: 'Stages' });
    const shown = (of: Locator) => of.evaluate((a) => getComputedStyle(a).outlineStyle);
    expect(await shown(stages.locator('[aria-current=page]'))).toBe('solid');
    expect(await shown(stages.locator('a:not([aria-current])').first())).toBe('none');
  }
});
