import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, configure, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, vi } from 'vitest';
import { parseRig, type Rig, startHistory } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { system } from './app/theme/index.ts';
import { Announcements, KeysProvider } from './shared/parts/index.ts';
import { type AppStore, closed, makeStore, openRig } from './shared/store/index.ts';

// A machine may be slow, and busy with other tests.
configure({ asyncUtilTimeout: 10_000 });

export const RIG_ID = '11111111-1111-4111-8111-111111111111';

export const demoRig = (): Rig => parseRig(JSON.parse(JSON.stringify(boathouse)));

const shown: AppStore[] = [];

/** What a shown rig still meant to send must not reach the next test. */
export function clearPage(): void {
  cleanup();
  for (const store of shown.splice(0)) store.dispatch(closed());
}
afterEach(() => {
  clearPage();
  globalThis.localStorage?.clear?.();
  vi.unstubAllGlobals();
});

/** A part of the page in a document of its own, with the demo rig open; nothing is sent anywhere. */
export function show(element: ReactNode, { rig = demoRig(), at = '/' }: { rig?: Rig; at?: string } = {}) {
  const store = makeStore();
  shown.push(store);
  store.dispatch(openRig({ rigId: RIG_ID, history: startHistory(rig), revision: 1, save: 'saved' }));
  const page = render(
    <ChakraProvider value={system}>
      <Provider store={store}>
        <MemoryRouter initialEntries={[at]}>
          <KeysProvider>
            {element}
            <Announcements />
          </KeysProvider>
        </MemoryRouter>
      </Provider>
    </ChakraProvider>,
  );
  return { ...page, store };
}
