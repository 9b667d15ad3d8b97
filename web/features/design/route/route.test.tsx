// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { evaluate, mainVoiceOf } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { sayUnder } from '#web/shared/parts/index.ts';
import { selectRig, undoStep } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { route as say } from '#words/index.ts';
import { cellsOf, isWrong, wrongOnly } from './cells.ts';
import { RouteScreen } from './index.ts';
import { stepsOf } from './steps.ts';

beforeEach(() => stubServer(noServer));
const rig = demoRig();
const cells = cellsOf(rig, evaluate(rig));
const cell = (sourceId: string, listenerId: string) =>
  cells.flat().find((c) => c.pair.sourceId === sourceId && c.pair.listenerId === listenerId)!;

describe('cells', () => {
  it('are one for each source and listener, told against the first voice of the rig', () => {
    expect(cells).toHaveLength(rig.sources.length);
    expect(cells.every((row) => row.length === rig.listeners.length)).toBe(true);
    expect(mainVoiceOf(rig)).toBe('wren');
    expect(cell('wren', 'stream').pair.underVoiceDb).toBeNull();
    const game = cell('couch-game', 'stream');
    const levels = ['wren', 'couch-game'].map((id) => cell(id, 'stream').pair.ways[0]!.levelDb.nominal);
    expect(game.pair.underVoiceDb).toBeCloseTo(levels[0]! - levels[1]!, 9);
    expect([12.4, -3, 0.4].map(sayUnder)).toEqual(['12 dB below', '3 dB above', 'as loud']);
  });
  it('call good what is as wanted, and judge nothing that nobody speaks of', () => {
    for (const { pair, state, word } of cells.flat()) {
      if (pair.ways.length === 0) {
        expect(state).toBe({ must: 'stop', 'must-not': 'good', may: 'none' }[pair.want ?? 'may']);
        expect(word).toBe({ must: 'missing', 'must-not': say.keptOut(), may: '' }[pair.want ?? 'may']);
      } else if (pair.want === 'must-not') expect([state, word]).toEqual(['fix', say.shouldNotArrive()]);
      else if (pair.want === null && pair.verdict.state === 'none') expect(state).toBe('none');
    }
  });
  it('are filtered to rows and columns with something wrong, and none of those is left out', () => {
    const { rows, columns } = wrongOnly(cells);
    cells.forEach((row, r) => {
      row.forEach((c, k) => {
        if (isWrong(c)) expect(rows.includes(r) && columns.includes(k)).toBe(true);
      });
    });
    expect(columns.length).toBeLessThan(rig.listeners.length);
  });
});

describe('the steps of a way', () => {
  it('add up: what it begins with and what each box adds is what arrives', () => {
    const { graph, pairs } = evaluate(rig);
    let told = 0;
    for (const way of pairs.flatMap((p) => p.ways)) {
      const steps = stepsOf(rig, graph, way);
      let first = way.arrival;
      while (first.from) first = first.from;
      // Copies of one instant add up on their way: such a way ends a little higher than its steps.
      const sum = first.levelDb + steps.reduce((db, s) => db + s.gainDb, 0);
      if (Math.abs(sum - way.arrival.levelDb) < 0.01) told++;
      expect(sum).toBeLessThanOrEqual(way.arrival.levelDb + 0.01);
      expect(steps.map((s) => s.name)).toHaveLength(way.deviceIds.length);
    }
    expect(told).toBeGreaterThan(15);
  });
});

describe('the table', () => {
  const open = (own: Rig = rig) => {
    const { store } = show(<RouteScreen />, { rig: own });
    const wanted = (sourceId: string, listenerId: string) =>
      selectRig(store.getState())!.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId)?.want;
    return { user: userEvent.setup(), store, wanted };
  };
  const at = (name: RegExp) => screen.getByRole('gridcell', { name });
  const card = () => screen.getByRole('complementary', { name: say.sourceAndDestination() });

  it('is walked by arrow keys, and the card follows', async () => {
    const { user } = open();
    await user.click(at(/^Couch game at Stream: must; twice/));
    expect(card().textContent).toMatch(/Couch game → Stream.*Path 1.*Game console.*Path 2/);
    await user.keyboard('{ArrowDown}');
    expect(document.activeElement).toBe(at(/^Wren, voice at Stream/));
    expect(card().textContent).toMatch(/Wren, voice → Stream/);
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowRight}');
    expect(card().textContent).toMatch(/Couch game → Track 1, all/);
  });
  it('takes what is wanted by one key, judges it at once, and undo takes it back', async () => {
    const { user, store, wanted } = open();
    await user.click(at(/^Couch voices at Backup recorder: arrives/));
    await user.keyboard('x');
    expect(wanted('couch', 'backup')).toBe('must-not');
    expect(at(/^Couch voices at Backup recorder: must not; should not arrive/)).toBeTruthy();
    await user.keyboard('o');
    expect(wanted('couch', 'backup')).toBe('may');
    await user.keyboard('{Backspace}');
    expect(wanted('couch', 'backup')).toBeUndefined();
    store.dispatch(undoStep());
    expect(wanted('couch', 'backup')).toBe('may');
    await user.click(within(card()).getByRole('button', { name: /^must arrive/ }));
    expect(wanted('couch', 'backup')).toBe('must');
  });
  it('takes how far under the voice it is wanted, and says where it is not', async () => {
    const { user, store } = open();
    await user.click(at(/^Ambrose, jingles at Backup recorder: must; arrives, 7 dB below/));
    const field = screen.getByLabelText(say.targetBelowMainVoice());
    await user.type(field, '14{Enter}');
    expect(at(/^Ambrose, jingles at Backup recorder: must; too loud/)).toBeTruthy();
    expect(card().textContent).toMatch(/dB below the main voice/);
    await user.clear(field);
    await user.type(field, '6{Enter}');
    expect(at(/^Ambrose, jingles at Backup recorder: must; arrives/)).toBeTruthy();
    await user.clear(field);
    await user.type(field, '{Enter}');
    const said = selectRig(store.getState())!.plan.find((c) => c.sourceId === 'jingles' && c.listenerId === 'backup');
    expect(said).toEqual(rig.plan.find((c) => c.sourceId === 'jingles' && c.listenerId === 'backup'));
  });
  it('tells which mute takes it, the one that takes least first', async () => {
    const { user } = open();
    await user.click(at(/^Ambrose, jingles at Backup recorder/));
    const mutes = await screen.findByRole('region', { name: say.mutesOnThisPath() });
    expect(within(mutes).getAllByRole('listitem')[0]!.textContent).toMatch(
      /^Mixer, Channels 7 and 8, mute silences this, and also silences “Ambrose, jingles” at .+ and \d+ more$/,
    );
  });
  it('shows where a sound stops, and opens its way in one step', async () => {
    const muted = applyEdit(rig, {
      kind: 'batch',
      edits: ['strip-1-mute', 'strip-1-fader'].map((settingId, i) => ({
        kind: 'set-setting' as const,
        deviceId: 'mixer',
        settingId,
        setting: { value: i === 0 ? true : -90, known: 'confirmed' as const },
      })),
    });
    if (!muted.ok) throw new Error(textOf(muted.refusal.reason));
    const { user, store } = open(muted.rig);
    await user.click(at(/^Wren, voice at Backup recorder: must; missing/));
    const stops = within(card())
      .getAllByRole('listitem')
      .map((li) => li.textContent);
    expect(stops).toContain('Mixer, Channel 1, mute: on → off');
    expect(stops).toContain('Mixer, Channel 1, fader: fully down → 0 dB');
    await user.click(within(card()).getByRole('button', { name: /^Add to-do/ }));
    expect(at(/^Wren, voice at Backup recorder: must; arrives/)).toBeTruthy();
    expect(selectRig(store.getState())!.tasks).toHaveLength(stops.length);
  });
  it('says how far a sound comes where no way leads on', async () => {
    const cut = { ...rig, cables: rig.cables.filter((c) => c.id !== 'phone-line') };
    const { user } = open(cut);
    await user.click(at(/^Ambrose, jingles at Stream: must; missing/));
    expect(card().textContent).toMatch(/No path.*The signal gets as far as Ambrose’s phone/);
  });
  it('shows only what is wrong by one key', async () => {
    const { user } = open();
    const columns = () => screen.getAllByRole('columnheader').length;
    const before = columns();
    await user.keyboard('w');
    expect(columns()).toBeLessThan(before);
    await user.keyboard('w');
    expect(columns()).toBe(before);
  });
  it('proposes a plan to a rig that has none, and takes it by one key and back by undo', async () => {
    const { user, store, wanted } = open({ ...rig, plan: [] });
    expect(screen.getByRole('region', { name: say.suggestedPlan() }).textContent).toMatch(
      /we suggest \d+ requirements/,
    );
    await user.keyboard('p');
    expect(wanted('ilse', 'ilse')).toBe('must-not');
    expect(screen.queryByRole('region', { name: say.suggestedPlan() })).toBeNull();
    store.dispatch(undoStep());
    expect(selectRig(store.getState())!.plan).toEqual([]);
  });
  it('says what to do where nothing sounds yet', () => {
    open({ ...rig, devices: [], cables: [], sources: [], listeners: [], plan: [], dismissed: [] });
    expect(screen.getByText(/No sources or destinations yet\. Add devices in/)).toBeTruthy();
  });
});
