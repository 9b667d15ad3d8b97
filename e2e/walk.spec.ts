import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { COUCH_CLAP, DEMO_RIG, expect, leaveByEscape, RELAY_BACKUP, RELAY_TRACK, test } from './server.ts';

/** The first of the two takes as a file, for the command line. */
async function relayTake(page: Page, url: string): Promise<string> {
  const path = join(mkdtempSync(join(tmpdir(), 'mellow-walk-')), 'relay.wav');
  writeFileSync(path, await (await page.request.get(`${url}/api/takes/${RELAY_BACKUP}/content`)).body());
  return path;
}

test('by pointer: from the demo rig over a real file to a delay that puts it right', async ({ page, server }) => {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Open Boathouse relay' }).click();
  await expect(page.getByRole('application')).toBeVisible();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /Sync/ }).click();
  await expect(page.getByRole('heading', { name: /Timing/ })).toBeVisible();
  const couch = page.getByRole('button', { name: /^Couch voices:/ });
  await expect(couch).toHaveAccessibleName(/early$/);
  await couch.click();
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('typical');

  await page.getByRole('link', { name: 'Measure', exact: true }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: /Open a take/ }).click();
  await (await chooser).setFiles('demo/takes/couch-clap.mp4');
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  // Truth: 64.4 ms; four readings, each known to a frame of 16.7 ms.
  const said = await page
    .getByTestId('findings')
    .getByText(/ms late$/)
    .textContent();
  expect(Math.abs(Number.parseFloat(said!) - 64.4)).toBeLessThan(8.3);

  await page.reload();
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  const card = page.getByLabel('Recorded at');
  await card.getByLabel('Source').selectOption({ label: 'Couch voices' });
  await expect(card).toContainText(/Input 2, video delay/);
  await card.getByRole('button', { name: /Add to rig/ }).click();

  await expect(page.getByRole('button', { name: /^Couch voices: 6\d ms late/ })).toBeVisible();
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('measured');
  await page.getByRole('button', { name: /Suggest delays/ }).click();
  await expect(page.getByLabel(/Input 2, video delay/)).toHaveValue(/^6\d$/);
  await page.getByRole('button', { name: /^Add to-do/ }).click();
  // A proposal that no one has ticked is not called right.
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('in sync once the to-dos are done');
  await page.getByRole('link', { name: /^To-do list/ }).click();
  const open = page.getByRole('row', { name: /open since/ });
  await expect(open.first()).toBeVisible();
  for (let left = await open.count(); left > 0; left--) {
    await open.first().getByRole('button').click();
    await page.keyboard.press('d');
    await expect(open).toHaveCount(left - 1);
  }
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Couch voices: (0 ms|1 ms)/ })).toBeVisible();
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('in sync');

  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('link', { name: /^To-do list ?1 to do$/ })).toBeVisible();
});

test('by keyboard: listener, source, proposal, verb and undo', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${COUCH_CLAP}`);
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('a');
  await expect(page.getByRole('heading', { name: /Timing at/ })).toBeVisible();
  await expect(page.getByLabel('Verdict')).toContainText('to fix');
  await page.keyboard.press('p');
  await page.keyboard.press('y');
  await expect(page.getByRole('button', { name: /^Couch voices: 0 ms/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Couch voices: 6\d ms late/ })).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByRole('button', { name: /^Couch voices: 0 ms/ })).toBeVisible();
  await page.keyboard.press('l');
  await expect(page.getByRole('heading', { name: /Timing/ })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Suggest delays');
  await leaveByEscape(page, page.getByRole('dialog'));
});

test('a delay is typed, held to the device, and the chart answers before anything is decided', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync?source=wren`);
  const field = page.getByLabel('Mixer, Channel 1, delay, ms');
  await field.fill('171');
  await expect(page.getByRole('button', { name: /^Wren, voice: 0 ms/ })).toBeVisible();
  await field.fill('9999');
  await field.blur();
  await expect(field).toHaveValue('500');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Wren, voice: 171 ms early/ })).toBeVisible();
});

test('two takes of one talk: how they lie to each other and drift, taken into the rig', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${RELAY_BACKUP},${RELAY_TRACK}`);
  const findings = page.getByTestId('findings');
  await expect(findings).toContainText('31.0', { timeout: 60_000 });
  await expect(findings).toContainText('shorter');
  // Truth: started 0.65 s apart, 25.6 ms of that is the way through the computer.
  await expect(findings).toContainText('625.3');
  // What that means in the edit, to take along: exact in the timeline, by the frame in the EDL.
  const slips = page.getByTestId('slip-list');
  await expect(slips).toContainText(/by \+625\.3\d? ms and play it at 0\.999969 of its speed/);
  const saved = async (name: string) => {
    const [download] = await Promise.all([page.waitForEvent('download'), slips.getByRole('button', { name }).click()]);
    return readFileSync(await download.path(), 'utf8');
  };
  const timeline = JSON.parse(await saved('Timeline, OTIO'));
  const [gap, clip] = timeline.tracks.children[1].children;
  expect((1000 * gap.source_range.duration.value) / gap.source_range.duration.rate).toBeCloseTo(625.3, 0);
  expect(clip.effects[0].time_scalar).toBeCloseTo(1 - 31e-6, 6);
  expect(await saved('EDL')).toContain('FROM CLIP NAME: relay talk, track 4.wav');
  expect(await saved('Table, CSV')).toContain('runs longer, ppm');
  const [wav] = await Promise.all([
    page.waitForEvent('download'),
    slips.getByRole('button', { name: 'Corrected WAV' }).click(),
  ]);
  const told = spawnSync(
    process.execPath,
    ['bin/mellow', 'offset', await relayTake(page, server.url), await wav.path(), '--json'],
    {
      encoding: 'utf8',
    },
  );
  const lies = JSON.parse(told.stdout);
  expect(Math.abs(lies.offsetMs)).toBeLessThan(0.1);
  expect(Math.abs(lies.driftPpm)).toBeLessThan(1);
  const card = page.getByLabel('Recorded at');
  // The takes' names tell whose clocks they went by; it can be said otherwise.
  await expect(card.getByLabel('Clock of the first take')).toHaveValue('backup-recorder');
  await expect(card.getByLabel('Clock of the second take')).not.toHaveValue('');
  await card.getByLabel('Clock of the second take').selectOption({ label: 'Mixer' });
  await card.getByRole('button', { name: 'Add clocks to rig' }).click();
  await expect(card).toContainText('Already in the rig, since');
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync?listener=track-4&source=wren`);
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('−31.0 ppm vs. “Backup recorder”');
});
