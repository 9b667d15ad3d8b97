import { type Browser, type BrowserContext, chromium, type Page } from '@playwright/test';
import { DEMO_RIG, expect, test } from './server.ts';
import { type Cable, openSoundDesk, type SoundDesk } from './sound-desk.ts';

const dbOf = (ratio: number): number => 20 * Math.log10(Math.max(ratio, 1e-9));
const LIMIT_DBFS = -36;

interface Bench {
  readonly desk: SoundDesk;
  readonly context: BrowserContext;
  readonly page: Page;
}

/** Devices by their names, or so many of them. */
interface Asked {
  readonly url: string;
  readonly outputs: number | readonly string[];
  readonly inputs: number | readonly string[];
  readonly may?: boolean;
  readonly rig?: string;
}

/** A browser at a desk of so many outputs and inputs, on the scan's page, with the gate open. */
async function atDesk(
  { url, outputs, inputs, may = true, rig = DEMO_RIG }: Asked,
  work: (bench: Bench) => Promise<void>,
): Promise<void> {
  const names = (what: string, asked: Asked['outputs']) =>
    typeof asked === 'number' ? Array.from({ length: asked }, (_, i) => `${what}${'abcdef'[i]}`) : asked;
  const desk = await openSoundDesk(names('out', outputs), names('in', inputs));
  let browser: Browser | null = null;
  try {
    browser = await chromium.launch({
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      env: desk.env as Record<string, string>,
      ignoreDefaultArgs: ['--mute-audio'],
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
    });
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      permissions: may ? ['microphone'] : [],
    });
    const page = await context.newPage();
    await openScan(page, url, rig);
    await work({ desk, context, page });
  } finally {
    await browser?.close();
    await desk.close();
  }
}

async function openScan(page: Page, url: string, rig = DEMO_RIG): Promise<void> {
  await page.goto(`${url}/rigs/${rig}/scan`);
  const gate = page.getByRole('region', { name: 'Before anything plays' });
  await expect(page.getByRole('button', { name: /^Scan/ })).toHaveAttribute('aria-disabled', 'true');
  await expect(gate.getByRole('checkbox').first()).toBeVisible();
  for (const box of await gate.getByRole('checkbox').all()) await box.check();
}

const begin = (page: Page) => page.getByRole('button', { name: /^Scan/ }).click();
/** A scan that heard all: where the machine was held up and lost audio, the page says so, and one scans again. */
async function isOver(page: Page): Promise<void> {
  const again = page.getByRole('button', { name: /^Scan again/ });
  await expect(again).toBeVisible({ timeout: 200_000 });
  for (let n = 0; n < 4 && (await page.getByText(/too busy and lost audio/).isVisible()); n++) {
    await again.click();
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    await expect(again).toBeVisible({ timeout: 200_000 });
  }
}

/** What the matrix shows, by output and input. */
async function matrix(page: Page): Promise<Map<string, { db: number; ms: number; says: string }>> {
  const cells = await page.getByRole('table', { name: 'What arrives where' }).getByRole('button').all();
  const read = cells.map(async (cell) => {
    const label = (await cell.getAttribute('aria-label'))!.replaceAll('−', '-');
    const [, from, to, db, ms] = /^(\w+) to (\w+): (\S+) dB, (\S+) ms$/.exec(label)!;
    return [`${from} ${to}`, { db: Number(db), ms: Number(ms), says: (await cell.textContent())! }] as const;
  });
  return new Map(await Promise.all(read));
}

test('four outputs and six inputs: every link as it is, none that is not, and nothing louder than set', async ({
  server,
}) => {
  test.setTimeout(1_200_000);
  const cables: readonly Cable[] = [
    { from: 'outa', to: 'ina', gain: 1, delayMs: 0 },
    { from: 'outa', to: 'inb', gain: 0.5, delayMs: 120 },
    { from: 'outa', to: 'inf', gain: 0.0316, delayMs: 400 },
    { from: 'outb', to: 'inb', gain: -0.7, delayMs: 10, sides: 'left' },
    { from: 'outb', to: 'inc', gain: 0.1, delayMs: 250 },
    { from: 'outc', to: 'inc', gain: 1, delayMs: 0 },
    { from: 'outc', to: 'inc', gain: 0.4, delayMs: 80 },
    { from: 'outc', to: 'ind', gain: -0.05, delayMs: 33, sides: 'right' },
    { from: 'outd', to: 'ind', gain: 0.8, delayMs: 5 },
    { from: 'outd', to: 'ine', gain: 0.3, delayMs: 60 },
    { from: 'outd', to: 'ine', gain: 0.2, delayMs: 210 },
  ];
  await atDesk({ url: server.url, outputs: 4, inputs: 6 }, async ({ desk, page }) => {
    desk.plug(cables);
    await page.getByLabel('Loudest level').selectOption(`${LIMIT_DBFS}`);
    desk.peaks();
    const begun = Date.now();
    await begin(page);
    // The first that leaves the browser, whatever it is.
    let first = 0;
    while (first === 0 && Date.now() - begun < 60_000) {
      await page.waitForTimeout(20);
      first = Math.max(...Object.values(desk.peaks()));
    }
    expect(first).toBeGreaterThan(0);
    expect(dbOf(first)).toBeLessThan(-60);
    await isOver(page);
    for (const peak of Object.values(desk.peaks())) expect(dbOf(peak)).toBeLessThan(LIMIT_DBFS + 0.1);
    const seen = await matrix(page);
    expect([...seen.keys()].sort()).toEqual([...new Set(cables.map((c) => `${c.from} ${c.to}`))].sort());
    for (const { from, to, gain, delayMs } of cables) {
      const link = seen.get(`${from} ${to}`)!;
      const loudest = cables
        .filter((c) => c.from === from && c.to === to)
        .reduce((a, b) => (Math.abs(b.gain) > Math.abs(a.gain) ? b : a));
      if (loudest.gain !== gain) continue;
      expect(Math.abs(link.db - dbOf(Math.abs(gain)))).toBeLessThan(0.5);
      // Between paths of one output, what the browser says of its own delay cancels.
      const direct = cables.find((c) => c.from === from)!;
      const apart = link.ms - seen.get(`${from} ${direct.to}`)!.ms;
      expect(Math.abs(apart - (delayMs - direct.delayMs))).toBeLessThan(2);
      expect(Math.abs(link.ms - delayMs)).toBeLessThan(40);
    }
    expect(seen.get('outb inb')!.says).toMatch(/left only, inverted/);
    expect(seen.get('outc ind')!.says).toMatch(/right only, inverted/);
    expect(seen.get('outa ina')!.says).not.toMatch(/only|inverted|twice/);
    expect([...seen].filter(([, link]) => link.says.includes('twice')).map(([key]) => key)).toEqual([
      'outc inc',
      'outd ine',
    ]);
    await page.getByRole('button', { name: /^outc to inc/ }).click();
    const card = page.getByRole('complementary', { name: 'outc → inc' });
    await expect(card.getByRole('row', { name: /^Arrives again/ })).toHaveText(
      /(79|80)\.\d ms later, (7|8)\.\d dB lower/,
    );
    await expect(card.getByRole('img', { name: /arrival over time/ })).toBeVisible();
    await expect(card.getByRole('row', { name: /^Clock/ })).toHaveText(/[−-]?[0-2]\.\d ppm|rounds disagree/);
  });
});

test('held against last time: nothing is said of nothing, and of a link, a level and a delay just that', async ({
  server,
}) => {
  test.setTimeout(1_200_000);
  await atDesk({ url: server.url, outputs: 2, inputs: 2 }, async ({ desk, page }) => {
    const cables: Cable[] = [
      { from: 'outa', to: 'ina', gain: 1, delayMs: 0 },
      { from: 'outa', to: 'inb', gain: 0.5, delayMs: 100 },
      { from: 'outb', to: 'inb', gain: 0.3, delayMs: 40 },
    ];
    desk.plug(cables);
    await begin(page);
    await isOver(page);
    await expect(page.getByText('This scan is the reference for the next ones.')).toBeVisible();
    // Kept by this browser, over a reload.
    await openScan(page, server.url);
    await page.getByRole('heading', { name: 'Scan this computer' }).click();
    await page.keyboard.press('s');
    await isOver(page);
    const changes = page.getByTestId('scan-changes');
    await expect(changes).toContainText('Same as the scan of');
    desk.plug([
      cables[0]!,
      { ...cables[1]!, gain: 0.25, delayMs: 160 },
      { from: 'outb', to: 'ina', gain: 0.3, delayMs: 40 },
    ]);
    await page.getByRole('button', { name: /^Scan again/ }).click();
    await isOver(page);
    await expect(changes.getByRole('heading')).toHaveText(/^4 changes since the scan of/);
    await expect(changes.getByRole('listitem').filter({ hasText: '“outb” no longer arrives at “inb”' })).toHaveCount(1);
    await expect(changes.getByRole('listitem').filter({ hasText: '“outb” now arrives at “ina”' })).toHaveCount(1);
    await expect(
      changes.getByRole('listitem').filter({ hasText: /at −1[12]\.\d dB\. It was −[56]\.\d dB/ }),
    ).toHaveCount(1);
    await expect(
      changes.getByRole('listitem').filter({ hasText: /“inb” after 1\d\d\.\d ms\. It was \d+\.\d ms/ }),
    ).toHaveCount(1);
    await page.getByRole('button', { name: /^Use as reference/ }).click();
    await expect(page.getByText('This scan is the reference for the next ones.')).toBeVisible();
  });
});

test('held against the drawing: what is as drawn, what isn’t, what explains it, and a device that isn’t drawn', async ({
  server,
}) => {
  test.setTimeout(1_200_000);
  const rigs = (await (await fetch(`${server.url}/api/rigs`)).json()) as { id: string; name: string }[];
  const rig = rigs.find((r) => r.name === 'Glider corner')!.id;
  const outputs = ['Chat_cable', 'Head-worn_display', 'Kitchen_radio'];
  const inputs = ['Chat_cable_out', 'Desk_microphone'];
  await atDesk({ url: server.url, rig, outputs, inputs }, async ({ desk, page }) => {
    desk.plug([
      { from: 'Chat_cable', to: 'Chat_cable_out', gain: 1, delayMs: 10 },
      { from: 'Head-worn_display', to: 'Desk_microphone', gain: 0.05, delayMs: 12 },
    ]);
    await begin(page);
    await isOver(page);
    const against = page.getByRole('region', { name: 'Against the drawing' });
    await expect(against.getByRole('heading', { name: '1 path differs from the drawing' })).toBeVisible();
    await against.getByRole('button', { name: /^.*“Head-worn display” arrives at “Desk microphone” after/ }).click();
    await expect(page.getByRole('complementary', { name: /^Head-worn display/ })).toContainText(
      'Nothing in the drawing does that.',
    );
    await page.keyboard.press('f');
    await expect(against.getByText('“Desk microphone” picks up “Head-worn display” through the air.')).toBeVisible();
    await against.getByRole('button', { name: 'Update drawing to match' }).first().click();
    await expect(against.getByRole('heading', { name: /^All 2 paths are as drawn|^\d paths? differs?/ })).toBeVisible();
    await against.getByRole('button', { name: 'Add 1 device to the drawing' }).click();
    await expect(against.getByText(/isn’t in the drawing: Kitchen radio/)).toBeHidden();
  });
});

const alertOf = (page: Page) => page.getByRole('main').getByRole('alert');
const isPlaying = (page: Page) => expect(page.getByText(/plays at −\d+ dBFS/)).toBeVisible();
async function isSilent({ page, desk }: Bench): Promise<void> {
  await page.waitForTimeout(500);
  desk.peaks();
  await page.waitForTimeout(700);
  expect(Math.max(...Object.values(desk.peaks()))).toBe(0);
}

test('it ends by a key and by a page out of sight, and one page scans at a time', async ({ server }) => {
  await atDesk({ url: server.url, outputs: 2, inputs: 1 }, async (bench) => {
    const { page, context } = bench;
    await begin(page);
    await isPlaying(page);
    // Meanwhile another page would be heard.
    const other = await context.newPage();
    await openScan(other, server.url);
    await begin(other);
    await expect(alertOf(other)).toContainText('Another page of this browser is scanning');
    await other.close();
    await page.keyboard.press('Escape');
    await expect(alertOf(page)).toHaveText('The scan was stopped. Nothing is playing.');
    await isSilent(bench);
    await begin(page);
    await isPlaying(page);
    await page.evaluate(() => {
      Object.defineProperty(document, 'visibilityState', { configurable: true, value: 'hidden' });
      document.dispatchEvent(new Event('visibilitychange'));
    });
    await expect(alertOf(page)).toContainText('out of sight');
    await isSilent(bench);
  });
});

test.describe('a device that goes', () => {
  for (const [what, name] of [
    ['input', 'ina'],
    ['output', 'outa'],
  ] as const)
    test(`is said: an ${what}, with nothing left playing`, async ({ server }) => {
      await atDesk({ url: server.url, outputs: 1, inputs: 1 }, async (bench) => {
        await begin(bench.page);
        await isPlaying(bench.page);
        bench.desk.remove(name);
        await expect(alertOf(bench.page)).toContainText(`The ${what} “${name}” went away`);
        await isSilent(bench);
      });
    });
});

test('without leave nothing is opened or played, and it says how to give it', async ({ server }) => {
  await atDesk({ url: server.url, outputs: 1, inputs: 1, may: false }, async ({ desk, page }) => {
    await begin(page);
    await expect(alertOf(page)).toContainText('Microphone access was denied');
    expect(Math.max(...Object.values(desk.peaks()))).toBe(0);
  });
});
