import {
  applyEdit,
  type Edit,
  findTypes,
  portOf,
  type SettingChange,
  sayValue,
  sourceIn,
} from '#core/model/rig/index.ts';
import { alignListener, solveRouting } from '#core/routing/suggest/index.ts';
import { check, type Finding } from '#core/rules/index.ts';
import { type Evaluation, evaluate, rolesOf } from '#core/signal/index.ts';
import type { Builder } from './builder.ts';
import { say } from './sayings.ts';

/** What stands otherwise than the device comes, because of what is plugged: a switch, the power of a condenser, a pair of packs with one that is worn. */
const SETTLED = new Set(['exclusive-switched-off', 'power-phantom-missing', 'route-one-side']);

/** What is plugged is chosen and fed, where a switch of the device does it and nothing else goes wrong by it. */
export function turnSwitches(b: Builder): void {
  const tried = new Set<string>();
  const serious = (list: readonly Finding[]) =>
    list.filter((f) => f.severity === 'stop' || f.severity === 'fix').map((f) => f.id);
  // What is chosen at one device lets another one be seen.
  for (;;) {
    const before = check(b.rig);
    const finding = before.find((f) => SETTLED.has(f.rule) && !tried.has(f.id));
    if (!finding) return;
    tried.add(finding.id);
    const was = new Set(serious(before));
    const options = finding.where.deviceIds.flatMap((deviceId) =>
      b
        .typeOf(deviceId)
        .settings.flatMap((spec) =>
          spec.kind === 'switch' ? spec.options.map((o) => ({ deviceId, spec, value: o.value, label: o.label })) : [],
        ),
    );
    const found = options.find(({ deviceId, spec, value }) => {
      const done = applyEdit(b.rig, b.set(deviceId, spec.id, value));
      if (!done.ok) return false;
      const after = check(done.rig);
      return !after.some((f) => f.id === finding.id) && serious(after).every((id) => was.has(id));
    });
    if (!found) continue;
    const { deviceId, spec, value, label } = found;
    const says = say.setTo({ device: b.device(deviceId).name, setting: spec.name, value: label });
    b.make(`set:${deviceId}:${spec.id}`, says, () => [b.set(deviceId, spec.id, value)]);
  }
}

/** Of two ends that cannot be used at once, the one that is plugged is meant: a recorder at a computer records nothing itself. */
export function chooseUse(b: Builder): void {
  for (const { id } of b.rig.devices) {
    const type = b.typeOf(id);
    const isPlugged = (portId: string) =>
      b.rig.cables.some((c) => [c.from, c.to].some((end) => end.deviceId === id && end.portId === portId));
    for (const { ports } of type.exclusive ?? []) {
      if (!ports.some(isPlugged)) continue;
      const idle = b.rig.listeners.filter(
        (l) => l.sound.deviceId === id && ports.includes(l.sound.portId) && !isPlugged(l.sound.portId),
      );
      for (const listener of idle) b.take({ kind: 'remove-listener', listenerId: listener.id });
    }
  }
}

/** A voice on one side of a stereo link is treated as mono: it plays on both sides. */
export function takeInMono(b: Builder): void {
  const { pairs } = evaluate(b.rig);
  const roles = rolesOf(b.rig);
  const oneSided = pairs.filter((p) => {
    const role = roles.source(sourceIn(b.rig, p.sourceId));
    return role.endsWith('voice') && p.ways.length > 0 && p.ways.every((w) => w.sides.length === 1);
  });
  const through = new Set(oneSided.flatMap((p) => p.ways.flatMap((w) => w.deviceIds)));
  for (const cable of b.rig.cables) {
    if (cable.medium !== 'software' || cable.map) continue;
    if (b.typeOf(cable.to.deviceId).nature !== 'program' || b.typeOf(cable.from.deviceId).hosts !== true) continue;
    const there = b.rig.cables.some(
      (c) =>
        c.medium === 'lead' &&
        c.to.deviceId === cable.from.deviceId &&
        through.has(c.from.deviceId) &&
        isBehind(b, cable.from.deviceId, c.to.portId, cable.from.portId),
    );
    if (!there) continue;
    const sides = ['left', 'right'];
    const map = sides.flatMap((from) => sides.map((to) => ({ from, to })));
    b.take({
      kind: 'batch',
      edits: [
        { kind: 'unplug', cableId: cable.id },
        { kind: 'plug', cable: { ...cable, map } },
      ],
    });
  }
}

const isBehind = (b: Builder, hostId: string, portId: string, end: string): boolean =>
  b.typeOf(hostId).inside.some((w) => portOf(w.from) === portId && portOf(w.to) === end);

/** Settings that keep everyone from hearing what they must not hear, or hear twice; reported one by one. */
export function settleRouting(b: Builder): void {
  const evaluation = evaluate(b.rig);
  const isWrong = evaluation.pairs.some(
    (p) =>
      (p.want === 'must-not' && p.ways.length > 0) ||
      (p.want === 'must' && (p.ways.length === 0 || p.verdict.word === 'twice')),
  );
  if (!isWrong) return;
  const found = bestRouting(b, evaluation);
  if (found.relink) b.take(found.relink);
  for (const { deviceId, settingId, value } of found.changes) {
    const spec = b.typeOf(deviceId).settings.find((s) => s.id === settingId);
    if (!spec) continue;
    const says = say.setTo({
      device: b.device(deviceId).name,
      setting: spec.name,
      value: sayValue(spec, value),
    });
    b.make(`set:${deviceId}:${settingId}`, says, () => [b.set(deviceId, settingId, value)]);
  }
}

interface Routing {
  readonly relink: Edit | null;
  readonly changes: readonly SettingChange[];
  /** Pairs that stay wrong. */
  readonly left: number;
}

/** The fewest settings; and where they are not enough, another bus of the mixer for a call: one without who is on it. */
function bestRouting(b: Builder, evaluation: Evaluation): Routing {
  const { changes, left } = solveRouting(b.rig, evaluation);
  let best: Routing = { relink: null, changes, left: left.length };
  if (best.left === 0) return best;
  for (const relink of otherBuses(b)) {
    const done = applyEdit(b.rig, relink);
    if (!done.ok) continue;
    const made = solveRouting(done.rig);
    if (made.left.length < best.left) best = { relink, changes: made.changes, left: made.left.length };
  }
  return best;
}

/** Links of calls to other pairs of channels that the same socket brings. */
function otherBuses(b: Builder): Edit[] {
  return b.rig.cables.flatMap((cable) => {
    const port = b.typeOf(cable.to.deviceId).ports.find((p) => p.id === cable.to.portId);
    if (cable.medium !== 'software' || port?.does !== 'call-microphone') return [];
    const host = cable.from.deviceId;
    const inwards = b.rig.cables.filter(
      (c) => c.to.deviceId === host && c.map && isBehind(b, host, c.to.portId, cable.from.portId),
    );
    const sides = port.channels.map((c) => c.id);
    return inwards.map((c): Edit => {
      const map = sides.map((to, i) => ({ from: c.map![Math.min(i, c.map!.length - 1)]!.to, to }));
      return {
        kind: 'batch',
        edits: [
          { kind: 'unplug', cableId: cable.id },
          { kind: 'plug', cable: { ...cable, map } },
        ],
      };
    });
  });
}

/** Smaller than this, no one sets it before a take has measured it. */
const MIN_MS = 10;

/** Delays in apps that align audio and video by typical figures; reported one by one. */
export function delayPrograms(b: Builder): void {
  const roles = rolesOf(b.rig);
  for (const listener of b.rig.listeners) {
    if (roles.listener(listener) !== 'mix') continue;
    const { changes } = alignListener(b.rig, evaluate(b.rig), listener.id);
    for (const { deviceId, settingId, value } of changes) {
      const type = findTypes(b.rig).get(b.device(deviceId).typeId)!;
      const spec = type.settings.find((s) => s.id === settingId);
      if (spec?.kind !== 'delay' || typeof value !== 'number' || value < MIN_MS) continue;
      const says = say.setToMs({ device: b.device(deviceId).name, setting: spec.name, ms: Math.round(value) });
      b.make(`delay:${deviceId}:${settingId}`, says, () => [b.set(deviceId, settingId, value)], {
        note: say.soTheyMatch(),
      });
    }
  }
}
