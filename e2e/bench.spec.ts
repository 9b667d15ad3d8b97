import { readFileSync } from 'node:fs';
import { COUCH_CLAP, expect, RELAY_BACKUP, test } from './server.ts';

/** Truth of the couch clap, and half a frame: what two or four readings may be off by. */
const TRUTH_MS = 64.4;
const HALF_FRAME_MS = 8.34;

for (const container of ['webm', 'mkv', 'mov']) {
  test(`a ${container} is measured to half a frame`, async ({ page, server }) => {
    await page.goto(`${server.url}/bench`);
    await page.getByLabel('Take file').setInputFiles(`fixtures/clap.${container}`);
    await expect(page.getByText('2 flashes and 2 claps found.')).toBeVisible({ timeout: 60_000 });
    const said = await page
      .getByTestId('findings')
      .getByText(/ms late$/)
      .textContent();
    expect(Math.abs(Number.parseFloat(said!) - TRUTH_MS)).toBeLessThan(HALF_FRAME_MS);
  });
}

test('a file is dropped, marked by pointer, looked at closely, and laid beside another', async ({ page, server }) => {
  await page.goto(`${server.url}/bench`);
  await expect(page.getByText(/Drop a take here/)).toBeVisible();
  const bytes = readFileSync('demo/takes/couch-clap.mp4').toString('base64');
  const transfer = await page.evaluateHandle((base64) => {
    const data = new DataTransfer();
    const content = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    data.items.add(new File([content], 'dropped.mp4', { type: 'video/mp4' }));
    return data;
  }, bytes);
  await page.getByRole('main').dispatchEvent('drop', { dataTransfer: transfer });
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });

  const lanes = page.getByLabel('Takes over time');
  const flash = page.getByRole('slider', { name: /^Flash 1,/ });
  const atMs = async () => Number(await flash.getAttribute('aria-valuenow'));
  const before = await atMs();
  const box = (await flash.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 6);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + 6, { steps: 4 });
  await page.mouse.up();
  expect(await atMs()).toBeGreaterThan(before + 300);
  await flash.dblclick();
  await expect(page.getByRole('slider', { name: /^Flash 1, .*excluded/ })).toBeVisible();

  // Wheel and keys look closer and go along; the axis says so.
  const axis = () => lanes.locator('text').last().textContent();
  const whole = await axis();
  const area = (await lanes.boundingBox())!;
  await page.mouse.move(area.x + 300, area.y + 80);
  await page.mouse.wheel(0, -600);
  await expect.poll(axis).not.toBe(whole);
  await page.keyboard.press('0');
  await expect.poll(axis).toBe(whole);
  await page.keyboard.press('+');
  await expect.poll(axis).not.toBe(whole);
  await page.keyboard.press('ArrowRight');

  await page.getByRole('button', { name: 'couch clap, backup recorder.wav' }).click();
  await expect(page.getByTestId('findings').getByText(/ms (earlier|later)$/)).toBeVisible({ timeout: 60_000 });
});

test('frames around a mark are seen, and the right one is chosen', async ({ page, server }) => {
  await page.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  const flash = page.getByRole('slider', { name: /^Flash 1,/ });
  await flash.focus();
  const frames = page.getByRole('button', { name: /^Flash at 00:01\./ });
  await expect(frames).toHaveCount(5);
  // The lamp is in the right half of the picture: dark before the flash, lit from it on.
  const lamp = () =>
    page.locator('.frames canvas').evaluateAll((all) =>
      all.map((canvas) => {
        const { width, height } = canvas as HTMLCanvasElement;
        const at = (canvas as HTMLCanvasElement).getContext('2d')!;
        return at.getImageData(Math.round(width * 0.68), Math.round(height * 0.42), 1, 1).data[0]! > 128;
      }),
    );
  await expect.poll(lamp).toEqual([false, false, true, true, true]);
  await expect(frames.nth(2)).toHaveAttribute('aria-pressed', 'true');
  const before = Number(await flash.getAttribute('aria-valuenow'));
  await frames.nth(1).click();
  await expect.poll(async () => Number(await flash.getAttribute('aria-valuenow'))).toBeCloseTo(before - 1000 / 60, 0);
  // Walked on by keys, the strip follows.
  await flash.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(lamp).toEqual([false, true, true, true, true]);
  // Where nothing is marked, a frame makes a mark.
  const lanes = (await page.getByLabel('Takes over time').boundingBox())!;
  await page.mouse.click(lanes.x + 250, lanes.y + 70);
  await page
    .getByRole('button', { name: /^Mark a flash at/ })
    .first()
    .click();
  await expect(page.getByText('5 flashes and 4 claps found.')).toBeVisible();
});

test('work can be stopped and begun again', async ({ page, server }) => {
  await page.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/Stopped. Nothing changed/)).toBeVisible();
  await page.getByRole('button', { name: 'Start again' }).click();
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
});

test('marks set while the server is away outlive a reload, and are sent when it is back', async ({ page, server }) => {
  await page.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  await server.kill();
  await page.getByRole('slider', { name: /^Clap 2,/ }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/server isn’t responding/).first()).toBeVisible();
  await server.start();
  await page.reload();
  await expect(page.getByRole('slider', { name: /^Clap 2, .*excluded/ })).toBeVisible({ timeout: 60_000 });
  // Another browser sees them too: the server has them now.
  const other = await (await page.context().browser()!.newContext()).newPage();
  await expect(async () => {
    await other.goto(page.url());
    await expect(other.getByRole('slider', { name: /^Clap 2, .*excluded/ })).toBeVisible({ timeout: 15_000 });
  }).toPass({ timeout: 60_000 });
});

test('two windows mark one take: the second is asked, and may take theirs', async ({ page, server, context }) => {
  const other = await (await context.browser()!.newContext()).newPage();
  for (const window of [page, other]) {
    await window.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
    await expect(window.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  }
  const leaveOut = async (window: typeof page, clap: number) => {
    await window.getByRole('slider', { name: new RegExp(`^Clap ${clap},`) }).focus();
    await window.keyboard.press('Space');
  };
  const saved = page.waitForResponse((r) => r.url().endsWith('/notes') && r.ok());
  await leaveOut(page, 1);
  await saved;
  await leaveOut(other, 3);
  await expect(other.getByText(/Another window marked this take first\. Both/)).toBeVisible();
  await expect(other.getByRole('slider', { name: /^Clap 3, .*excluded/ })).toBeVisible();
  await other.getByRole('button', { name: 'Use the other version' }).click();
  await expect(other.getByRole('slider', { name: /^Clap 1, .*excluded/ })).toBeVisible();
  await expect(other.getByRole('slider', { name: /^Clap 3, .*excluded/ })).toHaveCount(0);
});

test('what the server acknowledged outlives kill -9; takes are whole or not there', async ({ server, request }) => {
  const take = (await (await request.get(`${server.url}/api/takes`)).json()).find(
    (t: { id: string }) => t.id === RELAY_BACKUP,
  );
  const marked = { flashes: [], claps: [{ atMs: 12.5, used: true, byHand: true }], frameMs: null, speaksOf: null };
  const noted = await request.put(`${server.url}/api/takes/${take.id}/notes`, {
    headers: { 'If-Match': `"${take.revision}"` },
    data: marked,
  });
  expect(noted.ok()).toBe(true);
  const id = crypto.randomUUID();
  const bytes = readFileSync('demo/takes/couch-clap.mp4');
  const put = await request.put(`${server.url}/api/takes/${id}?name=again.mp4`, {
    headers: { 'Content-Type': 'application/octet-stream' },
    data: bytes,
  });
  expect(put.status()).toBe(201);
  // Half a take: the connection breaks with the server.
  const half = crypto.randomUUID();
  const body = new ReadableStream({
    start(controller) {
      controller.enqueue(new Uint8Array(300_000));
    },
  });
  const broken = fetch(`${server.url}/api/takes/${half}?name=half.mp4`, {
    method: 'PUT',
    body,
    duplex: 'half',
    headers: { 'Content-Type': 'application/octet-stream' },
  } as RequestInit).catch(() => 'broken');
  await new Promise((resolve) => setTimeout(resolve, 300));
  await server.kill('SIGKILL');
  expect(await broken).toBe('broken');
  await server.start();
  const takes = await (await request.get(`${server.url}/api/takes`)).json();
  expect(takes.find((t: { id: string }) => t.id === take.id).notes).toEqual(marked);
  expect(takes.some((t: { id: string }) => t.id === half)).toBe(false);
  const content = await request.get(`${server.url}/api/takes/${id}/content`);
  expect(Buffer.compare(await content.body(), bytes)).toBe(0);
});

test('a region of the picture is marked by pointer, and its changes matched with the clicks in the sound', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?takes=${COUCH_CLAP}`);
  await expect(page.getByText('4 flashes and 4 claps found.')).toBeVisible({ timeout: 60_000 });
  await page.getByText('Menu clicks instead of claps').click();
  const picture = page.getByRole('img', { name: /^Region:/ });
  await expect(picture).toBeVisible();
  const box = (await picture.boundingBox())!;
  await page.mouse.move(box.x + 0.58 * box.width, box.y + 0.28 * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.78 * box.width, box.y + 0.56 * box.height, { steps: 5 });
  await page.mouse.up();
  await expect(picture).toHaveAccessibleName(/left 58%, top 28%, width 20%, height 28%/);
  await page.getByRole('button', { name: 'Match clicks' }).click();
  await expect(page.getByText(/of 4 changes have their click/)).toBeVisible({ timeout: 60_000 });
  const said = await page
    .getByTestId('findings')
    .getByText(/ms late$/)
    .textContent();
  expect(Math.abs(Number.parseFloat(said!) - TRUTH_MS)).toBeLessThan(HALF_FRAME_MS);
});
