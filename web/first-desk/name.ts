import { endsThat, findTypes, isCall, type Rig, records } from '#core/rig/index.ts';

/** What a desk is called by what runs on it: never six times 'My desk'. */
export function nameFor(rig: Rig | null, taken: readonly string[], day: Date): string {
  const types = rig ? rig.devices.map((d) => findTypes(rig).get(d.typeId)!) : [];
  const kind = types.some((t) => endsThat(t, 'stream').length > 0)
    ? 'Stream desk'
    : types.some(isCall)
      ? 'Call desk'
      : types.some(records)
        ? 'Recording desk'
        : 'Desk';
  const base = `${kind}, ${new Intl.DateTimeFormat('en-US', { weekday: 'long' }).format(day)}`;
  let name = base;
  for (let n = 2; taken.includes(name); n++) name = `${base} ${n}`;
  return name;
}
