import { expect, test } from './server.ts';

test('the tour is followed on a practice rig, over a reload, and leaves nothing behind', async ({ page, server }) => {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Take the tour' }).click();
  const tour = page.getByRole('region', { name: 'Tour' });
  const done = tour.getByRole('button', { name: 'Continue' });
  await expect(tour).toContainText('Tour, 1 of 7');
  await expect(page.getByRole('region', { name: 'Next', exact: true })).toContainText('Game console');
  await page.keyboard.press('Shift+Y');
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('j');
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await expect(tour).toContainText('Fix it');
  // An issue that has a fix at hand.
  const issue = page.getByRole('complementary', { name: 'Issue', exact: true });
  const settled = () => expect(issue).not.toContainText('Looking for fixes');
  const fix = issue.locator('.button', { has: page.locator('kbd', { hasText: /^y$/ }) });
  for (await settled(); !(await fix.isVisible()); await settled()) await page.keyboard.press('j');
  await page.keyboard.press('y');
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await page.getByRole('gridcell').nth(4).click();
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await expect(tour).toContainText('Tour, 5 of 7');
  const timing = page.getByRole('heading', { name: /^Timing at/ });
  await expect(timing).toBeVisible();
  await page.reload();
  await expect(tour).toContainText('Tour, 5 of 7');
  await expect(timing).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: 'Discard' })).toBeVisible();
  await page.keyboard.press('d');
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await page.getByText('couch clap.mp4').click();
  await expect(done).toBeVisible();

  await page.keyboard.press('Shift+C');
  await expect(page.getByTestId('run-step')).toBeVisible();
  await page.keyboard.press('d');
  await expect(done).toBeVisible();
  await page.keyboard.press('Shift+C');
  await expect(tour).toContainText('That’s the tour');

  // Begun again from the help, on a new practice rig; the one before is gone.
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help: Run' });
  await expect(help).toContainText('What do I do on the day');
  await help.getByRole('button', { name: 'Start the tour' }).click();
  await expect(tour).toContainText('Tour, 1 of 7');
  await tour.getByRole('button', { name: 'Leave the tour' }).click();
  await expect(tour).toBeHidden();
  await page.getByRole('link', { name: 'Mellow Tap' }).click();
  await expect(page.getByRole('link', { name: /^Practice rig/ })).toHaveCount(2);
});

test('what a page can do is found by its name from the search', async ({ page, server }) => {
  await page.goto(server.url);
  await expect(page.getByRole('row', { name: /Boathouse relay/ })).toBeVisible();
  await page.keyboard.press('/');
  const search = page.getByRole('dialog').getByRole('combobox');
  await expect(search).toBeFocused();
  await search.fill('back up everything');
  const download = page.waitForEvent('download');
  await page.getByRole('option', { name: /^Back up everything/ }).click();
  expect((await download).suggestedFilename()).toMatch(/\.zip$/);
});
