import '@fontsource-variable/sofia-sans';
import './app/tokens.css';
import './app/sheet.css';
import { ChakraProvider } from '@chakra-ui/react';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { speak } from '#words/index.ts';
import { router } from './app/router.tsx';
import { system } from './app/theme.ts';
import { makeStore } from './store/store.ts';

// The server gives each page a nonce; styles made while running carry it, as its content policy wants.
const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce;

/** Kept in a browser by whoever looks at pages in the made-up language: what is not marked in it does not come from words/. */
const LANGUAGE_KEY = 'mellow-language';

async function chooseLanguage(): Promise<void> {
  const numberLocale = navigator.language;
  if (localStorage.getItem(LANGUAGE_KEY) !== 'marked') return speak({ numberLocale });
  const { markedText } = await import('#words/marked.ts');
  speak({ numberLocale, textOf: ({ icu }) => markedText(icu) });
}

await chooseLanguage();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <CacheProvider value={createCache({ key: 'm', ...(nonce ? { nonce } : {}) })}>
      <ChakraProvider value={system}>
        <Provider store={makeStore()}>
          <RouterProvider router={router} />
        </Provider>
      </ChakraProvider>
    </CacheProvider>
  </StrictMode>,
);
