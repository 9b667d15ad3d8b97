import type { Page } from '@playwright/test';
import { DEMO_RIG, expect, test } from './server.ts';

/** What the bench reads of a slate that was handed on as it was made. */
async function readBack(page: Page, url: string, path: string): Promise<void> {
  await page.goto(`${url}/bench`);
  await page.getByLabel('Take file').setInputFiles(path);
  const row = page.getByTestId('slates').getByRole('row').nth(1);
  await expect(row).toContainText('number 3, 24 fps', { timeout: 120_000 });
  // Handed on as it was made: nothing is late, every picture is read, none was lost, no cell of it is a flash.
  await expect(row).toContainText('384 of 384');
  await expect(row).toContainText('0, 0, 0');
  await expect(row).toContainText('direct feed');
  const late = Number.parseFloat((await row.getByRole('cell').nth(1).textContent())!);
  expect(Math.abs(late)).toBeLessThan(3);
  await expect(page.getByText('0 flashes and 0 claps found.')).toBeVisible();
}

test('a slate is shown, made into a film, read back on the bench, and finds its place in the path test', async ({
  page,
  server,
}, info) => {
  test.setTimeout(420_000);
  await page.goto(`${server.url}/slate?rate=24&id=2`);
  const painted = () =>
    page
      .getByTestId('slate')
      .locator('canvas')
      .evaluate((c) => (c as HTMLCanvasElement).toDataURL().length);
  await expect.poll(painted).toBeGreaterThan(1000);
  const still = await page.getByTestId('slate').screenshot();
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByTestId('slate-latency')).toContainText('ms output latency');
  await expect
    .poll(async () => Buffer.compare(still, await page.getByTestId('slate').screenshot()), { timeout: 20_000 })
    .not.toBe(0);
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: /^Start/ })).toBeVisible();

  // As both kinds of file that consoles and players take; the last one goes on to the sync test.
  let path = '';
  for (const ending of ['webm', 'mp4']) {
    await page.goto(`${server.url}/slate?rate=24&id=2`);
    await page.getByLabel('File format').selectOption(ending);
    const made = page.waitForEvent('download', { timeout: 120_000 });
    await page.getByRole('button', { name: 'Video', exact: true }).click();
    const film = await made;
    expect(film.suggestedFilename()).toBe(`sync slate 3, 24 fps.${ending}`);
    path = info.outputPath(`console film.${ending}`);
    await film.saveAs(path);
    await readBack(page, server.url, path);
  }

  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  await page.getByRole('link', { name: 'Sync test' }).click();
  await page.getByLabel('Takes for the batch').setInputFiles(path);
  await page.getByRole('button', { name: /couch clap\.mp4/ }).click();
  const heap = page.getByTestId('heap');
  await expect(heap.getByText(/sync slate/)).toBeVisible({ timeout: 120_000 });
  await expect(heap.getByText(/4 claps/)).toBeVisible({ timeout: 60_000 });
  await page.getByLabel(/^Source of “console film/).selectOption('Couch game');
  await page.getByRole('button', { name: 'Add all 2 to the test' }).click();
  const table = page.getByTestId('path-test');
  await expect(table).toContainText('“Couch voices” at');
  await expect(table).toContainText('“Couch game” at');
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await table.getByRole('button', { name: 'Add to rig' }).first().click();
  await expect(table.getByText('in the rig')).toBeVisible();
  await saved;
  await page.reload();
  await expect(page.getByTestId('path-test').getByText('in the rig')).toBeVisible();
});
