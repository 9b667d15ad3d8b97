import { endsThat, findTypes, isCall, type Rig, records } from '#core/model/rig/index.ts';
import { firstDesk as say } from '#words/index.ts';

/** What a desk is called by what runs on it: never six times 'My desk'. */
export function nameFor(rig: Rig | null, taken: readonly string[], day: Date): string {
  const types = rig ? rig.devices.map((d) => findTypes(rig).get(d.typeId)!) : [];
  const kind = types.some((t) => endsThat(t, 'stream').length > 0)
    ? say.streamDesk()
    : types.some(isCall)
      ? say.callDesk()
      : types.some(records)
        ? say.recordingDesk()
        : say.desk();
  const base = `${kind}, ${new Intl.DateTimeFormat('en-US', { weekday: 'long' }).format(day)}`;
  let name = base;
  for (let n = 2; taken.includes(name); n++) name = `${base} ${n}`;
  return name;
}
