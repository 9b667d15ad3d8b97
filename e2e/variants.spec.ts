import { DEMO_RIG, expect, test } from './server.ts';

test('a variant is made, changed, and laid beside the rig that it came from', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  await expect(page.getByRole('region', { name: 'Points of failure' })).toContainText(
    /\d+ things can fail: \d+ devices/,
  );
  await page.getByRole('link', { name: 'Compare' }).click();
  await expect(page.getByRole('heading', { name: 'Compare' })).toBeVisible();
  await page.keyboard.press('v');
  const figures = page.getByRole('table', { name: 'In figures' });
  await expect(figures.getByRole('row', { name: /^Cables/ })).toContainText('same');
  await page.getByRole('button', { name: 'Open “Boathouse relay, variant B”' }).click();
  await page
    .getByRole('application')
    .getByRole('button', { name: /^Camera capture, / })
    .click();
  await page.getByLabel('Tap point', { exact: true }).getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('link', { name: 'Compare' }).click();
  const boxes = page.getByRole('region', { name: 'Devices and apps' });
  await expect(boxes).toContainText('Only in Boathouse relay');
  await expect(boxes).toContainText('Camera capture');
  await expect(figures.getByRole('row', { name: /^Devices/ })).toContainText('variant B');
  await page.getByRole('button', { name: 'Open “Boathouse relay”', exact: true }).click();
  await expect(page.getByRole('application').getByRole('button', { name: /^Camera capture, / })).toBeVisible();
});
