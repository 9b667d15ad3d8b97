import { readFileSync } from 'node:fs';
import { DEMO_RIG, expect, test, withIssues } from './server.ts';

test('a fault is found, its fix tried and put on the list, ticked, and taken back', async ({ page, server }) => {
  await withIssues(page);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/sync`);
  await page.getByRole('link', { name: 'Wire' }).click();
  const findings = page.getByRole('table', { name: 'Issues' });
  await findings.getByRole('button', { name: /^“Couch game” reaches “Stream” twice/ }).click();
  const card = page.getByLabel('Issue', { exact: true });
  await expect(card).toContainText('Mixer, Channels 5 and 6, fader: fully down');
  await expect(card).toContainText('Clears 3 issues, no new issues.');
  await card.getByRole('button', { name: /^Add to-do/ }).click();
  await expect(findings.getByRole('button', { name: /twice/ })).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^To-do list ?1 to do$/ })).toBeVisible();
  await page.keyboard.press('t');
  await page.getByRole('button', { name: /^Channels 5 and 6, fader/ }).click();
  await page.keyboard.press('d');
  await expect(page.getByRole('button', { name: /^Channels 5 and 6, fader/ })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(findings.getByRole('button', { name: /twice/ })).toHaveCount(2);
});

test('a lead’s length is corrected and kept; a lead too long is said with its limit', async ({ page, server }) => {
  await withIssues(page);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  const length = page.getByLabel('Length of the cable “Couch camera” → “Camera capture”, m');
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await length.fill('8');
  await length.press('Enter');
  const findings = page.getByRole('table', { name: 'Issues' });
  await expect(findings).toContainText('8 m');
  await saved;
  await page.reload();
  await expect(findings).toContainText('8 m');
});

test('leads go out as a table, come back corrected, and a bad row is reported', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Cables as CSV' }).click();
  const table = readFileSync((await (await download).path())!, 'utf8');
  const corrected = table.replace(
    'Couch camera,HDMI,Camera capture,HDMI in,cable,2,',
    'Couch camera,HDMI,Camera capture,HDMI in,cable,4,',
  );
  expect(corrected).not.toBe(table);
  await page.getByLabel('Cable table file').setInputFiles({
    name: 'leads.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`${corrected}99,nobody,a,Mixer,Channel 1,cable,1,confirmed\r\n`),
  });
  await expect(page.getByText(/rows read, 1 refused; undo removes them again/)).toBeVisible();
  await expect(page.getByText(/There is no device .nobody. in the rig/)).toBeVisible();
  const length = page.getByLabel('Length of the cable “Couch camera” → “Camera capture”, m');
  await expect(length).toHaveValue('4');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(length).toHaveValue('2');
  await page
    .getByLabel('Cable table file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\n1,2') });
  await expect(page.getByText(/The table has no column/)).toBeVisible();
  // Print is asked of the browser with the sheets in place, and nothing stays behind.
  await page.evaluate(() => {
    const w = window as unknown as { printed: string[] };
    w.printed = [];
    window.print = () => {
      const [sheet] = document.adoptedStyleSheets.slice(-1);
      w.printed.push(
        `${document.querySelectorAll('.print-sheets > svg').length} ${sheet?.cssRules[0]?.cssText} ${document.querySelector('.print-sheets')?.textContent}`,
      );
      window.dispatchEvent(new Event('afterprint'));
    };
  });
  for (const [sheets, name, holds, size] of [
    ['wiring sheet', 'Boathouse relay, wiring.svg', 'sheet 1 of 1', /size: letter;/],
    ['signal map', 'Boathouse relay, map.svg', 'Mixer', /size: letter landscape/],
  ] as const) {
    await page.getByLabel('Paper size').selectOption('letter');
    await page.getByLabel('Sheets').selectOption({ label: sheets });
    const paper = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as SVG' }).click();
    expect((await paper).suggestedFilename()).toBe(name);
    expect(readFileSync((await (await paper).path())!, 'utf8')).toContain(holds);
    await page.getByRole('button', { name: 'Print', exact: true }).click();
    const printed = await page.evaluate(() => (window as unknown as { printed: string[] }).printed.pop());
    expect(printed).toMatch(/^1 /);
    expect(printed).toMatch(size);
    expect(printed).toContain(holds);
    await expect(page.locator('.print-sheets')).toHaveCount(0);
  }
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('table', { name: 'Shopping list' })).toBeVisible();
  await expect(page.getByRole('navigation')).toBeHidden();
});
