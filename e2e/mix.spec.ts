import type { Page } from '@playwright/test';
import { DEMO_RIG, expect, FIVE_TRACKS, HOST_TOO_LOUD, RELAY_BACKUP, RELAY_TRACK, test } from './server.ts';

const nowUnder = (page: Page, track: string) =>
  page
    .getByTestId('tracks')
    .getByRole('row')
    .filter({ has: page.getByLabel(new RegExp(`^Type of .?${track}`)) })
    .getByRole('cell')
    .nth(6);

test('five tracks come into balance, are heard before and after, changed by hand, and kept', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench?takes=${FIVE_TRACKS}`);
  // A track of many is measured alone, by its name.
  await expect(page.getByLabel(/^Track of .* to measure$/)).toContainText('Ilse, on the call');
  await page.getByRole('button', { name: /Mix as tracks/ }).click();
  const whole = page.getByTestId('whole');
  await expect(whole).toContainText('−16.0 LUFS');
  await expect(nowUnder(page, 'Couch game')).toHaveText('11.0');
  await expect(nowUnder(page, 'Ilse, on the call')).toHaveText('2.0');
  // The explosion in the middle of a sentence: no fader helps, and it is said how far down it goes.
  await page.getByRole('button', { name: /^00:1\d: turned down \d+ dB$/ }).click();
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: /^As recorded/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: /^Mixed/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: /^Stop/ })).toHaveCount(0);
  // The chart is walked by arrows, phrase by phrase.
  const chart = page.getByRole('slider', { name: /^The phrase being played/ });
  const at = await chart.getAttribute('aria-valuetext');
  await chart.press('ArrowRight');
  await expect(chart).not.toHaveAttribute('aria-valuetext', at!);
  // Another wish is met.
  const wanted = page.getByLabel('Target below the main voice, LU: “Couch game”');
  await wanted.fill('14');
  await wanted.press('Enter');
  await expect(nowUnder(page, 'Couch game')).toHaveText('14.0');
  await expect(whole).toContainText('−16.0 LUFS');
  // By hand it is where one puts it, and the whole says what that does; p finds the faders again.
  const fader = page.getByLabel('Fader of “Couch game”, dB');
  await fader.fill('0');
  await fader.press('Enter');
  await expect(nowUnder(page, 'Couch game')).not.toHaveText('14.0');
  await expect(whole).not.toContainText('−16.0 LUFS');
  await page.reload();
  await expect(fader).toHaveValue('0', { timeout: 60_000 });
  await page.locator('h1').click();
  await page.keyboard.press('p');
  await expect(nowUnder(page, 'Couch game')).toHaveText('14.0');
});

test('settings are tried on a voice: each does what it says, and is compared blind', async ({ page, server }) => {
  await page.goto(`${server.url}/bench?takes=${HOST_TOO_LOUD}`);
  await page.getByRole('button', { name: /Try processing on it/ }).click();
  const figures = page.getByTestId('treated');
  const cell = (row: string, n: number) =>
    figures
      .getByRole('row', { name: new RegExp(`^${row}`) })
      .getByRole('cell')
      .nth(n);
  await expect(cell('True peak', 2)).toContainText('−');
  // Without a step it is as it was; a make-up gain of 3 dB is 3 dB.
  for (const step of ['Low cut', 'Presence', 'Compressor', 'Limiter'])
    await page.getByRole('checkbox', { name: step }).uncheck();
  await expect(cell('Loudness', 3)).toHaveText('0.0');
  const makeup = page.getByLabel('Make-up gain, dB');
  await makeup.fill('3');
  await makeup.press('Enter');
  await expect(cell('Loudness', 3)).toHaveText('+3.0');
  await expect(cell('Peak-to-loudness ratio', 3)).toHaveText('0.0');
  // A limiter keeps what would go over; nothing is over the ceiling.
  await page.getByRole('checkbox', { name: 'Limiter' }).check();
  const ceiling = page.getByLabel('Limiter, ceiling, dBTP');
  await ceiling.fill('-8');
  await ceiling.press('Enter');
  await expect(page.getByText(/^The limiter reduces gain by at most \d/)).toBeVisible();
  expect(Number((await cell('True peak', 2).textContent())!.replace('−', '-'))).toBeLessThanOrEqual(-8);
  await page.reload();
  await expect(makeup).toHaveValue('3', { timeout: 60_000 });
  await page.getByRole('button', { name: /^Compare blind/ }).click();
  await expect(page.getByText(/B is “host too loud, backup recorder.wav”, processed/)).toBeVisible();
  await expect(page.getByText(/Both say the same words at the same time/)).toBeVisible();
});

test('what was tried goes onto the list of a box that has it, in its own steps', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/bench/try?takes=${HOST_TOO_LOUD}`);
  const desk = page.getByTestId('onto-desk');
  await page.getByLabel('Device', { exact: true }).selectOption({ label: 'Mixer, Channel 1' });
  const corner = page.getByLabel(/^Low cut, corner/);
  await corner.fill('95');
  await corner.press('Enter');
  await expect(desk.getByRole('row', { name: /Channel 1, low cut/ })).toContainText('95 Hz: nearest possible value');
  await expect(desk).toContainText('It has no');
  await desk.getByRole('button', { name: /^Add to-do/ }).click();
  await expect(desk).toContainText('Already set this way.');
  await expect(page.getByRole('link', { name: /^To-do list ?1 to do$/ })).toBeVisible();
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/desk`);
  await expect(page.getByText('Channel 1, low cut: off → 80 Hz')).toBeVisible();
});

test('two takes are told apart blind: rounds settled before, the exact chance after, kept with the take', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?takes=${RELAY_BACKUP},${RELAY_TRACK}`);
  await page.getByRole('button', { name: /^Compare the two blind/ }).click();
  const rounds = page.getByRole('textbox', { name: 'Rounds' });
  await rounds.fill('4');
  await rounds.press('Enter');
  await expect(page.getByText(/4 rounds prove nothing/)).toBeVisible();
  await rounds.fill('5');
  await rounds.press('Enter');
  await expect(page.getByText(/You need 5 of 5 right/)).toBeVisible();
  await page.getByRole('button', { name: /^Start/ }).click();
  await page.keyboard.press('3');
  await expect(page.getByRole('button', { name: /^X 3/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('a');
  // What X was before is not heard changing: it goes back to A.
  await expect(page.getByRole('heading', { name: /^Round 2 of 5/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^A 1/ })).toHaveAttribute('aria-pressed', 'true');
  for (const key of ['b', 'a', 'b', 'a']) await page.keyboard.press(key);
  const result = page.getByTestId('blind-result');
  await expect(result).toContainText(/^\d of 5 right\. Guessing does as well in [\d.]+ ?% of trials\./);
  const [right] = /^\d/.exec((await result.textContent())!)!;
  await expect(page.getByRole('cell', { name: `${right} of 5` })).toBeVisible();
  await expect
    .poll(async () => {
      const takes = await (await page.request.get(`${server.url}/api/takes`)).json();
      return takes.find((t: { id: string }) => t.id === RELAY_BACKUP).notes?.blind?.length;
    })
    .toBe(1);
  // The bench still looks for its marks as if nothing had been noted.
  await page.goto(`${server.url}/bench?takes=${RELAY_BACKUP}`);
  await expect(page.getByText(/claps? found/)).toBeVisible();
});

test('a page of a take that is not there says so, and the way to one', async ({ page, server }) => {
  for (const where of ['balance', 'try', 'blind']) {
    await page.goto(`${server.url}/bench/${where}?takes=7a4e0000-0000-4000-8000-00000000ffff`);
    await expect(page.getByText('One of these takes wasn’t saved.')).toBeVisible();
    await expect(page.getByRole('link', { name: /^Choose/ })).toBeVisible();
  }
});
