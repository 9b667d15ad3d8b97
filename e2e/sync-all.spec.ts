import { DEMO_RIG, expect, test } from './server.ts';

test('all listeners are put right at once, with a proof; tracks may be slipped in the edit instead', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  await expect(page.getByRole('button', { name: /^Couch voices:/ })).toBeVisible();
  await page.keyboard.press('a');
  await expect(page.getByRole('heading', { name: 'Timing at all destinations' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Timing at “Stream”' })).toContainText('late');
  await page.keyboard.press('p');
  await expect(page.getByTestId('all-aligned')).toContainText('All within tolerance.');
  await expect(page.getByTestId('all-aligned')).toContainText('(proven)');
  const proposed = page.getByRole('table', { name: 'Suggested settings' });
  await expect(
    proposed.getByRole('row', { name: /Streaming software Input 4, video delay 0 ms 168 ms/ }),
  ).toBeVisible();
  await page.keyboard.press('d');
  await expect(page.getByRole('link', { name: /^To-do list ?[1-9] to do$/ })).toBeVisible();
  await expect(proposed).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^To-do list$/ })).toBeVisible();
  // The other school: fewer delays, and a list for the edit.
  await page.getByLabel('Recorded tracks').selectOption('edit');
  await page.getByRole('button', { name: /Suggest delays for all destinations/ }).click();
  await expect(page.getByTestId('all-aligned')).toContainText('(proven)');
  const slips = page.getByRole('table', { name: 'To move in the edit' });
  await expect(slips.getByRole('row', { name: /^Track 3, couch Couch voices/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Track 3, couch' })).toContainText('corrected in the edit');
  // One listener again, by the list.
  await page.getByLabel('Destination').selectOption('stream');
  await expect(page.getByRole('heading', { name: /Timing at “Stream”/ })).toBeVisible();
});
