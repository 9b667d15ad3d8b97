// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { check } from '#core/rules/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { filterItems, useKey } from '#web/shared/parts/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { glossary } from '#words/index.ts';
import { actsOn } from './acts.ts';
import { findsIn } from './finds.ts';
import { SearchDialog } from './SearchDialog.tsx';

beforeEach(() => stubServer(noServer));

const rig = demoRig();
const open = { rigId: RIG_ID, rig, findings: check(rig) };
const finds = findsIn(open, [], [], (keys) => keys);
const first = (search: string) => filterItems(finds, search)[0]?.id;
const found = (search: string) => filterItems(finds, search).map((f) => f.id);

const sing = vi.fn();
function View() {
  useKey('x', 'Sing a song', sing);
  return <SearchDialog onClose={() => undefined} />;
}

describe('the search of the whole app', () => {
  it('has each thing once, and somewhere to go or something to say for it', () => {
    expect(new Set(finds.map((f) => f.id)).size).toBe(finds.length);
    for (const device of rig.devices) expect(found(device.name)).toContain(`device:${device.id}`);
    for (const id of Object.keys(glossary)) expect(finds.some((f) => f.id === `term:${id}`)).toBe(true);
    expect(finds.filter((f) => f.id.startsWith('issue:'))).toHaveLength(open.findings.length);
  });
  it.each([
    ['patchbay', 'route'],
    ['gain staging', 'level'],
    ['lip sync', 'sync'],
    ['no sound', 'trouble'],
    ['checklist', 'run'],
    ['LUFS', 'bench'],
  ])('finds a page by another name: %s', (search, page) => {
    expect(found(search)).toContain(`page:/rigs/${RIG_ID}/${page}`);
  });
  it.each([
    ['earth loop', 'ground-loop'],
    ['ground loop', 'ground-loop'],
    ['guest return', 'guest-return'],
    ['mix-minus', 'guest-return'],
  ])('finds a term by any of its names: %s', (search, term) => {
    expect(found(search)).toContain(`term:${term}`);
  });
  it('puts what is called so before what only speaks of it', () => {
    expect(first('ground loop')).toBe('term:ground-loop');
    expect(first('wire')).toBe(`page:/rigs/${RIG_ID}/wire`);
  });
  it('without a rig has its pages and terms', () => {
    const bare = findsIn(null, [], [], (keys) => keys);
    expect(bare.some((f) => f.id.startsWith('device:') || f.id.startsWith('issue:'))).toBe(false);
    expect(filterItems(bare, 'new desk')[0]?.id).toBe('page:/new');
  });
});

describe('what can be pressed on a page', () => {
  it('is found by its name and heading, once; not what has a key, is off, or is in a dialog', () => {
    document.body.innerHTML = `<div id="p"><button class="button">Import <kbd>i</kbd></button><button class="button">Undo</button>
      <h2>Backup</h2><button class="button">Restore</button><button class="button">Restore</button>
      <button class="button" disabled>Print</button><button class="button">×</button>
      <div role="dialog"><button class="button">Inside</button></div>
      <h2>Rigs</h2><button class="button" aria-label="Delete “Quay”">Delete</button><button class="button">Restore</button></div>`;
    const pressed: string[] = [];
    document.addEventListener('click', (e) => pressed.push((e.target as HTMLElement).textContent!.trim()));
    const acts = actsOn(document.getElementById('p')!, new Set(['Undo']));
    expect(acts.map(({ label, section }) => [label, section])).toEqual([
      ['Import', null],
      ['Restore', 'Backup'],
      ['Delete “Quay”', 'Rigs'],
      ['Restore', 'Rigs'],
    ]);
    acts[2]!.run();
    expect(document.activeElement?.textContent).toBe('Delete');
    expect(pressed).toEqual(['Delete']);
    document.body.innerHTML = '';
    expect(() => acts[2]!.run()).not.toThrow();
  });
});

describe('its dialog', () => {
  it('explains a term with its other names, and goes back; does what a key does', async () => {
    show(<View />);
    const user = userEvent.setup();
    const field = await screen.findByRole('combobox', { name: 'Search' });
    await user.type(field, 'earth loop{Enter}');
    expect(screen.getByText('Also called: ring of earths, earth loop, hum loop')).toBeTruthy();
    await user.keyboard('{Enter}');
    await user.type(screen.getByRole('combobox', { name: 'Search' }), 'sing a song{Enter}');
    await vi.waitFor(() => expect(sing).toHaveBeenCalledOnce());
  });
});
