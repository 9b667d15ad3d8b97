import { readFileSync } from 'node:fs';
import { COUCH_CLAP, DEMO_RIG, expect, test } from './server.ts';

test('the server is killed while one works: nothing is lost, and it is sent when it is back', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  const field = page.getByLabel('Mixer, Channel 1, delay, ms');
  await expect(field).toBeVisible();
  await server.kill();
  await field.fill('120');
  await field.blur();
  await page.keyboard.press('y');
  await expect(page.getByText('The server isn’t responding.')).toBeVisible();
  await server.start();
  await expect(page.getByText('The server isn’t responding.')).toBeHidden({ timeout: 30_000 });
  await page.reload();
  await expect(page.getByLabel('Mixer, Channel 1, delay, ms')).toHaveValue('120');
  // Undo outlives the reload as well.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel('Mixer, Channel 1, delay, ms')).toHaveValue('0');
});

test('two windows: the second one to write is asked, nothing is overwritten', async ({ page, server, context }) => {
  const url = `${server.url}/rigs/${DEMO_RIG}/sync`;
  // Another browser, so that the two share nothing but the server.
  const other = await (await context.browser()!.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(url);
  await other.goto(url);
  const set = async (window: typeof page, value: string) => {
    await window.getByLabel('Mixer, Channel 1, delay, ms').fill(value);
    await window.getByRole('button', { name: /^Already done/ }).click();
  };
  await expect(other.getByLabel('Mixer, Channel 1, delay, ms')).toBeVisible();
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await set(page, '50');
  await saved;
  await set(other, '70');
  await expect(other.getByText('Another window changed this rig first.')).toBeVisible();
  await other.getByRole('button', { name: 'Use my version' }).click();
  await expect(other.getByText('Another window changed this rig first.')).toBeHidden();
  await expect(other.getByLabel('Mixer, Channel 1, delay, ms')).toHaveValue('70');
});

test('rigs are exported, imported, deleted and taken back; a broken one is refused with its place', async ({
  page,
  server,
}) => {
  await page.goto(server.url);
  const row = page.getByRole('row', { name: /Boathouse relay/ });
  const download = page.waitForEvent('download');
  await row.getByRole('button', { name: 'Export' }).click();
  const text = readFileSync((await (await download).path())!, 'utf8');
  const choose = async (content: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: /^Import/ }).click();
    await (await chooser).setFiles({ name: 'rig.json', mimeType: 'application/json', buffer: Buffer.from(content) });
  };
  const rig = JSON.parse(text);
  await choose(JSON.stringify({ ...rig, name: 'Second boathouse' }));
  await expect(page.getByText('“Second boathouse” imported.')).toBeVisible();
  const nowhere = structuredClone(rig);
  nowhere.cables[0].to.deviceId = 'nowhere';
  await choose(JSON.stringify(nowhere));
  await expect(page.getByText(/cables\/0\/to: there is no device .nowhere./)).toBeVisible();
  await choose('{"a":');
  await expect(page.getByText(/Not valid JSON/)).toBeVisible();
  await page
    .getByRole('row', { name: /Second boathouse/ })
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect(page.getByRole('row', { name: /Second boathouse/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row', { name: /Second boathouse/ })).toBeVisible();
});

test('the bench refuses what is no take, opens a WAV cut short, and needs no rig', async ({ page, server }) => {
  await page.goto(`${server.url}/bench`);
  const choose = async (name: string, buffer: Buffer) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: /Open a take/ }).click();
    await (await chooser).setFiles({ name, mimeType: 'audio/wav', buffer });
  };
  await choose(
    'picture.wav',
    Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, ...new Array(200).fill(7)]),
  );
  // It leaves Measure by itself; what was wrong with it stays to be read.
  await expect(page.getByText(/Can’t read this file as audio or video/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Clear/ })).toHaveCount(0);
  await expect(page.getByText(/Can’t read this file as audio or video/).first()).toBeVisible();
  const wav = Buffer.from(
    await (await page.request.get(`${server.url}/api/takes/7a4e0000-0000-4000-8000-000000000002/content`)).body(),
  );
  await choose('cut.wav', wav.subarray(0, wav.length >> 1));
  await expect(page.getByText(/shorter than its header says/)).toBeVisible();
  await expect(page.getByText(/claps found/)).toBeVisible();
});

test('marks are moved, excluded, removed and added by keys, and kept', async ({ page, server }) => {
  await page.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  const clap = page.getByRole('slider', { name: /^Clap 1,/ });
  const before = Number(await clap.getAttribute('aria-valuenow'));
  await clap.focus();
  await page.keyboard.press('ArrowRight');
  await expect(clap).toHaveAttribute('aria-valuenow', String(Math.round((before + 1) * 10) / 10));
  await page.keyboard.press('Space');
  await expect(page.getByRole('slider', { name: /^Clap 1, .*excluded/ })).toBeVisible();
  await page.getByRole('slider', { name: /^Clap 4,/ }).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByText('4 flashes and 3 claps found.')).toBeVisible();
  await page.keyboard.press('m');
  const saved = page.waitForResponse((r) => r.url().endsWith('/notes') && r.ok());
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible();
  await saved;
  await page.reload();
  await expect(page.getByRole('slider', { name: /^Clap 1, .*excluded/ })).toBeVisible({ timeout: 60_000 });
});

test('a page of another site, or under another name, gets nothing', async ({ server, request }) => {
  expect(
    (await request.get(`${server.url}/api/rigs`, { headers: { Origin: 'http://elsewhere.example' } })).status(),
  ).toBe(403);
  expect((await request.get(`${server.url}/api/rigs`, { headers: { Host: 'elsewhere.example' } })).status()).toBe(421);
});
