import { DEMO_RIG, expect, HOST_TOO_LOUD, HOST_WITH_HUM, test } from './server.ts';

test('gains are walked, pulled, set and put on the list, by keyboard and pointer', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/level?source=wren&listener=backup`);
  const end = page.getByText(/^At “Backup recorder”:/);
  await expect(end).toContainText('3 conversions on this path');
  const before = await end.textContent();
  // By pointer: pulled up by a hand's breadth.
  const fader = page.getByRole('slider', { name: 'Mixer, Channel 1, fader' });
  await expect(fader).toHaveAttribute('aria-valuetext', '0 dB, at unity (0 dB)');
  const box = (await fader.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 4, { steps: 4 });
  await page.mouse.up();
  await expect(fader).not.toHaveAttribute('aria-valuenow', '0');
  await expect(end).not.toHaveText(before!);
  await page.keyboard.press('Escape');
  await expect(end).toHaveText(before!);
  // By keys: a step of the device, ten with Shift, to its end.
  await page.getByRole('slider', { name: 'Mixer, Channel 1, gain' }).focus();
  const knob = page.getByRole('slider', { name: 'Mixer, Channel 1, gain' });
  await page.keyboard.press('End');
  await expect(knob).toHaveAttribute('aria-valuenow', '60');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(knob).toHaveAttribute('aria-valuenow', '50');
  await page.keyboard.press('Escape');
  // The solver: to what is wanted, why, and onto the list; undone again.
  await page.keyboard.press('p');
  await expect(page.getByText(/^Result: −\d/)).toBeVisible();
  await page.keyboard.press('d');
  await expect(page.getByRole('link', { name: /^To-do list ?[1-9]\d* to do$/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^To-do list$/ })).toBeVisible();
  // Another listener by its key.
  await page.keyboard.press('l');
  await expect(page.getByText(/^At “Backup recorder”:/)).toHaveCount(0);
});

test('a spoilt take says what is wrong with it, where, and what in the rig could have made it', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${HOST_TOO_LOUD}`);
  const faults = page.getByTestId('faults');
  await expect(faults).toContainText('Clipping');
  await expect(faults).toContainText('turned down afterward');
  await expect(page.getByTestId('levels')).toContainText('LUFS');
  await expect(page.getByRole('img', { name: 'Loudness over time' })).toBeVisible();
  await expect(page.getByLabel(/^Where .* was recorded/)).toHaveValue('backup');
  // To the place: the lanes go there.
  const axis = page.getByLabel('Takes over time');
  const before = await axis.textContent();
  await faults.getByRole('button', { name: /^00:/ }).first().click();
  await expect(axis).not.toHaveText(before!);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${HOST_WITH_HUM}`);
  await expect(faults).toContainText('Hum, 50 Hz');
  await faults.getByRole('link').first().click();
  await expect(page.getByRole('complementary', { name: 'Tap point' })).toBeVisible();
});

test('a level that was measured is taken into the rig as what somebody finds at the desk, and undone', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${HOST_WITH_HUM}`);
  const section = page.getByTestId('level-into-rig');
  await expect(section).toContainText(/−\d+\.\d dBFS while it plays/);
  await section.getByRole('listitem').filter({ hasText: 'at the source' }).getByRole('button').click();
  await expect(section).toContainText('Already in the rig.');
  await expect(section).toContainText('They match.');
  await page.keyboard.press('Control+z');
  await expect(section).not.toContainText('They match.');
  await section.getByRole('listitem').filter({ hasText: 'Channel 1, fader is at' }).getByRole('button').click();
  await expect(section).toContainText('They match.');
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/level?source=wren&listener=backup`);
  await expect(page.getByRole('slider', { name: 'Mixer, Channel 1, fader' })).not.toHaveAttribute('aria-valuenow', '0');
});

test('a live meter without leave or input says what to do, and nothing else is lost', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/level?source=wren&listener=backup`);
  const live = page.getByRole('region', { name: 'Live' });
  await live.getByRole('button', { name: 'Listen to an input' }).click();
  await expect(live.getByText(/denied|isn’t there|can’t be opened/)).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByText(/Result:/)).toBeVisible();
});
