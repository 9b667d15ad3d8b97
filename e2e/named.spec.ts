import { expect, test } from './server.ts';

const [executablePath, args] = [process.env.CHROMIUM ?? '/usr/bin/chromium', ['--no-sandbox', '--disable-gpu']];
test.use({
  launchOptions: {
    executablePath,
    args: [...args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  },
});

test('devices that the browser names come to the desk, plugged in, once one has given leave', async ({
  page,
  server,
}) => {
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByText('No devices yet.')).toBeVisible();
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'What this computer lists' }).click();
  const dialog = page.getByRole('dialog');
  const ask = dialog.getByRole('button', { name: 'List my devices' });
  const add = dialog.getByRole('button', { name: /^Add \d+ device/ });
  await expect(ask.or(add)).toBeVisible();
  if (await ask.isVisible()) await ask.click();
  await expect(add).toBeVisible();
  const first = dialog.getByRole('combobox').first();
  await first.selectOption({ label: 'Headset, USB' });
  await add.click();
  const map = page.getByRole('application');
  await expect(map.getByRole('button', { name: /, Computer, laptop/ })).toBeVisible();
  await expect(map.getByRole('button', { name: /, Headset, USB/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled();
});
