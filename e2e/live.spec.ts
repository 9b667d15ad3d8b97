import { DEMO_RIG, expect, test } from './server.ts';

const [executablePath, args] = [process.env.CHROMIUM ?? '/usr/bin/chromium', ['--no-sandbox', '--disable-gpu']];

test.use({
  launchOptions: {
    executablePath,
    args: [...args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  },
});

test('gain is set by talking: what the input reads, and how far to turn', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/level?source=wren&listener=backup`);
  const live = page.getByRole('region', { name: 'Live' });
  await live.getByRole('button', { name: 'Listen to an input' }).click();
  // The stand-in of the browser beeps once a second.
  await expect(live.getByRole('img', { name: 'Level now' })).toBeVisible();
  await expect(live.getByRole('row', { name: /Highest −?\d+\.\d dBFS/ })).toBeVisible();
  await expect(live.getByRole('row', { name: /Momentary −?\d+\.\d LUFS/ })).toBeVisible();
  await expect(live.getByRole('status')).toHaveText(
    /^(The gain is right|Up \d+ dB: Strip 1, gain to|Down \d+ dB: Strip 1, gain to)/,
  );
  const inputs = live.getByLabel('Input of this computer');
  expect(await inputs.locator('option').count()).toBeGreaterThan(1);
  await inputs.selectOption({ index: 1 });
  await expect(live.getByRole('row', { name: /Highest −?\d+\.\d dBFS/ })).toBeVisible();
  await live.getByRole('button', { name: 'Stop listening' }).click();
  await expect(live.getByRole('img', { name: 'Level now' })).toHaveCount(0);
});
