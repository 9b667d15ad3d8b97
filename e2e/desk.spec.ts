import type { Page } from '@playwright/test';
import { expect, test, withIssues } from './server.ts';

/** Keys pressed beside the names: what a person pays for a desk. */
async function keyboard(page: Page) {
  let presses = 0;
  const press = async (key: string) => {
    presses++;
    await page.keyboard.press(key);
  };
  return {
    press,
    /** Names of devices and figures are typed, not counted. */
    type: (text: string) => page.keyboard.type(text),
    presses: () => presses,
  };
}

test('by keyboard alone: Quay talk is wired from an empty desk, a lead corrected, a box taken out and brought back', async ({
  page,
  server,
}) => {
  const keys = await keyboard(page);
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await keys.press('n');
  await expect(page.getByText('No devices yet.')).toBeVisible();
  await keys.press('a');
  await expect(page.getByRole('dialog')).toBeVisible();
  await keys.type(
    'person > lapel > monitor-recorder > earphones; person > camera full > monitor-recorder; person > recorder hand',
  );
  await expect(page.getByRole('dialog')).toContainText('6 devices and 6 cables more');
  await keys.press('Enter');
  const map = page.getByRole('application');
  await expect(map.getByRole('button', { name: /^Monitor-recorder, / })).toBeVisible();
  // The guest comes as a second person, by a radio set into the camera.
  await keys.press('a');
  await keys.type('person');
  await keys.press('Enter');
  await keys.press('a');
  await keys.type('wireless set camera');
  await keys.press('Enter');
  for (const [from, to] of [
    ['person 2 voice', 'pack 1'],
    ['receiver jack', 'camera microphone jack'],
    ['person 2 face', 'camera lens'],
  ]) {
    await keys.press('p');
    await expect(page.getByRole('combobox', { name: 'From' })).toBeFocused();
    await keys.type(from!);
    await keys.press('Enter');
    await expect(page.getByRole('combobox', { name: 'To' })).toBeFocused();
    await keys.type(to!);
    await keys.press('Enter');
    await expect(page.getByLabel('Length, m')).toBeFocused();
    await keys.press('Enter');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
  // 8 devices, 9 leads.
  await expect(map.getByRole('button', { name: /^Person 2 → Wireless/ })).toBeVisible();
  expect(keys.presses()).toBeLessThanOrEqual(40);
  // What was drawn is kept.
  await expect(async () => {
    const [rig] = (await (await fetch(`${server.url}/api/rigs`)).json()) as { name: string; id: string }[];
    const desk = await (await fetch(`${server.url}/api/rigs/${rig!.id}`)).json();
    expect(desk.document.name).toBe('My setup');
    expect(desk.document.devices).toHaveLength(8);
    expect(desk.document.cables).toHaveLength(9);
  }).toPass();
  await page.reload();
  await expect(map.getByRole('button', { name: /^Person 2, Person/ })).toBeVisible();

  // The tap walks along the signal.
  await map.focus();
  await page.keyboard.press('ArrowRight');
  const card = page.getByLabel('Tap point', { exact: true });
  await expect(card).toContainText('Person, voice');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await expect(card).toContainText('dB SPL');
  await page.keyboard.press('Escape');
  await expect(card).toBeHidden();
});

test('a desk of twelve boxes with its leads answered takes at most 60 keys beside the names', async ({
  page,
  server,
}) => {
  await withIssues(page);
  const keys = await keyboard(page);
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await keys.press('n');
  await expect(page.getByText('No devices yet.')).toBeVisible();
  await keys.press('a');
  await expect(page.getByRole('dialog')).toBeVisible();
  await keys.type(
    'console > splitter > capture > computer > capture program; splitter > tv; person > mic > mixer > computer; mixer > recorder; phone > mixer; mixer > headphones',
  );
  await expect(page.getByRole('dialog')).toContainText('12 devices and 11 cables more');
  await keys.press('Enter');
  await expect(page.getByRole('application').getByRole('button', { name: /^Mixer, / })).toBeVisible();
  // Every question is answered by one key, and the next one comes by itself.
  const questions = page.getByRole('table', { name: 'Issues' }).getByRole('button', { name: /\?$/ });
  let open = await questions.count();
  expect(open).toBeGreaterThan(0);
  await keys.press('q');
  while (open > 0) {
    await keys.press('y');
    await expect(async () => expect(await questions.count()).toBeLessThan(open)).toPass();
    open = await questions.count();
  }
  expect(keys.presses()).toBeLessThanOrEqual(60);
});

test('a box is replaced keeping what fits, renamed, and taken out; undo brings it back', async ({ page, server }) => {
  await withIssues(page);
  await page.goto(`${server.url}/rigs/0b0a7405-e000-4000-8000-000000000001/wire`);
  const map = page.getByRole('application');
  await map.getByRole('button', { name: /^Splitter, / }).click();
  const card = page.getByLabel('Tap point', { exact: true });
  await card.getByRole('button', { name: 'Replace' }).click();
  await page.getByRole('combobox', { name: 'Replace with' }).fill('own supply');
  await expect(page.getByRole('option').first()).toContainText('every cable stays');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('table', { name: 'Issues' })).not.toContainText('10.2 Gbit/s');
  await card.getByLabel('Device name').fill('Better splitter');
  await page.keyboard.press('Enter');
  await expect(map.getByRole('button', { name: /^Better splitter, / })).toBeVisible();
  await card.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(map.getByRole('button', { name: /^Better splitter, / })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(map.getByRole('button', { name: /^Better splitter, / })).toBeVisible();
});

test('a desk of twenty boxes takes at most 100 keys beside the names, every question answered', async ({
  page,
  server,
}) => {
  const keys = await keyboard(page);
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await keys.press('n');
  await expect(page.getByText('No devices yet.')).toBeVisible();
  await keys.press('a');
  await expect(page.getByRole('dialog')).toBeVisible();
  await keys.type(
    'console > splitter > capture > computer > capture program; splitter > tv; 4 person > 4 microphone dynamic > mixer digital ten > computer > call; mixer digital ten > recorder line in; camera full > capture stick > computer; phone > mixer digital ten; mixer digital ten > loudspeakers active',
  );
  await expect(page.getByRole('dialog')).toContainText('21 devices and 20 cables more');
  await keys.press('Enter');
  await expect(page.getByRole('application').getByRole('button', { name: /^Person 4, / })).toBeVisible();
  // Round the desk: each is answered as assumed by one key.
  await keys.press('t');
  await expect(page.getByText(/^\d+ to check.*\./)).toBeVisible();
  await expect(page.getByText(/affects \d+/).first()).toBeVisible();
  const undo = page.getByTitle(/^Undo: /);
  const question = page.getByRole('complementary', { name: 'To check' });
  // An answer can raise another question, so one goes on until none is left.
  while (keys.presses() <= 100 && (await question.isVisible())) {
    const before = await undo.getAttribute('title');
    await keys.press('y');
    await expect(undo).not.toHaveAttribute('title', before!);
  }
  await expect(page.getByText('All done: everything that matters is confirmed.')).toBeVisible();
  expect(keys.presses()).toBeLessThanOrEqual(100);
});

test('a desk begins from an occasion, and takes more boxes with counts, by keyboard', async ({ page, server }) => {
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await page.keyboard.press('o');
  await expect(page.getByRole('combobox', { name: 'Template' })).toBeFocused();
  await page.keyboard.type('panel');
  await page.keyboard.press('Enter');
  await expect(page.getByText('How many sit at the table?')).toBeVisible();
  await page.keyboard.press('2');
  await page.keyboard.press('1');
  await page.keyboard.press('1');
  await expect(page.getByRole('textbox', { name: 'What’s on your desk' })).toHaveValue(/moderator and 3 guests/);
  await page.getByRole('textbox', { name: 'Name of the rig' }).fill('Hall, Thursday');
  await page.getByRole('button', { name: /Create this rig/ }).click();
  await expect(page).toHaveURL(/\/route$/);
  await page.goto(page.url().replace(/route$/, 'wire'));
  const map = page.getByRole('application');
  await expect(map.getByRole('button', { name: /^Guest 3 → XLR mic 4/ })).toBeVisible();
  await expect(page.getByText('Hall, Thursday')).toBeVisible();
  await page.keyboard.press('Shift+A');
  await expect(page.getByRole('combobox', { name: 'Device type' })).toBeFocused();
  await page.keyboard.type('headphones wired');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.keyboard.type('webcam');
  await page.keyboard.press('Enter');
  const chosen = page.getByRole('table', { name: 'Selected' });
  await expect(chosen.getByRole('row', { name: /^Headphones, wired/ })).toContainText('2');
  await page.keyboard.press('Control+Enter');
  await expect(map.getByRole('button', { name: /^Headphones 2, / })).toBeVisible();
  await expect(map.getByRole('button', { name: /^Webcam, / })).toBeVisible();
});
