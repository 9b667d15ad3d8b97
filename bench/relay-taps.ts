import { loadFft } from '#cli/edges.ts';
import { type FftOf, recordingOf, seededRandom } from '#core/audio/samples/index.ts';
import {
  type AllExpected,
  type Expected,
  expectedOf,
  explain,
  judge,
  playersOf,
  type StandInDesk,
  standInTake,
  type TakeRead,
} from '#core/desk-tests/tap-test/index.ts';
import { isSameFault, readingsAt, rigWith } from '#core/desk-tests/tap-test/taptest.testkit.ts';
import { AFTER_MS, BEFORE_MS, readTap } from '#core/desk-tests/tunes/index.ts';
import { type Fault, faultsOf } from '#core/live/troubleshoot/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import type { Row } from './report.ts';

const FAULTS = 20;
const DESKS = 3;
/** Less apart than this a take tells nothing of a fault. */
const MIN_APART = 2;
/** What is to be heard stands no further under the loudest; a second way no further under the first, and no nearer to it. */
const SURELY_DB = 24;
const SECOND_DB = 15;
const SECOND_MS = 5;

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const listenerIds = rig.listeners.map((l) => l.id);
const players = playersOf(rig);
const evaluation = evaluate(rig);
const expected = expectedOf(rig, evaluation, listenerIds);

/** Every listener's take of a desk that stands in for the real one, made as sound and read. */
async function takesAt(fftOf: FftOf, desk: StandInDesk): Promise<TakeRead[]> {
  const takes: TakeRead[] = [];
  for (const listenerId of listenerIds) {
    const { samples, sampleRateHz } = standInTake(fftOf, rig, desk, listenerId, players);
    const ids = players.map((p) => p.tune);
    const reading = await readTap(fftOf, recordingOf([samples], sampleRateHz), { ids });
    takes.push({ listenerId, fileId: listenerId, tunes: reading?.tunes ?? [] });
  }
  return takes;
}

/** Ways of one source that a take of the desk as delivered surely tells apart. */
const isTwice = ({ ways }: Expected): boolean =>
  ways.slice(1).some((w) => {
    const afterMs = w.delayMs.nominal - ways[0]!.delayMs.nominal;
    const isSeen = afterMs > -BEFORE_MS && afterMs < AFTER_MS && Math.abs(afterMs) > SECOND_MS;
    return isSeen && ways[0]!.levelDb - w.levelDb <= SECOND_DB && !w.heldBack;
  });

/** As delivered it differs from its plan in many places: whether takes tell of each, and of nothing else. */
async function delivered(fftOf: FftOf): Promise<Row[]> {
  const against = { told: 0, of: 0, wrong: 0 };
  const twice = { told: 0, of: 0 };
  let grave = 0;
  for (let seed = 1; seed <= DESKS; seed++) {
    const { cells } = judge(rig, expected, await takesAt(fftOf, { seed, faultId: null }), players);
    for (const cell of cells) {
      const is = cell.expected;
      const isThere = is.underDb !== null && is.underDb <= SURELY_DB && !is.ways[0]!.heldBack;
      const should =
        cell.want === 'must-not' && isThere ? 'unwanted' : cell.want === 'must' && !is.ways[0] ? 'lacking' : null;
      if (should) against.of++;
      if (should && cell.toPlan === should) against.told++;
      if (cell.toPlan === 'lacking' && isThere) against.wrong++;
      if (cell.toPlan === 'unwanted' && !is.ways[0]) against.wrong++;
      if (isThere && isTwice(is)) {
        twice.of++;
        if ((cell.read?.heard?.seconds.ways.length ?? 0) > 0) twice.told++;
      }
      if (cell.disagreements.some((d) => d.weight >= 3)) grave++;
    }
  }
  return [
    {
      what: `Boathouse relay as delivered, ${DESKS} desks by sound: what is not as wanted`,
      ours: `${against.told} of ${against.of} told, ${against.wrong} wrongly; grave disagreements with the drawing ${grave}`,
      other: '',
      ratio: null,
      goal: 'all, none wrongly',
      reached: against.told === against.of && against.wrong === 0 && grave === 0,
    },
    {
      what: '  sources that come twice',
      ours: `${twice.told} of ${twice.of} read as twice`,
      other: '',
      ratio: null,
      goal: '95 %',
      reached: twice.told >= 0.95 * twice.of,
    },
  ];
}

/** What comes to takes, by every way: how loud, how late, on whose clock. */
const soundOf = (all: AllExpected): string =>
  [...all.values()]
    .map(({ ways }) =>
      ways.map((w) => [w.levelDb.toFixed(0), w.delayMs.nominal.toFixed(0), w.polarity, w.clock]).join(),
    )
    .join('|');

/**
 * Faults by chance of those that takes can tell: of routing, levels, delays and clocks alike. A program that lets voices
 * pass only keeps no tune back in the end (see Measure of calls), and stand-ins do not act as if it did.
 */
function planted(): Fault[] {
  const all = faultsOf(rig, evaluation).filter((f) => f.edit || f.dead.length > 0);
  const random = seededRandom(40);
  const chosen: Fault[] = [];
  while (chosen.length < FAULTS) {
    const fault = all[Math.floor(random() * all.length)]!;
    if (chosen.includes(fault)) continue;
    const desk = fault.edit ? rigWith(rig, fault) : rig;
    if (soundOf(expectedOf(desk, evaluate(desk), listenerIds, new Set(fault.dead))) === soundOf(expected)) continue;
    const takes = readingsAt(desk, fault.dead, listenerIds, players, chosen.length);
    if (judge(rig, expected, takes, players).apart >= MIN_APART) chosen.push(fault);
  }
  return chosen;
}

async function hidden(fftOf: FftOf): Promise<Row[]> {
  let [found, first, among] = [0, 0, 0];
  for (const [n, fault] of planted().entries()) {
    const takes = await takesAt(fftOf, { seed: 100 + n, faultId: fault.id });
    if (judge(rig, expected, takes, players).apart >= MIN_APART) found++;
    const place = explain(rig, takes, players).findIndex((e) => e.faults.some((f) => isSameFault(f, fault)));
    if (place >= 0) among++;
    if (place === 0) first++;
    process.stdout.write(`${fault.id}: ${place < 0 ? 'not among three' : `explanation ${place + 1}`}\n`);
  }
  return [
    {
      what: `Boathouse relay, ${FAULTS} faults hidden at the desk, by sound`,
      ours: `${found} found; right explanation first ${first}, among three ${among}`,
      other: '',
      ratio: null,
      goal: 'every one, among three',
      reached: found === FAULTS && among === FAULTS,
    },
  ];
}

/** The main demo tapped by stand-ins: sound made of hidden true figures, read, judged and explained. */
export async function relayTaps(): Promise<Row[]> {
  const fftOf = await loadFft();
  return [...(await delivered(fftOf)), ...(await hidden(fftOf))];
}
