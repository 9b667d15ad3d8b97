// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { GUIDES } from '#core/live/guides/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { makeWhole } from '#core/routing/plan/index.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { show } from '#web/web.testkit.tsx';
import { common, guideTitles, guides as say } from '#words/index.ts';
import { GuideScreen } from './index.ts';

vi.mock('#web/shared/workers/index.ts', () => ({
  searchMakeItSo: (rig: Rig) => ({ result: Promise.resolve(makeWhole(rig)), stop: () => undefined }),
}));
beforeEach(() => stubServer(noServer));

function open(at: string, rig: Rig = clayHour) {
  const { store } = show(
    <Routes>
      <Route path="/rigs/:rigId/how" element={<GuideScreen />} />
      <Route path="/rigs/:rigId/how/:guideId" element={<GuideScreen />} />
    </Routes>,
    { rig: parseRig(JSON.parse(JSON.stringify(rig))), at },
  );
  return { user: userEvent.setup(), rig: () => selectRig(store.getState())! };
}

describe('guides', () => {
  it('are found by the words that people use', async () => {
    const { user } = open('/rigs/r/how');
    expect(screen.getAllByRole('listitem').length).toBe(20);
    expect(GUIDES.map((g) => g.id)).toEqual(Object.keys(guideTitles));
    await user.type(screen.getByLabelText(say.find()), 'feedback');
    expect(screen.getAllByRole('link').map((l) => l.textContent)).toEqual([guideTitles.howl.title()]);
    await user.type(screen.getByLabelText(say.find()), ' nothing');
    expect(screen.getByText(say.none())).toBeTruthy();
    await user.clear(screen.getByLabelText(say.find()));
    await user.type(screen.getByLabelText(say.find()), 'hears themselves');
    await user.click(screen.getByRole('link', { name: guideTitles['guest-echo'].title() }));
    expect(screen.getByRole('heading', { name: guideTitles['guest-echo'].title() })).toBeTruthy();
  });
  it('says what is so on this rig, suggests what is not, and is done by a verb', async () => {
    const { user, rig } = open('/rigs/r/how/guest-echo');
    const apart = say.apart({ source: 'Pupils', listener: 'Pupils’ ears' });
    const step = () => screen.getByText(apart).closest('li')!;
    expect(within(step()).getByRole('img', { name: common.toFix() })).toBeTruthy();
    await user.click(within(step()).getByRole('button', { name: say.suggest() }));
    const verb = await within(step()).findByRole('button', { name: /^Already done: .*Mixer, USB records: send/ });
    await user.click(verb);
    await waitFor(() => expect(within(step()).getByRole('img', { name: common.goodAsDrawn() })).toBeTruthy());
    expect(rig().devices.find((d) => d.id === 'mixer')!.settings['usb-source']).toMatchObject({ known: 'confirmed' });
    expect(within(screen.getByText(/^Proof:/).closest('li')!).getByText(/ dB[^,]*, [\d,]+ ms$/)).toBeTruthy();
  });
  it('says what is missing, and where it is added', () => {
    open('/rigs/r/how/radios');
    const missing = screen.getByText(say.haveNot({ what: say.deviceRadio() })).closest('li')!;
    expect(within(missing).getByRole('link', { name: /Wire/ })).toBeTruthy();
  });
});
