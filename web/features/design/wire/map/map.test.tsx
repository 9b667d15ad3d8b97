// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { lineMap } from '#core/output/map/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { WireScreen } from '#web/features/design/wire/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { fixesApi } from '#web/shared/workers/fix-api.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { stubWorker } from '#web/worker.testkit.ts';
import { common, wire as say } from '#words/index.ts';
import {
  balloonsOf,
  beside,
  broken,
  extentsOf,
  isolated,
  middleOf,
  strandOffset,
  strandWidth,
  tappedCables,
  withinView,
} from './drawn.ts';
import { bringIn, fitView, openView, zoomAt } from './useView.ts';

beforeEach(() => {
  stubServer(noServer);
  stubWorker(fixesApi);
});
const rig = demoRig();
const evaluation = evaluate(rig);
const map = lineMap(rig, evaluation);

describe('what is drawn', () => {
  it('puts strands side by side: level pieces move up or down, upright ones along', () => {
    expect(
      beside(
        [
          [0, 0],
          [10, 0],
          [10, 20],
          [30, 20],
        ],
        3,
      ),
    ).toEqual([
      [0, 3],
      [13, 3],
      [13, 23],
      [30, 23],
    ]);
    expect([0, 1, 2].map((i) => strandOffset(i, 3))).toEqual([-4, 0, 4]);
    expect(strandWidth(0)).toBeLessThan(strandWidth(1));
  });
  it('breaks a silent line in the middle of its longest piece', () => {
    const { before, after, at } = broken([
      [0, 0],
      [10, 0],
      [10, 100],
      [20, 100],
    ]);
    expect(at).toEqual([10, 50]);
    expect(before.at(-1)![1]).toBeLessThan(after[0]![1]);
    expect(
      middleOf([
        [0, 0],
        [40, 0],
      ]),
    ).toEqual({ x: 20, y: 0, level: true, length: 40 });
  });
  it('gives every finding that counts a balloon with its number', () => {
    const findings = check(rig).filter((f) => f.stage !== 'sync');
    const balloons = balloonsOf(map, findings);
    expect(balloons.map((b) => b.number)).toEqual(findings.flatMap((f, i) => (f.dismissed ? [] : [i + 1])));
    expect(new Set(balloons.map((b) => `${b.x} ${b.y}`)).size).toBe(balloons.length);
  });
  it('isolates the ways of a source and a listener, and the way to the tap', () => {
    expect(isolated(evaluation, null, null)).toBeNull();
    const game = isolated(evaluation, 'couch-game', 'stream')!;
    expect(game).toContain('splitter-capture');
    expect(game).not.toContain('phone-line');
    expect(tappedCables(evaluation, { deviceId: 'mixer', portId: 'strip-1' })).toContain('air-wren');
    expect(tappedCables(evaluation, null).size).toBe(0);
  });
});

describe('the view', () => {
  it('fits all of the map, and blows small ones not up', () => {
    expect(fitView(2000, 500, 824, 424).scale).toBeCloseTo(0.4, 6);
    expect(fitView(100, 100, 800, 400).scale).toBe(1);
  });
  it('opens with letters that can be read, from where the signal begins', () => {
    expect(openView(2000, 500, 824, 424, 2 / 3)).toMatchObject({ scale: 2 / 3 });
    expect(openView(2000, 500, 824, 424, 2 / 3).x).toBeLessThan(0);
    expect(openView(900, 400, 824, 424, 2 / 3)).toEqual(fitView(900, 400, 824, 424));
  });
  it('keeps the point that one zooms at where it is', () => {
    fc.assert(
      fc.property(fc.nat(800), fc.nat(400), fc.constantFrom(0.8, 1.25), (x, y, factor) => {
        const before = { x: 30, y: -20, scale: 0.7 };
        const after = zoomAt(before, factor, x, y);
        expect(after.x + x / after.scale).toBeCloseTo(before.x + x / before.scale, 6);
        expect(after.y + y / after.scale).toBeCloseTo(before.y + y / before.scale, 6);
      }),
    );
  });
  it('moves no more than needed to show a place', () => {
    const view = { x: 0, y: 0, scale: 1 };
    expect(bringIn(view, 800, 400, 400, 200)).toEqual(view);
    expect(bringIn(view, 800, 400, 1000, 200).x).toBe(260);
  });
});

describe('what is out of view', () => {
  it('is not drawn, and everything is when all of the map is shown', () => {
    const extents = [...extentsOf(map.drawing).values()];
    const fitted = fitView(map.drawing.widthPx, map.drawing.heightPx, 824, 424);
    expect(extents.every((e) => withinView(e, fitted, 824, 424))).toBe(true);
    const corner = { x: 0, y: 0, scale: 3 };
    const seen = extents.filter((e) => withinView(e, corner, 600, 300));
    expect(seen.length).toBeGreaterThan(0);
    expect(seen.length).toBeLessThan(extents.length);
    const away = { x: 1e6, y: 1e6, scale: 1 };
    expect(extents.some((e) => withinView(e, away, 824, 424))).toBe(false);
  });
});

describe('the map on the screen', () => {
  it('is walked by arrow keys, tells the tap, and is left by Escape', async () => {
    const user = userEvent.setup();
    show(<WireScreen />, { at: '/?tap=console.hdmi' });
    const card = () => screen.getByLabelText(say.tapPoint()).textContent;
    expect(card()).toMatch(/Tap point:/);
    screen.getByRole('application').focus();
    await user.keyboard('{ArrowRight}');
    expect(card()).toMatch(/Tap point: Splitter, HDMI in.*−20 dBFS/);
    await user.keyboard('{ArrowLeft}');
    expect(card()).toMatch(/Game console, HDMI/);
    await user.keyboard('{Escape}');
    expect(screen.queryByLabelText(say.tapPoint())).toBeNull();
    expect(screen.getByLabelText(common.issue())).toBeTruthy();
  });
  it('has a name for every box, line and balloon, and opens what is pressed', async () => {
    const user = userEvent.setup();
    show(<WireScreen />);
    await user.click(screen.getByRole('button', { name: /^Issue 1:/ }));
    expect(within(screen.getByLabelText(common.issue())).getByText(common.basedOn())).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Mixer, Mixer, digital/ }));
    expect(screen.getByLabelText(say.tapPoint()).textContent).toMatch(/Mixer/);
    await user.click(screen.getByRole('button', { name: 'Splitter → Console capture: Couch game' }));
    expect(screen.getByLabelText(say.tapPoint()).textContent).toMatch(/Console capture, HDMI in/);
  });
  it('opens and folds what belongs together, in place', async () => {
    const user = userEvent.setup();
    show(<WireScreen />);
    screen.getByRole('application').focus();
    await user.keyboard('0');
    const program = () => screen.queryByRole('button', { name: /^Streaming software, / });
    expect(program()).toBeNull();
    await user.click(screen.getByRole('button', { name: say.openGroup({ device: 'Desk computer' }) }));
    expect(program()).toBeTruthy();
    await user.click(screen.getByRole('button', { name: say.foldGroup({ device: 'Desk computer' }) }));
    expect(program()).toBeNull();
  });
  it('closes the panel by Escape, and opens it with the next issue', async () => {
    const user = userEvent.setup();
    show(<WireScreen />);
    await user.keyboard('{Escape}');
    expect(screen.queryByLabelText(common.issue())).toBeNull();
    await user.keyboard('j');
    expect(screen.getByLabelText(common.issue())).toBeTruthy();
  });
  it('shows one kind of line alone', async () => {
    const user = userEvent.setup();
    show(<WireScreen />);
    await user.selectOptions(screen.getByLabelText(say.layerShown()), 'power');
    expect(screen.getByRole('button', { name: /^Couch strip, / })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Mixer, / })).toBeNull();
  });
  it('puts an isolator in by key: the lead is to be done at the desk, the hum is gone', async () => {
    const user = userEvent.setup();
    show(<WireScreen />, { at: '/?finding=ground-hum-loop:extractor-line' });
    await screen.findByText(common.fixes());
    await user.keyboard('d');
    expect(screen.queryByText(/closes a ring of earths/)).toBeNull();
    expect(screen.getByRole('button', { name: /^Isolator before Mixer, Line isolator/ })).toBeTruthy();
  });
});
