import { Button, ChakraProvider, defaultSystem } from '@chakra-ui/react';
import { configureStore } from '@reduxjs/toolkit';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, RouterProvider } from 'react-router';

/** What the program's libraries need to draw one button: nothing of ours is in it. */
const api = createApi({ baseQuery: fetchBaseQuery({ baseUrl: '/' }), endpoints: () => ({}) });
const store = configureStore({
  reducer: { api: api.reducer },
  middleware: (defaults) => defaults().concat(api.middleware),
});
createRoot(document.getElementById('root')!).render(
  <ChakraProvider value={defaultSystem}>
    <Provider store={store}>
      <RouterProvider router={createBrowserRouter([{ path: '*', element: <Button>Go</Button> }])} />
    </Provider>
  </ChakraProvider>,
);
