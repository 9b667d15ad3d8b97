import { DEMO_RIG, expect, test } from './server.ts';

test('the order is gone through by one key, kept through a reload and a lost server, and read on a phone', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  await page.getByRole('link', { name: 'Run' }).click();
  const now = page.getByTestId('run-step');
  await expect(now).toContainText('all the way down');
  const list = page.getByRole('list', { name: 'All steps' });
  const all = await list.getByRole('listitem').count();
  for (let n = 0; n < 5; n++) await page.keyboard.press('d');
  await expect(page.getByRole('status')).toContainText(`5 of ${all} done`);
  await page.keyboard.press('b');
  await expect(page.getByRole('status')).toContainText(`4 of ${all} done`);
  await server.kill();
  await page.keyboard.press('d');
  await expect(page.getByRole('status')).toContainText(`5 of ${all} done`);
  await server.start();
  await page.reload();
  await expect(page.getByRole('status')).toContainText(`5 of ${all} done`);

  await page.setViewportSize({ width: 390, height: 800 });
  await expect(page.getByRole('button', { name: /^Done/ })).toBeInViewport();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: /^Leave it out/ }).click();
  await page.getByLabel('Why it is left out').fill('borrowed');
  await page.keyboard.press('Enter');
  await expect(list.getByText('Left out: borrowed.')).toBeVisible();
  await page.getByLabel('Which order').selectOption('The way down');
  await expect(page.getByRole('status')).toContainText('0 of');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: /Markdown/ }).click();
  expect((await saved).suggestedFilename()).toMatch(/The way down\.md$/);
});
