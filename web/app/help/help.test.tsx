// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { KeysEverywhere, useKey } from '#web/shared/parts/index.ts';
import { show } from '#web/web.testkit.tsx';
import { glossary } from '#words/index.ts';
import { PAGES, pageAt, RIG_PAGES } from '../pages.ts';
import { HelpDialog } from './HelpDialog.tsx';

beforeEach(() => stubServer(noServer));

function Page() {
  useKey('k', 'Knock', () => undefined);
  return (
    <KeysEverywhere>
      <Frame />
    </KeysEverywhere>
  );
}
function Frame() {
  useKey('shift+f', 'Frame it', () => undefined);
  return null;
}

describe('the page at an address', () => {
  it('is its own, a page below another counts to that one, and the first page is no one’s', () => {
    expect(pageAt('/rigs/a/wire')?.to).toBe('wire');
    expect(pageAt('/rigs/a/sync/paths')?.to).toBe('sync/paths');
    expect(pageAt('/rigs/a/how/console')?.to).toBe('how');
    expect(pageAt('/bench/join')?.to).toBe('/bench/join');
    expect(pageAt('/')?.to).toBe('/');
    expect(pageAt('/nothing')).toBeNull();
  });
  it.each([...PAGES, ...RIG_PAGES])('$to answers a question in terms that are explained', ({ answers, terms }) => {
    expect(answers()).toMatch(/\?/);
    expect(new Set(terms).size).toBe(terms.length);
    for (const id of terms) expect(glossary[id]).toBeDefined();
  });
});

describe('help in place', () => {
  it('says what the page answers, its own keys apart from those everywhere, and explains its terms', async () => {
    const user = userEvent.setup();
    show(
      <>
        <Page />
        <HelpDialog onClose={() => undefined} />
      </>,
      { at: '/rigs/a/level' },
    );
    const dialog = within(await screen.findByRole('dialog', { name: 'Help: Level' }));
    const [here, everywhere] = dialog.getAllByRole('table');
    expect(within(here!).getByText('Knock')).toBeTruthy();
    expect(within(everywhere!).getByText('Frame it')).toBeTruthy();
    expect(within(here!).queryByText('Frame it')).toBeNull();
    await user.click(dialog.getByRole('button', { name: 'Headroom' }));
    expect(dialog.getByText(glossary.headroom.says())).toBeTruthy();
  });
});
