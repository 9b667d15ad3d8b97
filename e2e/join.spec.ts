import { readFileSync } from 'node:fs';
import { expect, test } from './server.ts';

test('takes picked on the bench are joined by what they hold, and taken along into an edit', async ({
  page,
  server,
}) => {
  test.setTimeout(300_000);
  await page.goto(`${server.url}/bench`);
  for (const name of [
    'couch clap.mp4',
    'relay talk, track 4.wav',
    'couch clap, backup recorder.wav',
    'relay talk, backup recorder.wav',
  ])
    await page.getByLabel(`Select “${name}”`, { exact: true }).check();
  await page.getByRole('button', { name: 'Sync by content' }).click();
  const groups = page.getByTestId('joined');
  await expect(groups).toHaveCount(2, { timeout: 200_000 });
  const starts = await groups.getByRole('cell').allTextContents();
  // The backup recorder was started 0.65 s into the clap, and heard it by a shorter way than the camera.
  expect(starts.some((s) => Math.abs(Number(s.replace(',', '')) - 847) < 2)).toBe(true);
  expect(starts.some((s) => Math.abs(Number(s) - 625) < 2)).toBe(true);
  expect(starts).toContain('−31.0');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Timeline, OTIO' }).first().click();
  const file = await (await saved).path();
  expect(JSON.parse(readFileSync(file, 'utf8')).OTIO_SCHEMA).toMatch(/^Timeline/);
  const corrected = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Corrected WAV' }).nth(3).click();
  expect((await corrected).suggestedFilename()).toMatch(/corrected\.wav$/);
  await page.getByRole('link', { name: 'Compare closely' }).first().click();
  await expect(page.getByTestId('findings')).toBeVisible({ timeout: 60_000 });
});
