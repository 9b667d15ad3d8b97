// The language is chosen first: modules that come after it make tables of words when they are loaded.
import './app/language.ts';
import '@fontsource-variable/sofia-sans';
import './app/styles.css';
import { ChakraProvider } from '@chakra-ui/react';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { makeRouter } from './app/router.tsx';
import { system } from './app/theme/index.ts';
import { makeStore } from './shared/store/store.ts';

// The server gives each page a nonce; styles made while running carry it, as its content policy wants.
const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce;

const store = makeStore();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <CacheProvider value={createCache({ key: 'm', ...(nonce ? { nonce } : {}) })}>
      <ChakraProvider value={system}>
        <Provider store={store}>
          <RouterProvider router={makeRouter(store)} />
        </Provider>
      </ChakraProvider>
    </CacheProvider>
  </StrictMode>,
);
