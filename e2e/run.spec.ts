import { readFileSync } from 'node:fs';
import { rigOnPhone } from './network.ts';
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
  const done = (n: number) => expect(page.getByText(`${n} of ${all} done`)).toBeVisible();
  for (let n = 0; n < 5; n++) await page.keyboard.press('d');
  await done(5);
  await page.keyboard.press('b');
  await done(4);
  await server.kill();
  await page.keyboard.press('d');
  await done(5);
  await expect(page.getByText(/The server isn’t responding: \d+ kept here/)).toBeVisible();
  await page.reload().catch(() => undefined);
  await server.start();
  // A browser tries a page that did not load again by itself, and may be at it.
  await expect(() => page.goto(`${server.url}/rigs/${DEMO_RIG}/run`)).toPass();
  await done(5);

  await page.setViewportSize({ width: 390, height: 800 });
  await expect(page.getByRole('button', { name: /^Done/ })).toBeInViewport();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(wide).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: /Skip/ }).click();
  await page.getByLabel('Reason for skipping').fill('borrowed');
  await page.keyboard.press('Enter');
  await expect(list.getByText('Skipped: borrowed.')).toBeVisible();
  await page.getByLabel('Which list').selectOption('Shut down');
  await expect(page.getByText(/^0 of \d+ done/)).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Markdown' }).click();
  expect(readFileSync((await (await saved).path())!, 'utf8')).toMatch(/^# Boathouse relay: Shut down/);
});

test('the day: checks to go, what may run out, markers, a trouble found, and all of it in the log', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/run?view=checks`);
  const verdict = page.getByLabel('Go or no go');
  await expect(verdict).toContainText('No go yet');
  await page.keyboard.press('x');
  await expect(verdict).toContainText('1 check failed');
  await page.getByRole('button', { name: 'Resources' }).click();
  await page.getByLabel(/Backup recorder.*: free, GB/).fill('5');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Backup recorder/ })).toContainText('before the end');
  await page.getByRole('button', { name: 'Live' }).click();
  await expect(page.getByTestId('run-clock')).toBeVisible();
  await page.keyboard.press('m');
  await expect(page.getByLabel('Markers').getByRole('listitem')).toHaveCount(1);
  await page.keyboard.press('n');
  await page.keyboard.type('lap record');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Markers').getByRole('listitem')).toHaveCount(2);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Chapters, WebVTT' }).click();
  expect(readFileSync((await (await saved).path())!, 'utf8')).toMatch(/^WEBVTT\n[\s\S]*lap record/);

  // One key from anywhere: what is heard, and where to look first.
  await page.keyboard.press('!');
  await expect(page).toHaveURL(/\/trouble$/);
  await page.getByLabel('Destination').selectOption('Backup recorder');
  await page.getByLabel('Source').selectOption('Wren, voice');
  await page.getByRole('button', { name: /Report problem/ }).click();
  const look = page.getByTestId('next-look');
  await expect(look).toContainText('“Mixer”, Channel 1');
  await page.reload();
  await expect(look).toContainText('“Mixer”, Channel 1');
  await page.keyboard.press('1');
  await expect(page.getByTestId('found')).toContainText(/A plug of the cable .*Wren’s microphone/);
  await page.keyboard.press('y');
  await expect(page.getByRole('button', { name: /Report problem/ })).toBeVisible();

  await page.getByRole('link', { name: 'Run' }).click();
  await page.getByRole('button', { name: 'End session' }).click();
  await page.getByLabel('What to remember').fill('spare lead in the box');
  await page.getByRole('button', { name: 'End: it went well' }).click();
  await page.getByRole('link', { name: 'Log' }).click();
  await expect(page.getByText('The drawing is the same as then.')).toBeVisible();
  await page.getByLabel('Search the log').fill('spare lead');
  await expect(page.getByText('1 of 25 match')).toBeVisible();
  await page.locator('.log-list .collapsible__trigger').first().click();
  await expect(page.locator('.log-facts')).toContainText(
    '“Wren, voice” at “Backup recorder”: not heard. Cause: A plug',
  );
  await expect(page.locator('.log-facts')).toContainText('lap record');
  await expect(page.getByLabel('Figures over time')).toContainText('has changed up by more than chance');
});

const CUT_OFF_MS = 60_000;
test('a phone on the network: in by a code once, ticks beside the desk while the server is killed twice and the phone is cut off', async ({
  page,
  server,
  network,
  context,
}) => {
  await server.kill();
  await server.start(network.lan);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/run?view=phone`);
  const { url: door, code } = await network.door(page);

  const hand = await context
    .browser()!
    .newContext({ ...network.options, viewport: { width: 390, height: 780 }, hasTouch: true });
  const phone = await hand.newPage();
  await phone.goto(door);
  // By such an address a browser withholds what it gives to pages that are safe.
  expect(await phone.evaluate(() => window.isSecureContext)).toBe(false);
  await phone.getByLabel('Code').fill('AAAA-AAAA');
  await phone.getByRole('button', { name: 'Open' }).click();
  await expect(phone.getByRole('alert')).toContainText('not the code');
  await phone.goto('about:blank');
  await phone.goto(`${door}#${code}`);
  await phone.getByRole('link', { name: 'Boathouse relay', exact: true }).click();
  expect(phone.url()).not.toContain(code);
  const other = await context.browser()!.newContext(network.options);
  const stranger = await other.newPage();
  await stranger.goto(`${door}#${code}`);
  await expect(stranger.getByRole('alert')).toContainText('used already');
  await other.close();

  await page.getByRole('button', { name: 'Steps' }).click();
  // The relay went well before: what changed since is shown first.
  for (const screen of [page, phone]) await screen.getByLabel('Which list').selectOption('Full setup, from scratch');
  await expect(page.getByTestId('run-step')).toBeVisible();
  const list = page.getByRole('list', { name: 'All steps' });
  await expect.poll(() => list.getByRole('listitem').count()).toBeGreaterThan(30);
  const all = await list.getByRole('listitem').count();
  const count = async (of: typeof page) =>
    Number(/^(\d+) of/.exec((await of.getByText(/^\d+ of \d+ done/).textContent())!)![1]);
  const done = phone.getByRole('button', { name: /^Done/ });
  const tickBoth = async (times: number) => {
    for (let n = 0; n < times; n++) {
      await page.keyboard.press('d');
      await done.click();
    }
  };
  await tickBoth(5);
  await server.kill();
  await tickBoth(5);
  await server.start(network.lan);
  await expect(page.getByText(/kept here/)).toBeHidden();
  await expect(phone.getByText(/kept here/)).toBeHidden();
  await expect.poll(async () => (await count(phone)) - (await count(page))).toBe(0);
  await hand.setOffline(true);
  for (let n = 0; n < 10; n++) await done.click();
  for (let n = 0; n < 20; n++) await page.keyboard.press('d');
  await server.kill();
  await page.keyboard.press('d');
  await server.start(network.lan);
  await page.waitForTimeout(CUT_OFF_MS);
  await hand.setOffline(false);
  await expect(phone.getByText(/kept here/)).toBeHidden();
  await expect(page.getByText(/kept here/)).toBeHidden();
  await expect.poll(async () => (await count(phone)) - (await count(page))).toBe(0);
  while ((await count(page)) < all) await page.keyboard.press('d');
  await expect.poll(() => count(phone)).toBe(all);
  for (const screen of [page, phone]) await screen.getByLabel('Which list').selectOption('Shut down');
  await tickBoth(15);
  await expect.poll(async () => (await count(phone)) - (await count(page))).toBe(0);

  const told: { kind: string; list?: string; itemId?: string; id: string }[] = [];
  for (let after = 0, more = true; more; ) {
    const got = await (await page.request.get(`${server.url}/api/rigs/${DEMO_RIG}/day?after=${after}`)).json();
    told.push(...got.events);
    after = got.seq;
    more = got.more;
  }
  const ticked = told.filter((e) => e.kind === 'tick');
  expect(new Set(ticked.filter((e) => e.list === 'first').map((e) => e.itemId)).size).toBe(all);
  expect(new Set(ticked.map((e) => `${e.list} ${e.itemId}`)).size).toBeGreaterThanOrEqual(all + 15);
  expect(new Set(told.map((e) => e.id)).size).toBe(told.length);
  await hand.close();
});

test('a question is answered where one stands: on the phone, and the desk has it, cut off in between too', async ({
  page,
  server,
  network,
}) => {
  await server.kill();
  await server.start(network.lan);
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/run?view=phone`);
  const { phone, hand } = await rigOnPhone(page, network, 'Boathouse relay');
  await phone.getByRole('button', { name: 'Next steps' }).click();
  // Every question of the plan has its answers there; what is done at the computer has no button.
  const answers = phone.getByRole('button', { name: /^Yes, that’s right: / });
  await expect(answers.first()).toBeVisible({ timeout: 60_000 });
  const asked = await answers.count();
  const confirmed = async () => /(\d+) of \d+ confirmed/.exec((await page.locator('.frame-rests').textContent())!)![1];
  const before = Number(await confirmed());
  const started = Date.now();
  await answers.first().click();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled();
  test.info().annotations.push({ type: 'phone to desk', description: `${Date.now() - started} ms` });
  await expect.poll(async () => Number(await confirmed())).toBeGreaterThan(before);
  // And the phone has the rig as it is then: it is not asked again.
  await expect(answers).toHaveCount(asked - 1);

  await hand.setOffline(true);
  await answers.first().click();
  await expect(phone.getByText('It’s sent when the computer can be reached')).toBeVisible();
  const cutOff = Number(await confirmed());
  await hand.setOffline(false);
  await expect.poll(async () => Number(await confirmed())).toBeGreaterThan(cutOff);
  // Undone at the desk it stays undone, and is asked on the phone again.
  await page.keyboard.press('Control+z');
  await expect(answers).toHaveCount(asked - 1);
  await page.waitForTimeout(2500);
  expect(Number(await confirmed())).toBe(cutOff);
  await hand.close();
});

test('an archive goes out, comes back beside, and a cut one is refused with what is missing', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/log`);
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'include all takes in Measure' }).click();
  const archive = (await (await saved).path())!;
  await page.goto(server.url);
  await page
    .getByLabel('Rig file')
    .setInputFiles({ name: 'relay.zip', mimeType: 'application/zip', buffer: readFileSync(archive) });
  await expect(page.getByText(/“Boathouse relay” restored, with \d+ takes and its log\./)).toBeVisible();
  const cut = readFileSync(archive);
  await page
    .getByLabel('Rig file')
    .setInputFiles({ name: 'cut.zip', mimeType: 'application/zip', buffer: cut.subarray(0, cut.length * 0.7) });
  await expect(page.getByText(/The archive is cut: takes\/.* missing or not whole/)).toBeVisible();
});

test('ways to build it are drawn, weighed, and one becomes a rig', async ({ page, server }) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/ways`);
  const rows = page.getByRole('table', { name: 'Alternatives' }).getByRole('row');
  await expect(rows).toHaveCount(15);
  await expect(rows.nth(1)).toContainText('Your rig as it is');
  await page.getByRole('button', { name: 'Digital mixer that is its own interface' }).click();
  await expect(page.getByLabel('Selected alternative')).toContainText('Meets the whole plan.');
  await page.keyboard.press('r');
  await expect(page.getByText('Boathouse relay: Digital mixer that is its own interface')).toBeVisible();
});
