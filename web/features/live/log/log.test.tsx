// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { seriesOf, sessionsOf } from '#core/live/run/index.ts';
import { seriesToCsv, sessionsToCsv } from '#core/output/exchange/index.ts';
import { relayDays } from '#demo/relay-days.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { layoutControl, sayChart } from '#web/shared/charts/index.ts';
import { useJournal } from '#web/shared/store/index.ts';
import { RIG_ID, show } from '#web/web.testkit.tsx';
import { log as say } from '#words/index.ts';
import { LogScreen } from './index.ts';
import { matches } from './search.ts';

let hear: (pieces: readonly Float32Array[], rate: number) => void;
vi.mock('#web/shared/listen/index.ts', () => ({
  openPieces: async (_id: null, _sides: number, onPieces: typeof hear) => {
    hear = onPieces;
    return { inputs: [], inputId: '', sampleRateHz: 8000, stop: () => undefined };
  },
}));

const events = relayDays();
const sessions = sessionsOf(events);
const series = seriesOf(sessions);

describe('what the log holds', () => {
  it('is found by any of its words', () => {
    const found = (search: string) => sessions.filter((s) => matches(s, search)).length;
    expect(found('')).toBe(24);
    expect(found('firmware')).toBe(1);
    expect(found('WREN plug')).toBe(2);
    expect(found('wren firmware')).toBe(0);
    expect(found(say.hadProblems())).toBe(2);
  });
  it('goes out as tables', () => {
    const rows = sessionsToCsv(sessions).split('\n');
    expect(rows).toHaveLength(1 + 24 + 1);
    expect(rows[1]).toMatch(/^2026-11-05T17:30:00.000Z,2026-11-05T19:30:00.000Z,2.00,Rehearsal 24,yes,all as planned/);
    expect(seriesToCsv(series).split('\n')).toHaveLength(1 + 2 * 24 + 1);
    expect(seriesToCsv(series)).toMatch(/delay,ms,2026-11-05[^,]*,[\d.]+,0.9,5,up/);
  });
  it('has figures over time: what moved first, each in its band', () => {
    expect(series.map((s) => s.moved)).toEqual(['up', null]);
    expect(sayChart(series[0]!)).toMatch(
      /^Couch game at Stream: delay: 6\d\.\d ms in the last session; normal 63\.\d ±1\.\d; has changed up by more than chance\.$/,
    );
    const { marks, bandPx, meanPx } = layoutControl(series[0]!, 400, 120);
    expect(marks).toHaveLength(24);
    expect(
      marks.every(
        (m, i) => m.px >= 0 && m.px <= 400 && m.py >= 0 && m.py <= 120 && (i === 0 || m.px > marks[i - 1]!.px),
      ),
    ).toBe(true);
    expect(bandPx!.from).toBeLessThan(meanPx!);
    expect(bandPx!.to).toBeGreaterThan(meanPx!);
    expect(marks.at(-1)!.py).toBeLessThan(bandPx!.from);
    expect(
      layoutControl({ ...series[0]!, points: series[0]!.points.slice(0, 3), chart: null }, 400, 120).bandPx,
    ).toBeNull();
  });
});

function Here() {
  useJournal(RIG_ID);
  return <LogScreen />;
}
const open = (all: readonly unknown[]) => {
  const posted: unknown[] = [];
  stubServer(async (request) => {
    if (request.method === 'POST') {
      posted.push(...((await request.json()) as { events: unknown[] }).events);
      return new Response(null, { status: 204 });
    }
    const after = Number(new URL(request.url).searchParams.get('after'));
    return answer(200, { events: all.slice(after), seq: all.length, more: false, revision: 1 });
  });
  show(
    <Routes>
      <Route path="/rigs/:rigId/log" element={<Here />} />
    </Routes>,
    { at: `/rigs/${RIG_ID}/log` },
  );
  return posted;
};

describe('the log', () => {
  it('says what stands otherwise than when it was good, and finds sessions', async () => {
    const user = userEvent.setup();
    open(events);
    const since = await screen.findByLabelText(say.sinceLastGoodSession());
    expect(since.textContent).toContain('“Mixer”, Channel 1, gain: 52 dB → 58 dB');
    expect(since.textContent).toContain('New: Ambrose’s phone');
    expect(screen.getByLabelText(say.figuresOverTime()).textContent).toContain(
      '1 measurement has changed by more than chance',
    );
    await user.type(screen.getByLabelText(say.searchLog()), 'copy protection');
    expect(screen.getByText('1 of 24 match')).toBeTruthy();
    expect(within(screen.getByLabelText('Sessions')).getByText('Rehearsal 10')).toBeTruthy();
  });
  it('is empty at first and says how it begins; a note goes into it', async () => {
    const user = userEvent.setup();
    const posted = open([]);
    expect(screen.getByText(/; when you end it, it’s listed here with what/)).toBeTruthy();
    await user.type(screen.getByLabelText(say.noteForLog()), 'borrowed a lead{Enter}');
    await waitFor(() => expect(posted).toHaveLength(2));
    expect(posted[1]).toMatchObject({ kind: 'note', says: 'borrowed a lead' });
  });
  it('holds a sentence against the last that went well, what differs first', async () => {
    const user = userEvent.setup();
    const sessionId = '66666666-6666-4666-8666-666666666666';
    const base = { sessionId, by: 'desk', at: '2026-11-20T10:00:00.000Z' };
    const figure = (n: number, id: string, value: number) => ({
      ...base,
      id: `77777777-7777-4777-8777-00000000000${n}`,
      kind: 'figure',
      measurementId: id,
      key: `same:stream:${id}`,
      label: id,
      unit: 'dB',
      value,
      sd: 0,
      count: 1,
    });
    const end = { ...base, id: '77777777-7777-4777-8777-000000000009', kind: 'end', good: true, says: '', rig: null };
    const posted = open([figure(1, 'lufs', -40), figure(2, 'toneHz', 1273), end]);
    await screen.findByText(/The rig of the last good session wasn’t saved\./);
    await user.click(screen.getByRole('button', { name: say.recordSentence() }));
    const second = Float32Array.from({ length: 8000 }, (_, i) => 0.1 * Math.sin(i));
    for (let n = 0; n < 15; n++) hear([second], 8000);
    const table = await screen.findByRole('table', { name: say.comparedWithLastTime() });
    const [loudest] = within(table).getAllByRole('row').slice(1);
    expect(screen.getByText(/Not the same as last time/)).toBeTruthy();
    expect(loudest!.textContent).toMatch(/loudness|noise/);
    await user.click(screen.getByRole('button', { name: say.saveWithThisSession() }));
    await waitFor(() =>
      expect(posted.filter((p) => (p as { kind: string }).kind === 'figure').length).toBeGreaterThan(2),
    );
  });
});
