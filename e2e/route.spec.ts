import { AxeBuilder } from '@axe-core/playwright';
import { DEMO_RIG, expect, test } from './server.ts';

test('who hears what is walked, wanted, and opened by keyboard', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/route`);
  const table = page.getByRole('grid', { name: 'Who gets what' });
  await expect(table).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  // A want by one key, judged at once, kept over a reload.
  const cell = table.getByRole('gridcell', { name: /^Couch voices at Backup recorder/ });
  await cell.click();
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await page.keyboard.press('x');
  await expect(cell).toHaveAccessibleName(/must not; should not arrive/);
  await saved;
  await page.reload();
  await expect(cell).toHaveAccessibleName(/must not; should not arrive/);
  // From a sound that does not arrive to where it stops.
  await page.keyboard.press('w');
  const spare = table.getByRole('gridcell', { name: /^Couch game at Track 5, spare/ });
  await expect(spare).toHaveCount(0);
  await page.keyboard.press('w');
  await spare.click();
  const card = page.getByRole('complementary', { name: 'Source and destination' });
  await expect(card).toContainText('Where it stops');
  await card.getByRole('button', { name: 'Add to-do' }).click();
  await expect(spare).toHaveAccessibleName(/early|late|arrives/);
  await page.keyboard.press('Control+z');
  await expect(spare).toHaveAccessibleName(/not received/);
  // What mends a wrong pair is one press away.
  await table.getByRole('gridcell', { name: /^Couch game at Stream/ }).click();
  await card.getByRole('button', { name: 'Fixes' }).first().click();
  await expect(page.getByLabel('Issue', { exact: true })).toContainText('“Couch game” reaches “Stream” twice');
});

test('make it so: the fewest settings are found, shown on the table, put on the list, and taken back', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/route`);
  const twice = page.getByRole('gridcell', { name: /^Couch game at Stream: must; twice/ });
  await expect(twice).toBeVisible();
  // Stopped, it leaves nothing behind.
  await page.keyboard.press('s');
  await page.keyboard.press('Escape');
  const proposal = page.getByRole('region', { name: 'Suggested settings' });
  await expect(page.getByRole('button', { name: 'Suggest settings s' })).toBeVisible();
  await expect(proposal).toHaveCount(0);
  await page.keyboard.press('s');
  await expect(proposal).toContainText('3 settings would do it');
  await expect(proposal).toContainText('No smaller set of settings works');
  await expect(proposal).toContainText('“Ilse, on the call” no longer reaches “Ilse’s ears”');
  // The table shows what would be heard; nothing is changed yet.
  await expect(twice).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  const card = page.getByRole('complementary', { name: 'Source and destination' });
  await expect(card).toContainText('as suggested');
  await expect(card.getByRole('button', { name: 'Fixes' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(twice).toBeVisible();
  await expect(card).not.toContainText('as suggested');
  await page.keyboard.press('s');
  await expect(proposal).toBeVisible();
  await page.keyboard.press('d');
  await expect(page.getByRole('link', { name: /^To-do list ?3 to do$/ })).toBeVisible();
  await expect(twice).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(twice).toBeVisible();
});
