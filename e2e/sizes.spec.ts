import { DEMO_RIG, expect, test } from './server.ts';

const SIZES = [
  { width: 1920, height: 1080 },
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
  { width: 390, height: 844 },
];
const VIEWS = [
  'next',
  'plan',
  'wire',
  'route',
  'level',
  'sync',
  'run',
  'desk',
  'how',
  'trouble',
  'log',
  'bench',
  'tap',
  'scan',
  'gear',
];
/** Under a finger. */
const TARGET_PX = 44;
const LEAST_LETTER_PX = 12;

for (const size of SIZES)
  test(`no page goes sideways, and the map can be read, at ${size.width} by ${size.height}`, async ({
    browser,
    server,
  }) => {
    const context = await browser.newContext({
      viewport: size,
      hasTouch: size.width < 700,
      isMobile: size.width < 700,
    });
    const page = await context.newPage();
    for (const view of VIEWS) {
      await page.goto(`${server.url}/rigs/${DEMO_RIG}/${view}`);
      await expect(page.getByRole('main')).toBeVisible();
      // On a phone the run itself is the next step.
      const isRun = view === 'run' && size.width < 700;
      await expect(page.getByRole('region', { name: 'Next', exact: true })).toBeVisible({ visible: !isRun });
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect(over, view).toBeLessThanOrEqual(0);
      if (size.width < 700) {
        const low = await page
          .locator('.button:visible')
          .evaluateAll((all) => all.map((b) => b.getBoundingClientRect().height));
        expect(Math.min(TARGET_PX, ...low), view).toBeGreaterThanOrEqual(TARGET_PX - 0.5);
        await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeVisible();
      }
    }
    await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
    const letters = page.getByRole('application').locator('svg text');
    await expect(letters.first()).toBeVisible();
    const sizes = await letters.evaluateAll((all) =>
      all.map((text) => Number.parseFloat(getComputedStyle(text).fontSize) * (text as SVGTextElement).getCTM()!.a),
    );
    expect(Math.min(...sizes)).toBeGreaterThanOrEqual(LEAST_LETTER_PX - 0.05);
    await context.close();
  });

test('a guide is found by plain words, followed on the rig, and proves what it brought', async ({ page, server }) => {
  const rigs = (await (await fetch(`${server.url}/api/rigs`)).json()) as { id: string; name: string }[];
  const clay = rigs.find((rig) => rig.name === 'Clay hour')!;
  await page.goto(`${server.url}/rigs/${clay.id}/wire`);
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('/');
  // The search comes with the first search.
  const search = page.getByRole('dialog').getByRole('combobox');
  await expect(search).toBeFocused();
  await search.fill('hears themselves');
  await page.getByRole('option', { name: /Keep a guest from hearing themselves/ }).click();
  const step = page.getByRole('listitem').filter({ hasText: '“Pupils” isn’t received by “Pupils’ ears”.' });
  await step.getByRole('button', { name: 'Suggest changes' }).click();
  await step.getByRole('button', { name: /^Already done: / }).click();
  await expect(step.getByRole('img', { name: /^OK/ })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Proof:' })).toContainText(/\d+ dB SPL, \d+ ms/);
});
