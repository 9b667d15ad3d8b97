import { type Edit, isSettingTask, type PlanCell, type Rig, withoutIn } from '#core/model/rig/index.ts';

export type Source = Rig['sources'][number];
export type Listener = Rig['listeners'][number];

/** Everything that hangs on a device, taken out with it. */
export function removeDevice(rig: Rig, deviceId: string): Edit {
  const here = (ref: { deviceId: string } | undefined) => ref?.deviceId === deviceId;
  const cables = rig.cables.filter((c) => here(c.from) || here(c.to));
  const sources = rig.sources.filter((s) => here(s.sound));
  const listeners = rig.listeners.filter((l) => here(l.sound));
  return {
    kind: 'batch',
    edits: [
      ...dependents(rig, sources, listeners, (s) => s.deviceId === deviceId),
      ...lookingHere(rig, deviceId),
      ...rig.tasks
        .filter((t) => (isSettingTask(t) ? t.deviceId === deviceId : cables.some((c) => c.id === t.cableId)))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...cables.map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
      ...linked(rig, deviceId),
      { kind: 'remove-device', deviceId },
    ],
  };
}

const goes =
  (sources: readonly Source[], listeners: readonly Listener[]) =>
  (c: PlanCell): boolean =>
    sources.some((s) => s.id === c.sourceId || s.id === c.inTimeWith) || listeners.some((l) => l.id === c.listenerId);

/** Plan cells, sources and listeners that go, and what moments say of them and of settings that go. */
export const dependents = (
  rig: Rig,
  sources: readonly Source[],
  listeners: readonly Listener[],
  setting: (s: Rig['moments'][number]['settings'][number]) => boolean,
): Edit[] => {
  const gone = goes(sources, listeners);
  return [
    ...withoutIn(rig, { setting, cell: gone }),
    ...rig.plan
      .filter(gone)
      .map((c): Edit => ({ kind: 'set-plan', sourceId: c.sourceId, listenerId: c.listenerId, cell: null })),
    ...sources.map((s): Edit => ({ kind: 'remove-source', sourceId: s.id })),
    ...listeners.map((l): Edit => ({ kind: 'remove-listener', listenerId: l.id })),
  ];
};

/** Every source and listener that the change touches, taken out and put back changed in its place. */
export function changed(rig: Rig, change: <T extends Source | Listener>(x: T) => T): Edit[] {
  const sources = rig.sources.flatMap((source, at): Edit[] => {
    const next = change(source);
    return next === source
      ? []
      : [
          { kind: 'remove-source', sourceId: source.id },
          { kind: 'add-source', source: next, at },
        ];
  });
  const listeners = rig.listeners.flatMap((listener, at): Edit[] => {
    const next = change(listener);
    return next === listener
      ? []
      : [
          { kind: 'remove-listener', listenerId: listener.id },
          { kind: 'add-listener', listener: next, at },
        ];
  });
  return [...sources, ...listeners];
}

/** Sources and listeners elsewhere whose picture was here lose it. */
const lookingHere = (rig: Rig, deviceId: string): Edit[] =>
  changed(rig, (x) => {
    if (x.picture?.deviceId !== deviceId || x.sound.deviceId === deviceId) return x;
    const { picture: _gone, ...rest } = x;
    return rest as typeof x;
  });

/** Apps on it, and destinations it feeds, become independent again. */
const linked = (rig: Rig, deviceId: string): Edit[] =>
  rig.devices
    .filter((d) => d.on === deviceId || d.fedBy === deviceId)
    .map((d): Edit => {
      const { on, fedBy, ...rest } = d;
      return {
        kind: 'set-device',
        device: {
          ...rest,
          ...(on && on !== deviceId ? { on } : {}),
          ...(fedBy && fedBy !== deviceId ? { fedBy } : {}),
        },
      };
    });
