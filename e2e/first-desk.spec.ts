import { expect, test } from './server.ts';

test('a streamer’s desk: by keyboard, from the first page to everyone hearing what they should, under 120 key presses', async ({
  page,
  server,
}) => {
  let presses = 0;
  const press = async (key: string) => {
    presses++;
    await page.keyboard.press(key);
  };
  const type = async (text: string) => {
    presses += text.length;
    await page.keyboard.type(text);
  };
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Your rigs' })).toBeVisible();
  await press('d');
  await expect(page.getByRole('textbox', { name: 'What’s on your desk' })).toBeFocused();
  await type('2 consoles>hdmi switch>capture>pc>stream;me>mic>mixer>pc;phone>mixer;friend>call;headset>pc');
  // Enter may come before it is read: it goes on as soon as it is.
  const asked = page.getByRole('region', { name: 'You decide' });
  await press('Enter');
  const inHand = asked.locator('[aria-current=step]');
  await expect(inHand).toContainText('Should the stream hear Friend?');
  await press('1');
  await expect(inHand).toContainText('Which mic does Friend hear?');
  await press('1');
  await expect(inHand).toContainText('How do you hear Console 1 and Console 2?');
  await press('1');
  // Copy protection is looked up on each console: off, both.
  for (const n of [1, 2]) {
    await expect(inHand).toContainText(`Console ${n}: “Copy protection`);
    await press('2');
  }
  await expect(asked.getByRole('button', { name: /^off/, pressed: true })).toHaveCount(2);
  await press('Enter');
  await expect(page).toHaveURL(/\/rigs\/[0-9a-f-]+\/route$/);
  const table = page.getByRole('grid', { name: 'Who gets what' });
  await expect(table.getByRole('gridcell', { name: /^Your voice at Stream, stream/ })).toHaveAccessibleName(/arrives/);
  // Nothing stops it, nothing is missing, no voice is masked.
  await expect(table.getByRole('gridcell', { name: /missing|should not arrive|twice/ })).toHaveCount(0);
  await expect(page.getByText(/\d+ stops? it/)).toHaveCount(0);
  expect(presses).toBeLessThan(120);
});

test('the same by pointer: a template, a word of one’s own, a wrong turn mended without Undo', async ({
  page,
  server,
}) => {
  await page.goto(server.url);
  await page.getByRole('button', { name: /^What’s on my desk/ }).click();
  const field = page.getByRole('textbox', { name: 'What’s on your desk' });
  await field.fill('console > blue box > tv\nblue box > capture card > pc > streaming app\nusb headset > pc');
  const asked = page.getByRole('region', { name: 'You decide' });
  const unknown = asked.getByRole('listitem').filter({ hasText: '“blue box”: what is it?' });
  await expect(unknown).toBeVisible();
  await unknown.getByRole('button', { name: /HDMI splitter, one in/ }).click();
  await expect(page.getByRole('region', { name: 'What was understood' })).toContainText('blue box');
  await expect(unknown).toHaveCount(0);
  // A wrong turn: the capture card is taken out of the stream, and put back.
  const follows = page.getByRole('region', { name: 'What follows' });
  await follows.getByRole('button', { name: /^Remove: Streaming app takes Capture card/ }).click();
  const game = page.getByRole('table').getByRole('row', { name: /Console/ });
  await expect(game.getByRole('cell').first()).toHaveText(/–/);
  await follows.getByRole('button', { name: /^Put back: Streaming app takes Capture card/ }).click();
  await expect(game.getByRole('cell').first()).not.toHaveText(/–/);
  await page.getByRole('textbox', { name: 'Name of the rig' }).fill('Attic desk');
  await page.getByRole('button', { name: /Create this rig/ }).click();
  await expect(page).toHaveURL(/\/route$/);
  await expect(page.getByText('Attic desk')).toBeVisible();
  // The word is known from now on, on this computer.
  await page.goto(`${server.url}/new`);
  await field.fill('console > blue box > tv');
  await expect(page.getByRole('region', { name: 'What was understood' })).toContainText('HDMI splitter');
  // And a template is plain words, too.
  await page.getByRole('button', { name: /^Use a template/ }).click();
  await page.getByRole('combobox', { name: 'Template' }).fill('podcast');
  await page.keyboard.press('Enter');
  for (let i = 0; i < 4; i++) await page.getByRole('dialog').getByRole('button').first().click();
  await expect(field).toHaveValue(/2 xlr mics > digital mixer > laptop/);
});
