// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { cta, edid, nameDescriptor } from '#core/model/picture/edid.testkit.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { check, tally } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { fixesApi } from '#web/shared/workers/fix-api.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { stubWorker } from '#web/worker.testkit.ts';
import { common, wire as say } from '#words/index.ts';
import { readEdid } from './EdidFacts.tsx';
import { WireScreen } from './index.ts';
import { billOf, leadRows, matches, sayParts } from './rows.ts';

beforeEach(() => {
  stubServer(noServer);
  stubWorker(fixesApi);
});
const rowsOf = (rig: Rig) => leadRows(rig, evaluate(rig), check(rig));

describe('leads as rows', () => {
  const rows = rowsOf(demoRig());
  const row = (id: string) => rows.find((r) => r.id === id)!;
  it('say what to take, what goes along, and how long it may be', () => {
    // Three USB cables of the mixer go in one cable.
    expect(rows).toHaveLength(demoRig().cables.filter((c) => c.medium === 'lead').length - 2);
    expect(sayParts(row('camera-hdmi'))).toBe('cable, HDMI mini to HDMI');
    expect(sayParts(row('extractor-line'))).toBe('cable, 3.5 mm stereo to two 6.35 mm mono');
    // Balanced where both ends are, though an unbalanced lead would be cheaper.
    expect(sayParts(row('wren-xlr'))).toBe('cable, XLR female to XLR male');
    expect(sayParts(row('mixer-phones'))).toBe(say.itsOwnCable());
    expect(sayParts(row('camera-usb'))).toBe('cable, USB A to USB B');
    expect(row('wren-xlr')).toMatchObject({ sourceIds: expect.arrayContaining(['wren']), worst: null });
    expect(row('wren-xlr').limit).toMatchObject({ carefulM: 30, mostM: 100 });
    expect(row('camera-usb').worst).toBe('watch');
  });
  it('are found by their words, and cost what their parts cost', () => {
    expect(
      rows
        .filter((r) => matches(r, 'hdmi splitter'))
        .map((r) => r.id)
        .sort(),
    ).toEqual(['console-hdmi', 'splitter-capture', 'splitter-extractor']);
    expect(rows.filter((r) => matches(r, ''))).toHaveLength(rows.length);
    const bill = billOf(rows);
    expect(bill.parts).toBeGreaterThan(10);
    expect(bill.low).toBeLessThan(bill.high);
    expect(billOf(rows.slice(0, 3)).high).toBeLessThan(bill.high);
  });
});

describe('an EDID', () => {
  const screenEdid = edid({
    extensions: [cta({ vics: [16, 97], hdmi: { mhz: 340, deep: 0 } })],
    descriptors: [nameDescriptor('Club screen')],
  });
  it('is read from bytes or text; a broken one is refused with the byte', () => {
    const read = readEdid(screenEdid);
    expect(read).toMatchObject({ ok: true, edid: { name: 'Club screen' } });
    const hex = Buffer.from(screenEdid).toString('hex');
    expect(readEdid(hex.replace(/../g, '0x$&, '))).toMatchObject({ ok: true, hex });
    const broken = screenEdid.slice();
    broken[60]! ^= 1;
    expect(readEdid(broken)).toMatchObject({ ok: false, says: expect.stringMatching(/corrupt.*byte 127/) });
    expect(readEdid(new Uint8Array(2000))).toMatchObject({
      ok: false,
      says: expect.stringMatching(/at most 1024 bytes/),
    });
  });
  it('is kept with the screen, and the checks know what it takes from then on', async () => {
    const user = userEvent.setup();
    const { store } = show(<WireScreen />, { at: '/?tap=big-screen.hdmi' });
    await user.click(screen.getByRole('button', { name: 'Read an EDID' }));
    const field = await screen.findByLabelText(say.edidBytesInHex());
    await user.click(field);
    await user.paste('00 ff zz');
    expect(screen.getByText(/Not hexadecimal bytes\. Paste the bytes alone,/)).toBeTruthy();
    expect(screen.getByRole('button', { name: common.save() }).getAttribute('aria-disabled')).toBe('true');
    await user.clear(field);
    await user.paste(
      Buffer.from(edid({ extensions: [cta({ vics: [16], hdmi: { mhz: 340, deep: 0 } })] })).toString('hex'),
    );
    await user.click(screen.getByRole('button', { name: common.save() }));
    const rig = selectRig(store.getState())!;
    expect(rig.devices.find((d) => d.id === 'big-screen')!.edid).toHaveLength(512);
    expect(screen.getAllByText(/“Big screen”.*3840 × 2160|3840 × 2160.*“Big screen”/).length).toBeGreaterThan(0);
    await user.click(screen.getByRole('button', { name: say.removeEdid() }));
    expect(selectRig(store.getState())!.devices.find((d) => d.id === 'big-screen')!.edid).toBeUndefined();
  });
});

describe('Wire', () => {
  beforeEach(() => localStorage.setItem('mellow.issues-open', 'true'));
  const ALL = check(demoRig()).filter((f) => f.stage !== 'sync').length;
  const findings = () => within(screen.getByRole('table', { name: common.issues() })).getAllByRole('row');
  it('lists what is wrong, the worst first, and opens the first', async () => {
    show(<WireScreen />);
    const said = findings().map((r) => r.textContent);
    expect(said).toHaveLength(ALL);
    const order = [
      /“Game console” sends 3840 × 2160.*“Splitter” handles 10.2 Gbit\/s/,
      /No “Couch voices” at “Couch safety track”/,
      /“Couch lapel microphone” has a 3-pole plug/,
      /Ground loop: the unbalanced cable “Audio extractor” \(line out\) → “Mixer”/,
      /built-in mic of “Desk webcam” is on/,
      /Speech is masked at Stream: “Couch game” is 14 dB louder than “Wren, voice”/,
      /“Ilse, on the call” reaches/,
      /“Couch game” reaches “Stream” twice/,
      /“Couch game” reaches “Track 1, all” twice/,
      /How long is the cable “Camera capture”/,
      /Speech is possibly masked at Backup recorder.*ignored: the backup is mixed anew/,
    ].map((text) => said.findIndex((row) => text.test(row ?? '')));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order).not.toContain(-1);
    await waitFor(() => expect(screen.getByLabelText(common.issue()).textContent).toMatch(/Fixes/));
  });
  it('mends by key: the proposal is to be done at the desk, and the finding is gone from the drawing', async () => {
    const user = userEvent.setup();
    const { store } = show(<WireScreen />, { at: '/?finding=plan-twice:couch-game>stream' });
    await screen.findByText(common.fixes());
    await user.keyboard('d');
    const rig = selectRig(store.getState())!;
    expect(rig.tasks.map((t) => t.id)).toEqual(['mixer.strip-5-6-fader']);
    expect(findings()).toHaveLength(ALL - 3);
  });
  it('takes an answer to what it asks: yes, or another length', async () => {
    const user = userEvent.setup();
    const { store } = show(<WireScreen />, { at: '/?finding=length-not-careful:camera-usb' });
    const cable = () => selectRig(store.getState())!.cables.find((c) => c.id === 'camera-usb')!;
    await user.keyboard('y');
    expect(cable()).toMatchObject({ lengthM: 3, known: 'confirmed' });
    expect(findings()).toHaveLength(ALL);
    expect(findings().some((r) => /The cable “Camera capture”.* is 3 m/.test(r.textContent))).toBe(true);
    const field = screen.getByLabelText('Length of the cable “Camera capture” → “Desk computer”, m');
    await user.clear(field);
    await user.type(field, '1,2{Enter}');
    expect(cable().lengthM).toBe(1.2);
    expect(findings()).toHaveLength(ALL - 1);
    await user.clear(field);
    await user.type(field, 'long');
    await user.tab();
    expect(cable().lengthM).toBe(1.2);
    await waitFor(() => expect((field as HTMLInputElement).value).toBe('1.2'));
  });
  it('takes a lead out that is not there', async () => {
    const { store } = show(<WireScreen />, { at: '/?finding=length-not-careful:camera-usb' });
    await userEvent.click(screen.getByRole('button', { name: 'There is none' }));
    expect(selectRig(store.getState())!.cables.some((c) => c.id === 'camera-usb')).toBe(false);
  });
  it('ignores a finding for a reason: it counts no more, until it is no longer ignored', async () => {
    const user = userEvent.setup();
    const { store } = show(<WireScreen />, { at: '/?finding=plan-twice:couch-game>track-1' });
    const put = screen.getByRole('button', { name: common.ignore() });
    expect(put.getAttribute('aria-disabled')).toBe('true');
    await user.type(screen.getByLabelText(say.reasonForIgnoringIt()), 'track 1 is for checking only{Enter}');
    const rig = () => selectRig(store.getState())!;
    expect(rig().dismissed[1]).toMatchObject({
      id: 'plan-twice:couch-game>track-1',
      reason: 'track 1 is for checking only',
    });
    expect(
      findings()
        .slice(-2)
        .map((f) => f.textContent)
        .join(' '),
    ).toMatch(/“Track 1, all” twice.*ignored: track 1 is for checking only/);
    expect(tally(rig()).fixes).toBe(tally(demoRig()).fixes - 1);
    await user.click(screen.getByRole('button', { name: say.stopIgnoring() }));
    expect(rig().dismissed).toHaveLength(1);
    expect(findings()).toHaveLength(ALL);
  });
  it('walks the findings by keys and searches the leads', async () => {
    const user = userEvent.setup();
    show(<WireScreen />);
    await user.keyboard('j');
    expect(findings()[1]!.getAttribute('aria-selected')).toBe('true');
    await user.keyboard('kk');
    expect(findings()[ALL - 1]!.getAttribute('aria-selected')).toBe('true');
    await user.type(screen.getByLabelText(say.searchCables()), 'extractor');
    expect(screen.getAllByLabelText(/Length of the cable/)).toHaveLength(3);
    await user.type(screen.getByLabelText(say.searchCables()), ' nowhere');
    expect(screen.getByText(say.noCableMatches())).toBeTruthy();
  });
  it('says so where nothing is wrong', () => {
    const rig = demoRig();
    show(<WireScreen />, { rig: { ...rig, plan: [], cables: [], sources: [], listeners: [], devices: [] } });
    expect(screen.getByText(/No issues: cables, levels and routing match the/)).toBeTruthy();
  });
});
