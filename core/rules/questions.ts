import { listOf, type Said, type Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  type Cable,
  type Change,
  type ChosenDevice,
  choosing,
  chosenDevice,
  defaultDevice,
  endName,
  endsBehind,
  findCable,
  findDevice,
  findTypes,
  followingDefault,
  isSettingTask,
  markDone,
  type PortRef,
  type Rig,
  type SettingSpec,
  type SettingValue,
  sameEnd,
  settingAt,
  settingKey,
  settingOf,
  soundDeviceName,
  soundDevicesOf,
  type Types,
} from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, evaluate } from '#core/signal/index.ts';
import type { Finding } from './finding.ts';
import { chainOf, type LeadSeen, leadBetween } from './leads.ts';
import { ADAPTER_RULE } from './plugs.ts';
import { say } from './sayings.ts';

/** What one may see when one looks. */
export interface Answer {
  readonly label: Text;
  /** It is as it was assumed. */
  readonly asDrawn: boolean;
  readonly changes: readonly Change[];
}

/** Something that was assumed, and that it matters to know: one looks at a device and presses a key. */
export interface Question {
  /** `setting:device.setting` or `lead:cable` */
  readonly id: string;
  readonly asks: Said;
  /** Where one looks: the device, and the socket or setting on it. */
  readonly deviceId: string;
  readonly portId: string | null;
  readonly settingId: string | null;
  /** The cable that it is about. */
  readonly cable: Cable | null;
  /** As it was assumed first. */
  readonly answers: readonly Answer[];
  /** Findings that rest on it. */
  readonly findings: readonly Finding[];
  /** Pairs of source and listener whose verdict another answer would change; null until it is worked out. */
  readonly decides: number | null;
}

/** What a finding rests on that no one has looked at; null where it is no setting and no cable. */
function subjectOf(rig: Rig, { where, asks, dismissed }: Finding): string | null {
  if (!asks || dismissed) return null;
  if (where.setting) return `setting:${where.setting.deviceId}.${where.setting.settingId}`;
  const here = rig.cables.filter((c) => where.cableIds.includes(c.id));
  const cable = here.find((c) => c.known === 'assumed') ?? here[0];
  return cable ? `lead:${cable.id}` : null;
}

/** Questions that findings put, those with the most findings first. Cheap: read from the list. */
export function askedBy(rig: Rig, findings: readonly Finding[]): Question[] {
  const bySubject = new Map<string, Finding[]>();
  for (const finding of findings) {
    const subject = subjectOf(rig, finding);
    if (subject) bySubject.set(subject, [...(bySubject.get(subject) ?? []), finding]);
  }
  const types = findTypes(rig);
  return [...bySubject]
    .flatMap(([id, own]) => questionAt(rig, types, id, own) ?? [])
    .sort((a, b) => b.findings.length - a.findings.length);
}

/**
 * Every question that it matters to answer: what findings ask, and each assumed switch, mute or cable that decides what
 * someone hears. By how many pairs their answer decides. Costs an evaluation for each other answer.
 */
export function questionsOf(rig: Rig, evaluation: Evaluation, findings: readonly Finding[]): Question[] {
  const types = findTypes(rig);
  const asked = askedBy(rig, findings);
  const known = new Set(asked.map((q) => q.id));
  const others = [...assumedDoors(rig, types), ...assumedLeads(rig), ...assumedChoices(rig, types)]
    .filter((id) => !known.has(id))
    .flatMap((id) => questionAt(rig, types, id, []) ?? []);
  return [...asked, ...others]
    .map((question) => ({ ...question, decides: decides(rig, evaluation, question) }))
    .filter((q) => q.decides > 0 || q.findings.length > 0)
    .sort((a, b) => b.decides - a.decides || b.findings.length - a.findings.length);
}

/** One question by its id, whether or not it matters yet; null where the rig has nothing of the kind. */
export function questionOf(rig: Rig, findings: readonly Finding[], id: string): Question | null {
  const own = findings.filter((finding) => subjectOf(rig, finding) === id);
  return /^(setting|lead):./.test(id) ? questionAt(rig, findTypes(rig), id, own) : null;
}

/** Which answer is meant, for the same question in the same rig: what it says is not sent, and what it changes is read from the rig. */
export const answerKey = ({ asDrawn, changes }: Pick<Answer, 'asDrawn' | 'changes'>): string =>
  asDrawn ? 'as-drawn' : JSON.stringify(changes);

/** Switches and mutes on some way within a device that has leads, as no one has looked at them. */
function assumedDoors(rig: Rig, types: Types): string[] {
  const plugged = new Set(rig.cables.flatMap((c) => [c.from.deviceId, c.to.deviceId]));
  const toDo = new Set(rig.tasks.filter(isSettingTask).map((t) => t.id));
  return rig.devices.flatMap((device) => {
    if (!plugged.has(device.id)) return [];
    const type = types.get(device.typeId)!;
    const doors = new Set(type.inside.flatMap((w) => w.stages.flatMap((s) => (s.do === 'door' ? [s.setting] : []))));
    return (
      type.settings
        .filter((spec) => doors.has(spec.id) && settingOf(device, spec).known === 'assumed')
        // A mute that no one touched is off: no one is asked for it.
        .filter((spec) => spec.kind !== 'mute' || spec.id in device.settings)
        .filter((spec) => !toDo.has(settingKey(device.id, spec.id)))
        .map((spec) => `setting:${device.id}.${spec.id}`)
    );
  });
}

const assumedLeads = (rig: Rig): string[] => {
  const toDo = new Set(rig.tasks.flatMap((t) => (isSettingTask(t) ? [] : [t.cableId])));
  return rig.cables
    .filter((c) => c.medium === 'lead' && c.known === 'assumed' && !toDo.has(c.id))
    .map((c) => `lead:${c.id}`);
};

/** Sound devices that programs have chosen, as no one has looked. */
const assumedChoices = (rig: Rig, types: Types): string[] =>
  rig.cables.filter((c) => c.known === 'assumed' && chosenDevice(rig, types, c)).map((c) => `lead:${c.id}`);

/** Whether no one has looked yet: what the question is about is there, and assumed. */
export function isAssumed(rig: Rig, { deviceId, settingId, cable }: Question): boolean {
  if (cable) return rig.cables.some((c) => c.id === cable.id && c.known === 'assumed');
  const device = findDevice(rig, deviceId);
  const spec = findTypes(rig)
    .get(device?.typeId ?? '')
    ?.settings.find((s) => s.id === settingId);
  return device !== undefined && spec !== undefined && settingOf(device, spec).known === 'assumed';
}

function questionAt(rig: Rig, types: Types, id: string, findings: readonly Finding[]): Question | null {
  const [kind, subject] = id.split(':') as [string, string];
  const base = { id, findings, decides: null };
  if (kind === 'lead') {
    const cable = findCable(rig, subject);
    return cable ? { ...base, ...aboutLead(rig, types, cable, findings) } : null;
  }
  const { deviceId, settingId } = settingAt(subject);
  const device = findDevice(rig, deviceId);
  const spec = device && types.get(device.typeId)?.settings.find((s) => s.id === settingId);
  const options = spec && optionsOf(spec);
  if (!device || !spec || !options) return null;
  const now = settingOf(device, spec).value;
  const answers = options
    .map(([value, label]) => ({ label, asDrawn: value === now, changes: [{ deviceId, settingId, value }] }))
    .sort((a, b) => Number(b.asDrawn) - Number(a.asDrawn));
  return {
    ...base,
    asks: askSettingOf(spec.name, options),
    deviceId,
    portId: null,
    settingId,
    cable: null,
    answers,
  };
}

/** Maximum number of positions that the question names; others are among the answers. */
const NAMED = 3;
const askSettingOf = (setting: string, options: readonly (readonly [SettingValue, Text])[]): Said =>
  options.length <= NAMED
    ? say.settingIsOneOf({
        setting,
        options: listOf(
          'or',
          options.map(([, label]) => label),
        ),
      })
    : say.settingIs({ setting });

function aboutLead(
  rig: Rig,
  types: Types,
  cable: Cable,
  findings: readonly Finding[],
): Omit<Question, 'id' | 'findings' | 'decides'> {
  const name = ({ deviceId, portId }: Cable['from']) =>
    `${deviceName(rig, deviceId)}, ${endName(rig, types, { deviceId, portId })}`;
  const chosen = chosenDevice(rig, types, cable);
  if (chosen) return aboutChoice(rig, types, cable, chosen, findings);
  const into = endName(rig, types, cable.to);
  const there = say.doesCableGo({ lengthM: cable.lengthM, from: name(cable.from), into });
  const put = (label: Text, next: Cable | null, asDrawn = false): Answer => ({
    label,
    asDrawn,
    changes: [{ cableId: cable.id, cable: next }],
  });
  // What is between the plugs is asked of a cable that is there.
  const asksParts = cable.parts === undefined && findings.some((f) => f.rule === ADAPTER_RULE);
  const parts = asksParts ? partsBetween(leadBetween(rig, types, cable)) : null;
  return {
    asks: findings.find((f) => f.asks)?.asks ?? there,
    deviceId: cable.to.deviceId,
    portId: cable.to.portId,
    settingId: null,
    cable,
    answers: parts
      ? [put(say.noItGoesStraight(), { ...cable, parts: [] }, true), put(say.yes(), { ...cable, parts })]
      : [put(say.yesItIs(), cable, true), put(say.thereIsNone(), null)],
  };
}

/** Maximum number of other devices of the list that are named. */
const MAX_OTHERS = 3;

/** Which sound device a program has chosen: as drawn, another one that something is plugged to, or whatever the default is. */
function aboutChoice(
  rig: Rig,
  types: Types,
  cable: Cable,
  { at, ref, use, computerId }: ChosenDevice,
  findings: readonly Finding[],
): Omit<Question, 'id' | 'findings' | 'decides'> {
  const program = at === 'to' ? cable.from : cable.to;
  const name = (end: PortRef) => soundDeviceName(rig, types, end);
  const used = new Set(rig.cables.flatMap((c) => [c.from, c.to]).map((r) => `${r.deviceId}/${r.portId}`));
  const isUsed = ({ deviceId, portId }: PortRef): boolean =>
    endsBehind(types.get(findDevice(rig, deviceId)!.typeId)!, portId).some((p) => used.has(`${deviceId}/${p.id}`));
  const others = soundDevicesOf(rig, computerId, use).filter((other) => !sameEnd(other, ref) && isUsed(other));
  const put = (label: Text, next: Cable, asDrawn = false): Answer => ({
    label,
    asDrawn,
    changes: [{ cableId: cable.id, cable: next }],
  });
  const byDefault = say.theDefaultIs({ ref: name(defaultDevice(rig, computerId, use) ?? ref) });
  return {
    asks:
      findings.find((f) => f.asks)?.asks ??
      say.whichDevice({ deviceId: deviceName(rig, program.deviceId), program: endName(rig, types, program) }),
    deviceId: program.deviceId,
    portId: program.portId,
    settingId: null,
    cable,
    answers: [
      cable.follows ? put(byDefault, cable, true) : put(name(ref), cable, true),
      ...others.slice(0, MAX_OTHERS).map((other) => put(name(other), choosing(rig, cable, other))),
      cable.follows
        ? put(say.refItself({ ref: name(ref) }), choosing(rig, cable, ref))
        : put(byDefault, followingDefault(rig, cable)),
    ],
  };
}

const partsBetween = (lead: LeadSeen): string[] | null => {
  const chain = chainOf(lead);
  return chain && chain !== 'nothing-to-plug' ? chain.parts.map((p) => p.id) : null;
};

/** The positions that a setting can have, in words; null where it is turned, not switched. */
function optionsOf(spec: SettingSpec): [SettingValue, Text][] | null {
  if (spec.kind === 'switch') return spec.options.map((o) => [o.value, o.label]);
  return spec.kind === 'mute'
    ? [
        [true, say.isOn()],
        [false, say.isOff()],
      ]
    : null;
}

/** Pairs whose verdict is another one with some other answer; where nothing is wanted for a listener, no one minds: a track that is not used. */
function decides(rig: Rig, evaluation: Evaluation, { answers }: Question): number {
  const asked = new Set(rig.plan.map((c) => c.listenerId));
  const isAsked = ({ listenerId }: Evaluation['pairs'][number]): boolean => asked.size === 0 || asked.has(listenerId);
  const differ = answers
    .filter((a) => !a.asDrawn)
    .map(({ changes }) => {
      const done = applyEdit(rig, markDone(rig, changes));
      if (!done.ok) return 0;
      const after = evaluate(done.rig).pairs;
      return evaluation.pairs.filter((p, i) => isAsked(p) && p.verdict.word !== after[i]!.verdict.word).length;
    });
  return Math.max(0, ...differ);
}
