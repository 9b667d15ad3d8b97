import { readFileSync } from 'node:fs';
import { expect, test } from './server.ts';

/** What another program's meter reads of the same files, in tenths. */
const READ = JSON.parse(readFileSync('fixtures/read-by-ffmpeg.json', 'utf8')) as Record<
  string,
  { lufs: number; peakDbtp: number }
>;

for (const [file, layout] of [
  ['talk.mp3', 'stereo, 48 kHz'],
  ['talk.m4a', 'stereo, 48 kHz'],
  ['talk.webm', '5.1, 48 kHz'],
  ['uneven.mp4', 'stereo, 48 kHz'],
] as const)
  test(`${file}: channels and loudness are those that another program reads`, async ({ page, server }) => {
    await page.goto(`${server.url}/bench`);
    await page.getByLabel('Take file').setInputFiles(`fixtures/${file}`);
    const levels = page.getByTestId('levels');
    await expect(levels).toBeVisible({ timeout: 60_000 });
    await expect(page.getByText(layout)).toBeVisible();
    const figures = (await levels.locator('tbody td').allTextContents()).map((t) =>
      Number.parseFloat(t.replace('−', '-')),
    );
    expect(Math.abs(figures[0]! - READ[file]!.lufs)).toBeLessThanOrEqual(0.1001);
    expect(Math.abs(figures[4]! - READ[file]!.peakDbtp)).toBeLessThanOrEqual(0.1001);
    // Opened again, it is measured from what was decoded before.
    await page.reload();
    await expect(levels.locator('tbody td').first()).toHaveText(`−${Math.abs(figures[0]!).toFixed(1)} LUFS`);
  });

test('a picture whose frames come unevenly says so, and how finely it is known', async ({ page, server }) => {
  await page.goto(`${server.url}/bench`);
  await page.getByLabel('Take file').setInputFiles('fixtures/uneven.mp4');
  await expect(page.getByText(/The frames are unevenly spaced, 17 to \d+ ms apart/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('160 × 90, uneven frames')).toBeVisible();
});

test('a picture without sound is not asked for marks', async ({ page, server }) => {
  await page.goto(`${server.url}/bench`);
  await page.getByLabel('Take file').setInputFiles('fixtures/mute.mp4');
  await expect(page.getByText(/This take has no audio, so nothing can be heard/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/No flash matches a clap\. Add the missing mark/)).toHaveCount(0);
});

test('a file that breaks off is read to its end; one that holds nothing leaves the bench', async ({ page, server }) => {
  const whole = readFileSync('fixtures/talk.m4a');
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'audio/mp4', buffer });
  await page.goto(`${server.url}/bench`);
  await page.getByLabel('Take file').setInputFiles(file('cut.m4a', whole.subarray(0, Math.round(whole.length * 0.6))));
  await expect(page.getByText(/The file breaks off: it has [23]\.\d s of audio instead of 5\.0 s/)).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByTestId('levels')).toBeVisible();

  await page.goto(`${server.url}/bench`);
  const noise = Buffer.from(Uint8Array.from({ length: 50_000 }, (_, i) => (i * 7919 + (i >> 3)) & 255));
  await page.getByLabel('Take file').setInputFiles(file('nothing.mp4', noise));
  await expect(page.getByText(/^nothing\.mp4: Can’t read this file as audio or video/)).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByText('Drop a take here')).toBeVisible();
  // It is said as long as Measure is empty.
  await page.waitForTimeout(1500);
  await expect(page.getByText(/^nothing\.mp4: .* It was not saved\./)).toBeVisible();
  const kept = await (await page.request.get(`${server.url}/api/takes`)).json();
  expect(kept.filter((t: { name: string }) => t.name === 'nothing.mp4')).toEqual([]);
});
