// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { show } from '#web/web.testkit.tsx';
import { filterItems, Pick, type PickItem } from './index.ts';

const ITEMS: PickItem[] = [
  { id: 'mixer', label: 'Mixer, digital', note: 'ten strips' },
  { id: 'mic', label: 'Microphone, XLR', note: 'needs much gain' },
  { id: 'matrix', label: 'Matrix', note: 'a mixer used as a router' },
  { id: 'screen', label: 'Display' },
];

describe('a search', () => {
  it('finds all words anywhere, what begins with them first', () => {
    expect(filterItems(ITEMS, 'mixer').map((i) => i.id)).toEqual(['mixer', 'matrix']);
    expect(filterItems(ITEMS, 'XLR gain').map((i) => i.id)).toEqual(['mic']);
    expect(filterItems(ITEMS, 'teapot')).toEqual([]);
  });
  it('puts what people call so first, and of those what has it in its name', () => {
    const items: PickItem[] = [
      { id: 'says-so', label: 'Stand for a lavalier' },
      { id: 'usb', label: 'Microphone, USB', also: 'lavalier, desk mic' },
      { id: 'lapel', label: 'Lavalier microphone', also: 'lavalier, clip-on' },
      { id: 'other', label: 'Adapter', also: 'lavalier adapter' },
    ];
    expect(filterItems(items, 'lavalier').map((i) => i.id)).toEqual(['lapel', 'usb', 'says-so', 'other']);
  });
  it('of nothing shows all', () => {
    expect(filterItems(ITEMS, '  ')).toEqual(ITEMS);
  });
});

describe('a list by groups', () => {
  const items: PickItem[] = Array.from({ length: 70 }, (_, i) => ({
    id: `t${i}`,
    label: `Thing ${i}`,
    group: i < 20 ? 'First kind' : 'Second kind',
    ...(i === 30 && { also: 'gizmo, hear myself' }),
  }));
  it('shows all of it under headings with their numbers, and says how many more a search has', async () => {
    show(<Pick label="What" items={items} onPick={() => undefined} autoFocus />);
    expect(screen.getAllByRole('option')).toHaveLength(70);
    expect(screen.getByText('First kind').textContent).toBe('First kind 20');
    const user = userEvent.setup();
    await user.keyboard('thing');
    expect(screen.getAllByRole('option')).toHaveLength(60);
    expect(screen.getByText('10 more match: type another word.')).toBeTruthy();
    expect(screen.queryByText('First kind')).toBeNull();
  });
  it('finds by other names and by what a thing is for', () => {
    expect(filterItems(items, 'gizmo').map((i) => i.id)).toEqual(['t30']);
    expect(filterItems(items, 'hear myself').map((i) => i.id)).toEqual(['t30']);
  });
});

describe('a list to choose from', () => {
  const picked = vi.fn();
  const setup = () => {
    picked.mockClear();
    show(<Pick label="What" items={ITEMS} onPick={picked} none="None of these." autoFocus />);
    return { user: userEvent.setup(), field: screen.getByRole('combobox', { name: 'What' }) };
  };
  const chosen = () => screen.getAllByRole('option').find((o) => o.hasAttribute('data-highlighted'))!.textContent;
  it('has the focus, is walked by arrows within its ends, and chosen from by Enter', async () => {
    const { user, field } = setup();
    expect(document.activeElement).toBe(field);
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowUp}');
    expect(chosen()).toMatch(/^\s?Microphone, XLR/);
    expect(field.getAttribute('aria-activedescendant')).toMatch(/mic$/);
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowUp}{Enter}');
    expect(picked).toHaveBeenCalledWith('mixer');
  });
  it('begins at the best of what is typed', async () => {
    const { user } = setup();
    await user.keyboard('{ArrowDown}{ArrowDown}');
    await user.keyboard('disp{Enter}');
    expect(picked).toHaveBeenCalledWith('screen');
  });
  it('is chosen from by pointer, and says when nothing matches', async () => {
    const { user, field } = setup();
    await user.click(screen.getByRole('option', { name: /^Matrix/ }));
    expect(picked).toHaveBeenCalledWith('matrix');
    await user.type(field, 'zzz{Enter}');
    expect(screen.getByText('None of these.')).toBeTruthy();
    expect(picked).toHaveBeenCalledTimes(1);
  });
  it('lets something else stand where the text is more than a search', async () => {
    const entered = vi.fn();
    show(
      <Pick
        label="What"
        items={ITEMS}
        onPick={picked}
        instead={(text) => (text.includes('>') ? { shown: <p>a way: {text}</p>, onEnter: entered } : null)}
      />,
    );
    const user = userEvent.setup();
    await user.type(screen.getByRole('combobox', { name: 'What' }), 'a > b');
    expect(screen.getByText('a way: a > b')).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(entered).toHaveBeenCalledTimes(1);
  });
});
