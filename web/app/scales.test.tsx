// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { frame } from '#words/index.ts';
import { Scales } from './Scales.tsx';

beforeEach(() => stubServer(noServer));

describe('the scales', () => {
  it('are opened by one key, and tell a typed level in all of them by the rig’s reference', async () => {
    show(<Scales fullScaleDbu={18} />);
    const user = userEvent.setup();
    await user.keyboard('u');
    const dialog = within(await screen.findByRole('dialog', { name: frame.levelConverter() }));
    expect(dialog.getByRole('row', { name: /^−14.0 dBFS/ })).toBeTruthy();
    const field = dialog.getByLabelText('A level with its unit');
    await user.clear(field);
    await user.type(field, "one o'clock");
    expect(dialog.getByText(/1 o’clock: 60% of its range; with an audio taper −11 dB below its maximum/)).toBeTruthy();
    await user.clear(field);
    await user.type(field, 'loud');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(dialog.getByText(frame.levelUnread())).toBeTruthy();
  });
});
