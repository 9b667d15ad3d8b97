import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { fortyByForty } from './forty-by-forty.ts';
import { DEMO_RIG, expect, type TestServer, test } from './server.ts';

async function found(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .analyze();
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`);
}

/** The address of a demo rig by its name. */
async function rigUrl(page: Page, server: TestServer, name: string): Promise<string> {
  await page.goto(server.url);
  const href = await page.getByRole('link', { name, exact: true }).getAttribute('href');
  return `${server.url}${href!.replace(/\/[a-z]+$/, '')}`;
}
const saved = (page: Page) => page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());

test('Clay hour is set up from its plan by keyboard alone: wanted, made so, done at the desk, right in each moment', async ({
  page,
  server,
}) => {
  const url = await rigUrl(page, server, 'Clay hour');
  await page.goto(`${url}/plan`);
  const plan = page.getByRole('grid', { name: 'Requirements' });
  await expect(plan).toBeVisible();
  // From cell to cell: the teacher is to be on the recording alone with what may be there.
  await plan.getByRole('gridcell', { name: /^Teacher, voice at Pupils/ }).focus();
  await page.keyboard.press('ArrowDown');
  const card = page.getByRole('complementary', { name: 'Requirement' });
  await expect(card).toContainText(
    '“Music” at “Pupils’ ears”: must arrive, 18 dB below “Teacher, voice”, in sync with “Teacher, voice”.',
  );
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(card).toContainText('Music → Recording');
  await page.keyboard.press('o');
  await expect(plan.getByRole('gridcell', { name: /^Music at Recording: may/ })).toBeFocused();
  await page.keyboard.press('l');
  await page.keyboard.type('18');
  await page.keyboard.press('Enter');
  await expect(card).toContainText('“Music” at “Recording”: may arrive, 18 dB below “Teacher, voice”.');
  // Another moment: its own wants, marked; what is heard otherwise is said.
  await page.keyboard.press(']');
  await page.keyboard.press(']');
  await expect(page.getByRole('combobox', { name: 'Moment' })).toHaveValue('questions');
  await expect(plan.getByRole('gridcell', { name: /^Music at Pupils’ ears: must not, in this moment/ })).toBeVisible();
  await expect(page.getByText(/^“Music”: no longer at “Pupils’ ears”/)).toBeVisible();
  await page.keyboard.press(']');
  // Route: the pupils hear themselves; the fewest settings that mend it, put on the list.
  await page.getByRole('link', { name: 'Route' }).focus();
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('gridcell', { name: /^Pupils at Pupils’ ears: must not; should not arrive/ }),
  ).toBeVisible();
  await page.keyboard.press('s');
  const proposal = page.getByRole('region', { name: 'Suggested settings' });
  await expect(proposal).toContainText('3 settings would do it');
  await expect(proposal).toContainText('Mixer, USB records: send');
  await page.keyboard.press('d');
  await expect(
    page.getByRole('gridcell', { name: /^Pupils at Pupils’ ears: must not; not there, as required/ }),
  ).toBeVisible();
  // At the desk: what is asked is answered, what is to do is done, each with its key.
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { name: 'To-do list' })).toBeVisible();
  // Mutes that no one touched are not asked.
  await expect(page.getByText(/^0 to check, 3 to do\./)).toBeVisible();
  for (let left = 3; left > 0; left--) {
    await expect(page.getByRole('link', { name: new RegExp(`^To-do list ?${left} to do$`) })).toBeVisible();
    await page.keyboard.press('d');
  }
  await expect(page.getByRole('link', { name: /^To-do list$/ })).toBeVisible();
});

test('moments are looked at on the table, and what is pressed in one is its own, over a reload', async ({
  page,
  server,
}) => {
  const url = await rigUrl(page, server, 'Skerry net');
  await page.goto(`${url}/route`);
  const boat = page.getByRole('gridcell', { name: /^Operator at Boat A/ });
  await expect(boat).toHaveAccessibleName(/must not; not there, as required/);
  await page.keyboard.press(']');
  await expect(boat).toHaveAccessibleName(/must; arrives/);
  await page.getByLabel('Device', { exact: true }).selectOption('log-interface');
  const kept = saved(page);
  const direct = page.getByLabel('Log interface, Direct monitoring, dB');
  await direct.fill('off');
  await direct.press('Enter');
  await expect(page.getByRole('gridcell', { name: /^Channel B at Operator/ })).toHaveAccessibleName(/missing/);
  await kept;
  await page.reload();
  await expect(page.getByRole('gridcell', { name: /^Channel B at Operator/ })).toHaveAccessibleName(/arrives/);
  await page.keyboard.press(']');
  await expect(page.getByRole('gridcell', { name: /^Channel B at Operator/ })).toHaveAccessibleName(/missing/);
  await page.getByRole('link', { name: 'Plan' }).click();
  await expect(page.getByRole('region', { name: 'Moments' })).toContainText(
    'Log interface, Direct monitoring: fully down',
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('region', { name: 'Moments' })).not.toContainText('Direct monitoring');
});

test('one listens at a place before anything is plugged, and goes from listener to listener', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/route`);
  await page.getByRole('gridcell', { name: /^Couch game at Stream/ }).click();
  await page.keyboard.press('h');
  const bar = page.getByRole('region', { name: 'Listening' });
  await expect(bar.getByRole('status')).toContainText('Stream');
  await expect(bar.getByTitle('Wren, voice')).toBeVisible();
  await expect(bar).toContainText('and hum');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(bar.getByRole('slider', { name: 'Listening level, dB' })).toHaveAttribute('aria-valuetext', '−21 dB');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(bar.getByRole('status')).toContainText('Track 2, console');
  await expect(bar.getByTitle('Wren, voice')).toHaveCount(0);
  expect(await found(page)).toEqual([]);
  // It follows the rig: what is muted is not heard any more.
  await page.getByLabel('Device', { exact: true }).selectOption('capture-program');
  await page.getByRole('button', { name: 'Streaming software, Input 1, mute', exact: true }).click();
  await expect(bar.getByRole('status')).toContainText('No signal here');
  await bar.getByRole('button', { name: /^Stop/ }).click();
  await expect(bar).toHaveCount(0);
  // From a tap in Wire as well.
  await page.goto(`${server.url}/rigs/${DEMO_RIG}/wire?tap=mixer.main-out`);
  await expect(page.getByRole('complementary', { name: 'Tap point' })).toBeVisible();
  await page.keyboard.press('h');
  await expect(bar.getByRole('status')).toContainText('Mixer, main out');
  await expect(bar.getByTitle('Wren, voice')).toBeVisible();
});

test('forty sources by forty listeners are walked by keyboard and read by a screen reader', async ({
  page,
  server,
}) => {
  test.slow();
  const id = crypto.randomUUID();
  const made = await page.request.post(`${server.url}/api/rigs`, {
    headers: { origin: server.url },
    data: { id, document: fortyByForty() },
  });
  expect(made.ok()).toBe(true);
  for (const view of ['plan', 'route']) {
    await page.goto(`${server.url}/rigs/${id}/${view}`);
    const grid = page.getByRole('grid');
    await expect(grid.locator('[role=gridcell]')).toHaveCount(1600);
    await expect(grid.locator('[role=row]')).toHaveCount(41);
    await expect(grid.locator('[role=columnheader]')).toHaveCount(41);
    await expect(grid.locator('[role=rowheader]')).toHaveCount(40);
    // One cell is reached by Tab, all others from it by arrows.
    await expect(grid.locator('[role=gridcell][tabindex="0"]')).toHaveCount(1);
    const at = (row: number, column: number) => grid.locator(`[data-place="${row} ${column}"]`);
    // Listeners that matter most come first.
    const end = await grid.locator('[role=row]').nth(1).locator('[role=gridcell]').last().getAttribute('data-place');
    const last = Number(end!.split(' ')[1]);
    await at(0, 0).focus();
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('x');
    await expect(at(1, last)).toBeFocused();
    await expect(at(1, last)).toHaveAccessibleName(new RegExp(`^Source 1 at Listener ${last}: must not`));
    await expect(at(1, last)).toBeInViewport();
    await expect(grid.locator('[role=rowheader]').nth(1)).toBeInViewport();
    await page.keyboard.press('Control+End');
    await expect(at(39, last)).toBeFocused();
  }
  // Colors are those of every table, and looked at there: sixteen hundred times the same takes minutes.
  const { violations } = await new AxeBuilder({ page })
    .include('[role=grid]')
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .disableRules(['color-contrast'])
    .analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});
