import type { Page } from '@playwright/test';
import { rigOnPhone } from './network.ts';
import { DEMO_RIG, expect, test } from './server.ts';

const at = (url: string, view: string): string => `${url}/rigs/${DEMO_RIG}/tap?view=${view}`;
const record = async (page: Page, ...listeners: string[]) => {
  for (const listener of listeners) {
    await page.getByLabel('Destination to simulate').selectOption(listener);
    await expect(page.getByLabel(new RegExp(`^Destination of .*${listener}`))).toBeVisible({ timeout: 60_000 });
  }
};

test('a drill, all of it in the browser: tapped, read, explained, drawn as it is, mended, and tapped again', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  await page.goto(at(server.url, 'play'));
  await expect(page.getByRole('button', { name: /Next: add takes/ })).toBeDisabled();
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  await page.getByRole('button', { name: /Next: add takes/ }).click();
  // The same fault each time: the next number of chance, and that one only.
  await page.evaluate(() => {
    const random = Math.random;
    Math.random = () => {
      Math.random = random;
      return 0.442;
    };
  });
  await page.getByRole('button', { name: 'Practice: hide a fault' }).click();
  await expect(page.getByText(/Practice is on/)).toBeVisible({ timeout: 60_000 });
  // The page answers while a take is read.
  await page.getByLabel('Destination to simulate').selectOption('Stream');
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { name: 'Before anything plays' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('progressbar', { name: /Stream/ })).toBeVisible();
  await record(page, 'Track 2, console');
  await page.getByRole('button', { name: 'Next: readings' }).click();
  const apart = page.getByLabel('What doesn’t match');
  await expect(apart).toContainText('“Wren, voice” should not reach “Track 2, console”, but does');
  await page.keyboard.press('e');
  const first = page.locator('.tap-explain').first();
  await expect(first).toContainText(/Input 3, mute on track 2: off instead of on/, { timeout: 60_000 });
  await expect(first).toContainText('Explains');
  await first.getByRole('button', { name: 'That’s the cause' }).click();
  await expect(page.getByTestId('drill-over')).toContainText('Found, with 2 takes.');
  await page.getByRole('button', { name: 'Update the drawing to match' }).first().click();
  await expect(page.getByText('should not reach “Track 2')).toHaveCount(0);
  await expect(
    page.getByRole('gridcell', { name: /^Wren, voice at Track 2, console: as drawn, read −12 dB/ }),
  ).toBeVisible();

  // Mended in the drawing and at the desk; tapped again it is as drawn, and outlives a reload.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Close the exercise' }).click();
  await page.getByRole('button', { name: /^Takes/ }).click();
  await record(page, 'Track 2, console');
  await page.reload();
  await page.getByRole('button', { name: 'Readings', exact: true }).click();
  await expect(page.getByText(/All \d+ readings are as drawn and as required/)).toBeVisible();
});

test('what a tap measured is taken into the rig, seen with what rests on it, dropped, and brought back', async ({
  page,
  server,
}) => {
  await page.goto(at(server.url, 'takes'));
  await record(page, 'Track 4, mixer');
  await page.getByRole('button', { name: 'Next: readings' }).click();
  await page.getByRole('button', { name: /to the rig/ }).click();
  await page.getByRole('link', { name: /measured$/ }).click();
  const figures = page.getByRole('table', { name: 'Measured figures' });
  const row = figures.getByRole('row', { name: /^“Couch game” at “Track 4, mixer”: / });
  await expect(row).toContainText(/delay [+−][\d.]+ ms, ±0.10/);
  await row.getByRole('button', { name: /^What depends on/ }).click();
  await expect(page.getByRole('list', { name: 'What depends on it' })).toContainText('Track 4, mixer');
  const all = await figures.getByRole('button', { name: /^Remove/ }).count();
  await row.getByRole('button', { name: /^Remove/ }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(row).toBeVisible();
  // It is the rig's: another window has it too.
  await page.reload();
  await expect(figures.getByRole('button', { name: /^Remove/ })).toHaveCount(all);
});

test('a tune is played by its page, taken along as a film, and read back with its picture', async ({
  page,
  server,
}, info) => {
  test.setTimeout(240_000);
  await page.goto(`${server.url}/tune?id=1&for=Couch%20game`);
  const still = await page.getByTestId('tune').screenshot();
  await page.getByRole('button', { name: /^Play “?Couch game/ }).click();
  await expect
    .poll(async () => Buffer.compare(still, await page.getByTestId('tune').screenshot()), { timeout: 20_000 })
    .not.toBe(0);
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: /^Play “?Couch game/ })).toBeVisible();

  await page.goto(at(server.url, 'play'));
  const made = page.waitForEvent('download', { timeout: 180_000 });
  await page.getByRole('button', { name: '“Couch game”: video with panel' }).click();
  const film = await made;
  expect(film.suggestedFilename()).toMatch(/^tune 1, Couch game\.(mp4|webm)$/);
  const path = info.outputPath(`Stream.${film.suggestedFilename().split('.').pop()}`);
  await film.saveAs(path);
  const wav = page.waitForEvent('download');
  await page.getByRole('button', { name: '“Couch game”: WAV' }).click();
  const sound = info.outputPath('Track 2, console.wav');
  await (await wav).saveAs(sound);

  await page.getByRole('button', { name: /^Takes/ }).click();
  await page.getByLabel('Tap test takes').setInputFiles([path, sound]);
  for (const name of [/^Destination of .*Stream/, /^Destination of .*Track 2, console/])
    await expect(page.getByLabel(name)).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Next: readings' }).click();
  await page.getByRole('gridcell', { name: /^Couch game at Stream/ }).click();
  const reading = page.getByTestId('reading');
  await expect(reading).toContainText('Sure (0.999)');
  const row = reading.getByRole('row', { name: /Audio vs\. video/ });
  const [, apartMs, bound] = /([+−]?[\d.]+) ms, ±([\d.]+) ms/.exec((await row.textContent())!)!;
  expect(Math.abs(Number(apartMs!.replace('−', '-')))).toBeLessThan(Math.max(17, Number(bound)));
});

test('a phone on the network plays a tune once all that has to be so is so', async ({ page, server, network }) => {
  await server.kill();
  await server.start(network.lan);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/run?view=phone`);
  const { phone, hand } = await rigOnPhone(page, network, 'Boathouse relay');
  await phone.getByRole('button', { name: 'Test tunes' }).click();
  await expect(phone.getByTestId('tune')).toBeHidden();
  for (const box of await phone.getByRole('checkbox').all()) await box.check();
  await phone.getByLabel('This phone plays').selectOption('tune 3, “Couch voices”');
  await phone.getByRole('button', { name: /^Play .*Couch voices/ }).click();
  await expect(phone.getByRole('button', { name: /^Stop/ })).toBeVisible();
  const wide = await phone.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);
  await hand.close();
});
