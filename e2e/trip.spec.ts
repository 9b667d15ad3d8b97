import { expect, test } from './server.ts';

test('a round trip is timed over the stand-in loop, silent until it is turned up', async ({ page, server }) => {
  await page.goto(`${server.url}/bench`);
  await page.getByRole('link', { name: 'Measure round-trip latency' }).click();
  await page.getByLabel('Return input').selectOption('stand-in');
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByText(/Nothing detected yet/)).toBeVisible();
  await expect(page.getByTestId('round-trip')).toHaveCount(0);
  const level = page.getByRole('slider', { name: 'Listening level, dB' });
  await level.focus();
  for (let tens = 0; tens < 4; tens++) await page.keyboard.press('Shift+ArrowRight');
  await expect(level).toHaveAttribute('aria-valuetext', '−20 dB');
  await expect(page.getByRole('button', { name: /^Start/ })).toBeVisible({ timeout: 120_000 });
  const row = page.getByTestId('round-trip').getByRole('row').nth(1);
  const ms = Number.parseFloat((await row.getByRole('cell').first().textContent())!);
  expect(Math.abs(ms - 48.3)).toBeLessThan(0.2);
  expect(Number(((await row.getByRole('cell').nth(1).textContent()) ?? '').slice(1))).toBeLessThan(0.1);
  await expect(row.getByRole('cell').nth(4)).toHaveText(/^20/);
  await expect(row).toContainText('output ');
});
