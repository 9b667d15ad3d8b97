import type { Page } from '@playwright/test';
import { DEMO_RIG, expect, leaveByEscape, test } from './server.ts';

/** What has the focus, as a reader of the screen names it; null where nothing has. */
const focused = (page: Page): Promise<string | null> =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (!at || at === document.body) return null;
    return at.getAttribute('aria-label') ?? (at.id || at.textContent!.trim().slice(0, 60));
  });

/** Whether what has the focus is drawn, in sight, and shows that it has it. */
const isSeen = (page: Page): Promise<boolean> =>
  page.evaluate(() => {
    const at = document.activeElement!;
    const box = at.getBoundingClientRect();
    const isThere = box.width > 0 && box.height > 0 && box.bottom > 0 && box.top < innerHeight && box.right > 0;
    return isThere && box.left < innerWidth;
  });

async function expectFocus(page: Page, what: string): Promise<void> {
  await expect.poll(() => focused(page), what).not.toBeNull();
  // It stays: what the page draws a moment later may take its control away, and then another has it.
  await page.waitForTimeout(150);
  await expect.poll(() => focused(page), what).not.toBeNull();
  expect(await isSeen(page), `${what}: ${await focused(page)}`).toBe(true);
}

test('the focus goes where work goes on: after adding, plugging, a fix, an answer, a tick, removing and opening', async ({
  page,
  server,
}) => {
  const rig = `${server.url}/rigs/${DEMO_RIG}`;
  await page.goto(`${rig}/wire`);
  await expect(page.getByRole('application')).toBeVisible();

  // Added by keyboard: the focus is where the next one is added.
  await page.getByRole('button', { name: /^Add device/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('dynamic');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('button', { name: /^Add device/ })).toBeFocused();

  // Plugged.
  await page.keyboard.press('p');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('combobox')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('combobox', { name: 'To' })).toBeFocused();
  await page.keyboard.press('Enter');
  await dialog.getByRole('button', { name: /^Already done/ }).focus();
  await page.keyboard.press('Enter');
  await expect(dialog).toBeHidden();
  await expectFocus(page, 'plugged');

  // A fix by its button: the issue goes, and with it the button.
  await page.goto(`${rig}/wire`);
  const issue = page.getByRole('complementary', { name: 'Issue', exact: true });
  const fix = issue.getByRole('button', { name: /^Already done/ }).first();
  await fix.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled();
  await expectFocus(page, 'fixed');
  // Undone by its button until nothing is left to undo.
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  await undo.focus();
  for (let i = 0; i < 12 && (await undo.isEnabled()); i++) await page.keyboard.press('Enter');
  await expectFocus(page, 'undone');

  // The next step, done by its button again and again: the focus stays at the next.
  const next = page.getByRole('region', { name: 'Next', exact: true });
  await next.getByRole('button', { name: /Already done/ }).focus();
  for (let i = 0; i < 3; i++) {
    const was = await next.locator('.next-says').textContent();
    await page.keyboard.press('Enter');
    await expect(next.locator('.next-says')).not.toHaveText(was!);
    await expect.poll(() => next.evaluate((node) => node.contains(document.activeElement))).toBe(true);
  }

  // An answer, and a tick.
  await page.goto(`${rig}/desk`);
  const card = page.getByRole('complementary', { name: 'To check' });
  await card.getByRole('button').first().focus();
  await page.keyboard.press('Enter');
  await expectFocus(page, 'answered');

  // A cable is confirmed in its list, and then the one after it has the focus; then a device is removed in its panel.
  await page.goto(`${rig}/wire`);
  await page
    .getByRole('button', { name: /^Confirm/ })
    .first()
    .focus();
  await page.keyboard.press('Enter');
  await expectFocus(page, 'confirmed');
  await page.goto(`${rig}/wire?tap=big-screen.hdmi`);
  const panel = page.getByRole('complementary', { name: 'Tap point', exact: true });
  await panel
    .getByRole('button', { name: /^Remove/ })
    .first()
    .focus();
  await page.keyboard.press('Enter');
  await expectFocus(page, 'removed');

  // Opened from a list: the page is there, and the keys scroll it.
  await page.goto(server.url);
  const link = page.getByRole('row', { name: /Clay hour/ }).getByRole('link');
  await link.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Verdict' })).toBeVisible();
  await expectFocus(page, 'opened');
  expect(await focused(page)).toBe('page');

  // Deleted from the list of rigs.
  await page.goto(server.url);
  const moth = page.getByRole('row', { name: /Moth night/ });
  await moth.getByRole('button', { name: /^Delete/ }).focus();
  await page.keyboard.press('Enter');
  await expect(moth).toBeHidden();
  await expectFocus(page, 'deleted');
});

test('by keys alone through all views and back to the first page', async ({ page, server }) => {
  await page.goto(server.url);
  await expect(page.getByRole('row', { name: /Boathouse relay/ })).toBeVisible();
  // The page has the focus at once; before it are the stages, and the link over them all leads back.
  expect(await focused(page)).toBe('page');
  for (let i = 0; i < 20 && (await focused(page)) !== 'Skip to the page'; i++) await page.keyboard.press('Shift+Tab');
  await expectFocus(page, 'skip link');
  await page.keyboard.press('Enter');
  expect(await focused(page)).toBe('page');
  // To the demo rig by Tab and Enter.
  for (let i = 0; i < 40 && (await focused(page)) !== 'Boathouse relay'; i++) await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Verdict' })).toBeVisible();
  await expectFocus(page, 'rig');

  for (const [key, title] of [
    ['P', 'Who should get what'],
    ['W', 'Signal map'],
    ['R', 'Who gets what'],
    ['L', /^Gain staging/],
    ['S', /^Timing at/],
    ['U', 'Run'],
    ['N', 'Next steps'],
    ['T', 'To-do list'],
    ['H', 'How do I …?'],
    ['O', 'Log'],
    ['V', 'Versions'],
    ['B', 'Measure'],
    ['G', /./],
  ] as const) {
    await page.keyboard.press(`Shift+${key}`);
    await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
    await expectFocus(page, String(title));
    // Help knows the view, and is left to where one was.
    await page.keyboard.press('?');
    const help = page.getByRole('dialog');
    await expect(help).toContainText('Keys everywhere');
    await leaveByEscape(page, help);
    await expectFocus(page, `${title}, after help`);
    // What Tab reaches first on the page is seen. A rig's first version has nothing that one could press.
    const controls = page.locator('#page').locator('a, button, select, input, [tabindex="0"]');
    if ((await controls.count()) === 0) continue;
    await page.keyboard.press('Tab');
    await expectFocus(page, `${title}, tab`);
    // Letters in a field are its own: back out of it.
    await page.keyboard.press('Shift+Tab');
  }
  // What has no key of its own is opened from the search, which begins anywhere.
  for (const page_ of ['Tap test', 'Troubleshoot', 'Alternatives', 'Compare', 'Rigs']) {
    await page.keyboard.press('/');
    await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
    await page.keyboard.type(page_);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toBeHidden();
    await expectFocus(page, page_);
  }
  await expect(page).toHaveURL(`${server.url}/`);
});
