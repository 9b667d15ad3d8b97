import type { Text } from '#core/base/said/index.ts';
import { applyEdit, type Edit, emptyRig, isCall, isWorn, markDone, type Rig } from '#core/model/rig/index.ts';
import type { OwnWords } from '#core/routing/grammar/index.ts';
import { readTyped, startingLevels, type Typed } from '#core/routing/wiring/index.ts';
import { askedBy, check, type Question } from '#core/rules/index.ts';
import { adaptPlugIns, bridgeGaps, padLines, shareInputs } from './between.ts';
import { Builder, listed, type Made } from './builder.ts';
import { hearGames } from './hear-game.ts';
import { callOnPhones, hostPrograms, hostUsb, nameProgram } from './hosts.ts';
import { interfaceForMics } from './listed-mics.ts';
import { looseGaps, moveSources, plugLoose, plugScreens } from './loose.ts';
import {
  callThose,
  dropIdleVoices,
  dropSilentVoices,
  earsForCalls,
  seatFarPeople,
  seatInRoom,
  seatPeople,
} from './people.ts';
import { dropUnreached, planFor } from './plan.ts';
import { clipOnMics, handMics, playIntoIdle } from './players.ts';
import { callMicrophones, connectPrograms } from './programs.ts';
import { type Answers, type Decision, decide, YES_NO } from './questions.ts';
import { say } from './sayings.ts';
import { chooseUse, delayPrograms, settleRouting, takeInMono, turnSwitches } from './settle.ts';
import { momentsOfSwitches } from './switched.ts';
import { passVoicesOn } from './system-sound.ts';

export interface DeskOptions {
  /** What the rig is called. */
  readonly name?: string;
  readonly own?: OwnWords;
  readonly answers?: Answers;
  /** Ids of what was made and is not to be. */
  readonly without?: ReadonlySet<string>;
}

/** A first desk: the typed text, what follows from it, questions that are open, and the resulting rig. */
export interface DeskRead {
  readonly typed: Typed;
  readonly made: readonly Made[];
  readonly decisions: readonly Decision[];
  /** Null where nothing was understood. */
  readonly rig: Rig | null;
}

const NO_ANSWERS: Answers = new Map();

/**
 * Reads a desk typed in plain words and makes a working rig of it: devices and cables as typed, then who talks into which
 * microphone, which app captures what, who must hear what, and initial gains. All of it is assumed; each thing
 * that was not typed is reported in a sentence and can be dismissed, and what only a person knows is asked.
 */
export function readDesk(
  text: string,
  { name = 'My desk', own, answers = NO_ANSWERS, without = new Set() }: DeskOptions = {},
): DeskRead {
  const typed = readTyped(emptyRig(name), text, { levels: false, ...(own && { own }) });
  if (!typed.edit) return { typed, made: [], decisions: [], rig: null };
  const b = new Builder(typed.rig, typed.you, without, answers);
  const decisions: Decision[] = [];
  decisions.push(...bridgeGaps(b, typed.leads, answers, false));
  hostPrograms(b);
  if (typed.waiting.length === 0) hostUsb(b);
  decisions.push(...interfaceForMics(b, new Set(typed.waiting), answers));
  plugLoose(b, new Set(typed.waiting));
  shareInputs(b);
  decisions.push(...bridgeGaps(b, looseGaps(b, new Set(typed.waiting)), answers, false));
  decisions.push(...bridgeGaps(b, typed.leads, answers, true));
  plugScreens(b);
  playIntoIdle(b);
  clipOnMics(b);
  handMics(b, typed.spoken);
  adaptPlugIns(b);
  moveSources(b);
  chooseUse(b);
  callOnPhones(b);
  padLines(b);
  decisions.push(...nameProgram(b, text, answers));
  const uses = [...typed.uses, ...callThose(b, typed.uses)];
  seatFarPeople(b, uses);
  earsForCalls(b);
  seatPeople(b, typed.waiting.length > 0);
  if (typed.waiting.length === 0) dropSilentVoices(b);
  connectPrograms(b, uses, answers);
  passVoicesOn(b);
  seatInRoom(b);
  decisions.push(...aboutCalls(b, typed, answers));
  if (typed.waiting.length === 0) dropIdleVoices(b);
  decisions.push(...hearGames(b, answers));
  for (const cell of planFor(b, answers))
    b.take({ kind: 'set-plan', sourceId: cell.sourceId, listenerId: cell.listenerId, cell });
  momentsOfSwitches(b);
  turnSwitches(b);
  takeInMono(b);
  settleRouting(b);
  // What has a path may arrive on only one side of it.
  turnSwitches(b);
  dropUnreached(b);
  delayPrograms(b);
  decisions.push(...askOfSettings(b, answers));
  for (const edit of startingLevels(b.rig, new Set(b.rig.devices.map((d) => d.id)))) b.take(edit);
  return { typed, made: b.made, decisions, rig: b.rig };
}

/** What has to be decided of a call: whether the stream hears who is over there, and which microphone they hear. */
function aboutCalls(b: Builder, { uses }: Typed, answers: Answers): Decision[] {
  return b.rig.devices
    .filter((d) => isCall(b.typeOf(d.id)))
    .flatMap((call): Decision[] => {
      const who = farName(b, call.id);
      const streams = b.rig.devices.some(
        (d) => d.on === call.on && b.typeOf(d.id).ports.some((p) => p.does === 'stream'),
      );
      const mics = call.on ? callMicrophones(b, call.on, call.id, uses) : [];
      return [
        ...(streams
          ? [
              decide(answers, {
                id: `stream-hears:${call.id}`,
                asks: say.shouldStreamHear({ who }),
                options: YES_NO,
              }),
            ]
          : []),
        ...(new Set(mics.map((m) => m.deviceId)).size > 1
          ? [
              decide(answers, {
                id: `call-mic:${call.id}`,
                asks: say.whichMicHeardBy({ who }),
                options: [...new Set(mics.map((m) => m.deviceId))].map((id) => ({ id, label: b.device(id).name })),
              }),
            ]
          : []),
      ];
    });
}

/** Who is at the other end of a call, as one asks for them. */
function farName(b: Builder, callId: string): Text {
  const gear = b.rig.cables
    .filter((c) => c.to.deviceId === callId && isWorn(b.typeOf(c.from.deviceId)))
    .map((c) => c.from.deviceId);
  const people = b.rig.cables
    .filter((c) => c.medium === 'air' && gear.includes(c.to.deviceId))
    .map((c) => b.device(c.from.deviceId).name);
  return people.length > 0 ? listed([...new Set(people)]) : b.device(callId).name;
}

/** Whether a setting still stops the session with an edit. */
function stopsWith(rig: Rig, edit: Edit, { deviceId, settingId }: Pick<Question, 'deviceId' | 'settingId'>): boolean {
  const done = applyEdit(rig, edit);
  return (
    !done.ok ||
    check(done.rig).some(
      (f) => f.severity === 'stop' && f.where.setting?.deviceId === deviceId && f.where.setting.settingId === settingId,
    )
  );
}

/** What would stop the session, and hangs on how a device stands that no one has looked at: asked now, seen when answered. */
function askOfSettings(b: Builder, answers: Answers): Decision[] {
  const stops = check(b.rig).filter((f) => f.severity === 'stop' && f.asks && f.where.setting);
  return askedBy(b.rig, stops).flatMap((question) => {
    if (question.settingId === null || question.answers.length < 2) return [];
    const idOf = ({ changes }: (typeof question.answers)[number]): string =>
      changes.map((c) => ('settingId' in c ? String(c.value) : c.cableId)).join(' ');
    const options = question.answers.map((a) => ({ id: idOf(a), label: a.label }));
    const asks = say.askOfDevice({ device: b.device(question.deviceId).name, asks: question.asks });
    // A desk is set so that it works, e.g. phantom power is on: anyone who can't do that answers so.
    const settled = question.answers.find((a) => !stopsWith(b.rig, markDone(b.rig, a.changes), question));
    const asked = decide(answers, {
      id: `ask:${question.id}`,
      asks,
      options,
      ...(settled && { usual: idOf(settled) }),
    });
    const answer = question.answers.find((a) => idOf(a) === asked.taken);
    if (answer && asked.answered) b.take(markDone(b.rig, answer.changes));
    else if (answer)
      for (const change of answer.changes)
        if ('settingId' in change) b.take(b.set(change.deviceId, change.settingId, change.value));
    return [asked];
  });
}
