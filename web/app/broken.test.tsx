// @vitest-environment happy-dom
import { ChakraProvider } from '@chakra-ui/react';
import { render, screen } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { frame } from '#words/index.ts';
import { Broken } from './Broken.tsx';
import { OpenRig } from './OpenRig.tsx';
import { system } from './theme/index.ts';

beforeEach(() => vi.spyOn(console, 'error').mockImplementation(() => undefined));

const There = () => <p>There.</p>;

async function failing(error: Error | null): Promise<void> {
  const routes = [
    {
      path: '/there',
      errorElement: <Broken />,
      lazy: async () => {
        if (error) throw error;
        return { Component: There };
      },
    },
    { path: '*', element: <Broken /> },
  ];
  const router = createMemoryRouter(routes, { initialEntries: [error ? '/there' : '/elsewhere'] });
  render(
    <ChakraProvider value={system}>
      <RouterProvider router={router} />
    </ChakraProvider>,
  );
  await screen.findByRole('heading');
}

describe('a screen that is not to be had', () => {
  it('says that the program may have been updated, where its part of the page is gone', async () => {
    await failing(new TypeError('Failed to fetch dynamically imported module: http://127.0.0.1/assets/index-1.js'));
    expect(screen.getByRole('heading').textContent).toBe(frame.notLoaded());
    expect(screen.getByText(/Mellow Tap was updated after this page was opened/).textContent).not.toContain('assets');
    expect(screen.getByRole('button', { name: 'Reload' })).toBeTruthy();
  });
  it('says what failed, where something did', async () => {
    await failing(new Error('The table has no rows.'));
    expect(screen.getByText(/The table has no rows\. Your rigs and takes are safe/)).toBeTruthy();
  });
  it('says that there is none of that name', async () => {
    await failing(null);
    expect(screen.getByRole('heading').textContent).toBe(frame.notFound());
    expect(screen.queryByRole('button', { name: 'Reload' })).toBeNull();
  });
});

describe('a rig that this page cannot read', () => {
  const kept = (document: unknown) =>
    stubServer(async () => answer(200, { id: RIG_ID, revision: 3, updatedAt: '2026-11-26T10:00:00.000Z', document }));
  it('is said to be of a newer program, and is not waited for', async () => {
    kept({ ...demoRig(), measurements: [{ kind: 'scent', id: 'm', label: 'new', takenAt: '2026-11-26T10:00:00Z' }] });
    show(<OpenRig rigId={RIG_ID} />);
    expect(await screen.findByRole('heading', { name: frame.cannotOpen() })).toBeTruthy();
    expect(screen.getByText(/measurements/).textContent).toMatch(/reload it\.$/);
    expect(screen.getByRole('link', { name: frame.backToRigs() })).toBeTruthy();
    expect(screen.getByRole('link', { name: frame.downloadJson() }).getAttribute('href')).toContain(RIG_ID);
  });
  it('is read where it is one that it knows', async () => {
    kept(demoRig());
    show(<OpenRig rigId={RIG_ID} />);
    expect(await screen.findByText('Boathouse relay')).toBeTruthy();
  });
});
