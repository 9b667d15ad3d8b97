import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_RIG, expect, test, withIssues } from './server.ts';

test('an earlier version is looked at and brought back as one step, and undone', async ({ page, server }) => {
  await withIssues(page);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  const findings = page.getByRole('table', { name: 'Issues' });
  await findings.getByRole('button', { name: /^“Couch game” reaches “Stream” twice/ }).click();
  await page
    .getByLabel('Issue', { exact: true })
    .getByRole('button', { name: /^Add to-do/ })
    .first()
    .click();
  await expect(page.getByText('Rig, saved')).toBeVisible();
  await page.getByRole('link', { name: 'Versions' }).click();
  const versions = page.getByRole('table', { name: 'Versions' });
  await expect(versions.getByRole('row', { name: /Channels 5 and 6, fader: fully down/ })).toContainText('now');
  await versions
    .getByRole('row', { name: /First version kept/ })
    .getByRole('button', { name: 'Look' })
    .click();
  const look = page.getByRole('region', { name: 'Version' });
  await expect(look.getByRole('img', { name: /^Map of “Boathouse relay”/ })).toBeVisible();
  await look.getByRole('button', { name: 'Bring back this version' }).click();
  await expect(versions.getByRole('row', { name: /^.*Bring back the version of/ })).toContainText('now');
  await expect(page.getByRole('link', { name: /^To-do list$/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^To-do list ?1 to do$/ })).toBeVisible();
});

test('everything goes into one file, and comes back after it was deleted, looked at before', async ({
  page,
  server,
}) => {
  await page.goto(server.url);
  const backup = page.getByRole('region', { name: 'Backup' });
  const download = page.waitForEvent('download');
  await backup.getByRole('button', { name: 'Back up everything' }).click();
  const path = await (await download).path();
  expect(readFileSync(path).subarray(0, 2).toString()).toBe('PK');
  await page
    .getByRole('row', { name: /Moth night/ })
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect(page.getByText('“Moth night” deleted.')).toBeVisible();
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    backup.getByRole('button', { name: 'Restore' }).click(),
  ]);
  await chooser.setFiles({ name: 'desk.zip', mimeType: 'application/zip', buffer: readFileSync(path) });
  const dialog = page.getByRole('dialog', { name: 'Restore this backup?' });
  await expect(dialog).toContainText('Brings back 1 deleted rig.');
  await expect(dialog).toContainText('7 rigs are the same already.');
  await dialog.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByText(/Restored\. Brings back/)).toBeVisible();
  await expect(page.getByRole('row', { name: /Moth night/ })).toContainText('to fix');
});

test('a rig that cannot be read spoils no list: it is downloaded, and an earlier version brought back', async ({
  page,
  server,
}) => {
  await server.tamper(`UPDATE rigs SET document = '{ no json' WHERE id = '${DEMO_RIG}'`);
  await page.goto(server.url);
  const row = page.getByRole('row', { name: /Boathouse relay/ });
  await expect(row).toContainText('can’t be read');
  await expect(page.getByRole('row', { name: /Clay hour/ })).toContainText('to fix');
  await row.getByRole('link', { name: 'Earlier versions' }).click();
  await page.getByRole('button', { name: 'Look' }).last().click();
  await page.getByRole('button', { name: 'Bring back this version' }).click();
  await expect(page.getByText('Rig, saved')).toBeVisible();
  await page.goto(server.url);
  await expect(page.getByRole('row', { name: /Boathouse relay/ })).toContainText('to fix');
});

test('files without a take are found again, added, and only deleted when asked twice', async ({ page, server }) => {
  for (const letter of ['a', 'b']) writeFileSync(join(server.data, 'takes', letter.repeat(64)), 'RIFF....WAVEfmt ');
  await page.goto(`${server.url}/bench`);
  const found = page.getByRole('region', { name: 'Found again' });
  await found
    .getByRole('row', { name: /aaaaaaaa/ })
    .getByRole('button', { name: 'Add to takes' })
    .click();
  await expect(page.getByRole('button', { name: 'Found aaaaaaaa.wav' })).toBeVisible();
  const other = found.getByRole('row', { name: /bbbbbbbb/ });
  await other.getByRole('button', { name: 'Delete' }).click();
  await other.getByRole('button', { name: 'Delete file' }).click();
  await expect(found).toHaveCount(0);
});
