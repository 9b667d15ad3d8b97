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
  await expect(live.getByRole('row', { name: /Highest peak −?\d+\.\d dBFS/ })).toBeVisible();
  await expect(live.getByRole('row', { name: /Momentary −?\d+\.\d LUFS/ })).toBeVisible();
  await expect(live.getByRole('status')).toHaveText(
    /^(The gain is right|Up \d+ dB: “Channel 1, gain” to|Down \d+ dB: “Channel 1, gain” to)/,
  );
  const inputs = live.getByLabel('Input of this computer');
  expect(await inputs.locator('option').count()).toBeGreaterThan(1);
  await inputs.selectOption({ index: 1 });
  await expect(live.getByRole('row', { name: /Highest peak −?\d+\.\d dBFS/ })).toBeVisible();
  await live.getByRole('button', { name: 'Stop listening' }).click();
  await expect(live.getByRole('img', { name: 'Level now' })).toHaveCount(0);
});

test('an input is watched whichever view one looks at, and what is not watched is said', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/run?view=during`);
  const watch = page.getByRole('region', { name: 'Watch' });
  await watch.getByRole('button', { name: 'Watch an input' }).click();
  const card = watch.getByTestId('watch-card');
  // The stand-in of the browser beeps once a second, up to full scale.
  await expect(card).toContainText('CLIPS');
  await expect(watch).toContainText('Not monitored: Track 1, all');
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Sync/ }).click();
  const notice = page.getByRole('alert').filter({ hasText: 'Stream: clips' });
  await expect(notice).toBeVisible();
  // Every fault of the rig is run once beside the page, and then the alarm says where to look.
  await expect(notice).toContainText('Check first: ');
  await page.keyboard.press('!');
  await page.getByRole('button', { name: 'Yes, that’s it' }).click();
  await expect(page.getByLabel('Your answers')).toContainText('“Stream”: distorted.');
  await page.getByRole('link', { name: 'Run' }).click();
  await page.getByRole('button', { name: 'Live' }).click();
  await card.getByRole('button', { name: 'Stop watching' }).click();
  await expect(card).toHaveCount(0);
  await expect(notice).toHaveCount(0);
  await watch.getByRole('button', { name: /^Watch as last time/ }).click();
  await expect(card).toContainText('CLIPS');
});

test('a take of a tap is recorded from an input of this computer, and what holds no tune says so', async ({
  page,
  server,
}) => {
  test.setTimeout(600_000);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/tap?view=takes`);
  const takes = page.getByRole('list', { name: 'Takes' });
  // The browser's stand-in input stalls while the machine has other things to do: what it gave may be too short.
  for (const clock of [/0:00:1[2-9]/, /0:00:[3-5]\d/, /0:0[1-9]:/]) {
    await page.getByRole('button', { name: 'Record an input of this computer' }).click();
    await expect(page.getByRole('button', { name: /^Stop recording/ })).toHaveText(clock, { timeout: 100_000 });
    await page.getByRole('button', { name: /^Stop recording/ }).click();
    const found = takes.getByText(/no test tune found|too short to hold/);
    await expect(found).toBeVisible({ timeout: 200_000 });
    if (!/too short/.test((await found.textContent())!)) break;
    await takes.getByRole('button', { name: 'Discard' }).click();
  }
  await expect(takes).toContainText('no test tune found');
});
