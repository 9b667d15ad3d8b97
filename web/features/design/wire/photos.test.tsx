// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { selectRig, undoStep } from '#web/shared/store/index.ts';
import { show } from '#web/web.testkit.tsx';
import { common } from '#words/index.ts';
import { WireScreen } from './index.ts';
import { fitted } from './photo.ts';

const SHA = 'a'.repeat(64);

function open(readable = true) {
  stubServer(async (request) =>
    request.method === 'POST' ? answer(201, { sha256: SHA, bytes: 3 }) : answer(404, { title: '', status: 404 }),
  );
  vi.stubGlobal('createImageBitmap', async () => {
    if (!readable) throw new DOMException('no picture');
    return { width: 3000, height: 1000, close: () => undefined };
  });
  vi.stubGlobal(
    'OffscreenCanvas',
    class {
      getContext = () => ({ drawImage: () => undefined });
      convertToBlob = async () => new Blob(['jpeg']);
    },
  );
  const { store } = show(<WireScreen />, { at: '/?tap=extractor.line' });
  const photos = () => selectRig(store.getState())!.devices.find((d) => d.id === 'extractor')!.photos;
  return { user: userEvent.setup(), store, photos };
}

describe('photographs of a box', () => {
  it('are added from a file, looked at, taken out, and brought back by undo', async () => {
    const { user, store, photos } = open();
    const file = new File(['x'], 'back of it.png', { type: 'image/png' });
    await user.upload(screen.getByLabelText('Photo of “Audio extractor”'), file);
    await waitFor(() => expect(photos()).toMatchObject([{ sha256: SHA, name: 'back of it' }]));
    await user.click(await screen.findByRole('button', { name: 'back of it' }));
    await user.click(await screen.findByRole('button', { name: common.remove() }));
    expect(photos()).toBeUndefined();
    store.dispatch(undoStep());
    expect(photos()).toHaveLength(1);
  });
  it('are refused in a sentence where the browser cannot read them', async () => {
    const { user, photos } = open(false);
    await user.upload(
      screen.getByLabelText('Photo of “Audio extractor”'),
      new File(['x'], 'a.png', { type: 'image/png' }),
    );
    expect(await screen.findByText(/This browser can’t read that image\. Choose a/)).toBeTruthy();
    expect(photos()).toBeUndefined();
  });
  it('are made smaller by their longer side, never larger', () => {
    expect(fitted(3200, 800)).toEqual({ width: 1600, height: 400 });
    expect(fitted(600, 900)).toEqual({ width: 600, height: 900 });
    expect(fitted(8000, 1)).toEqual({ width: 1600, height: 1 });
  });
});
