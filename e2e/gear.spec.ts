import { readFileSync } from 'node:fs';
import { DEMO_RIG, expect, test, withIssues } from './server.ts';

test('gear is looked into, copied, kept, exported, and used in the rig like any other', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/gear`);
  const search = page.getByRole('combobox', { name: 'Search device types' });
  await search.fill('sound extractor');
  await search.press('Enter');
  await expect(page.getByRole('heading', { name: 'HDMI audio extractor' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Inside of “HDMI audio extractor”' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Paths inside' })).toContainText(
    'through the extractor: 0, 0, 1 ms (typical)',
  );
  await page.getByRole('button', { name: 'Copy and edit' }).click();
  await page.getByLabel('Name of the type').fill('Club extractor');
  await page.getByLabel('Connector of line').selectOption('phono-pair');
  await expect(page.getByText('It works like a built-in type.')).toBeVisible();
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await page.getByRole('button', { name: 'Save' }).click();
  await saved;
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Club extractor' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export JSON' }).click();
  const type = JSON.parse(readFileSync((await (await download).path())!, 'utf8'));
  expect(type).toMatchObject({ id: 'own-hdmi-extractor', name: 'Club extractor' });

  // A second copy comes back from the file; a broken one is refused and nothing is lost.
  await page.getByLabel('Device type file').setInputFiles({
    name: 'second.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ ...type, id: 'second', name: 'Second extractor' })),
  });
  await expect(page.getByText('“Second extractor” was added; undo removes it.')).toBeVisible();
  await page.getByLabel('Device type file').setInputFiles({
    name: 'broken.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({ ...type, ports: type.ports.map((p: object) => ({ ...p, connector: 'teapot' })) }),
    ),
  });
  await expect(page.getByText(/broken.json.? was not imported.*no connector is called .teapot./)).toBeVisible();

  await page.getByRole('link', { name: 'Wire' }).click();
  await expect(page.getByRole('application')).toBeVisible();
  await page.keyboard.press('a');
  await page.getByRole('combobox', { name: 'Device or chain' }).fill('club extractor');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('application').getByRole('button', { name: /^Club extractor, / })).toBeVisible();
});

test('the map is zoomed, shown by kind, and one source or listener drawn alone', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire`);
  const map = page.getByRole('application');
  const widthOf = async () => (await map.getByRole('button', { name: /^Mixer, / }).boundingBox())!.width;
  await map.focus();
  await page.keyboard.press('0');
  // Once the page beside it has its width, the map keeps its own.
  let fitted = 0;
  await expect(async () => {
    const before = fitted;
    fitted = await widthOf();
    expect(fitted).toBe(before);
  }).toPass();
  await page.keyboard.press('+');
  await expect(async () => expect(await widthOf()).toBeGreaterThan(fitted * 1.1)).toPass();
  await page.keyboard.press('0');
  await expect(async () => expect(await widthOf()).toBeCloseTo(fitted, 0)).toPass();
  const box = (await map.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.wheel(0, -200);
  await expect(async () => expect(await widthOf()).toBeGreaterThan(fitted * 1.1)).toPass();
  await page.getByRole('button', { name: 'Fit' }).click();

  await page.getByLabel('Layer shown').selectOption('usb');
  await expect(map.getByRole('button', { name: /^Camera capture, / })).toBeVisible();
  await expect(map.getByRole('button', { name: /^Wren’s microphone, / })).toHaveCount(0);
  await page.getByLabel('Layer shown').selectOption('all');
  await page.getByLabel('Source shown alone').selectOption('jingles');
  await expect(map.getByRole('button', { name: /^Ambrose’s phone → Mixer/ })).toHaveAttribute('opacity', '1');
  await expect(map.getByRole('button', { name: /^Camera capture → Desk computer/ })).toHaveAttribute('opacity', '0.2');
});

test('an EDID is read from a file into a screen, a damaged one refused with its byte', async ({ page, server }) => {
  await withIssues(page);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire?tap=big-screen.hdmi`);
  await page.getByRole('button', { name: 'Read an EDID' }).click();
  // One block with the header, one old timing (640 x 480 at 60), and the sum that makes it whole.
  const bytes = Buffer.alloc(128);
  Buffer.from([0, 255, 255, 255, 255, 255, 255, 0]).copy(bytes);
  bytes[18] = 1;
  bytes[19] = 4;
  bytes[20] = 0x80;
  bytes[35] = 0x20;
  for (let i = 38; i < 54; i++) bytes[i] = 1;
  bytes[127] = (256 - (bytes.reduce((a, b) => a + b, 0) % 256)) % 256;
  const damaged = Buffer.from(bytes);
  damaged[60] = 9;
  const choose = (buffer: Buffer) =>
    page.getByLabel('EDID file').setInputFiles({ name: 'screen.bin', mimeType: 'application/octet-stream', buffer });
  await choose(damaged);
  await expect(page.getByText(/corrupt.*\(byte 127\)/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await choose(bytes);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByLabel('Tap point', { exact: true })).toContainText('1 mode');
  await expect(page.getByRole('table', { name: 'Issues' })).toContainText('3840 × 2160');
});

test('a photograph is kept with a box, and shown where one looks at it', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire?tap=mixer.strip-1`);
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await page.getByLabel('Photo of “Mixer”').setInputFiles('docs/screenshots/wire.png');
  const photo = page.getByRole('button', { name: 'wire', exact: true });
  await expect(photo).toBeVisible();
  await saved;
  await page.reload();
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/desk`);
  await page.getByRole('button', { name: /^“Channels 9 and 10, input”/ }).click();
  await photo.click();
  const large = page.getByRole('dialog').getByRole('img', { name: /Mixer.*: wire/ });
  await expect(large).toBeVisible();
  expect(await large.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1280);
});
