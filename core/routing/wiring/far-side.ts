import type { Text } from '#core/base/said/index.ts';
import {
  type Cable,
  type Device,
  deviceIn,
  type Edit,
  findPort,
  findTypes,
  idFrom,
  isCall,
  type PlanCell,
  type Rig,
} from '#core/model/rig/index.ts';
import { mainVoiceOf } from '#core/signal/index.ts';
import { freeHue } from './add.ts';
import { say } from './sayings.ts';
import { freeId } from './sockets.ts';

/** Gear of a remote guest: one question tells which. */
export interface FarGear {
  readonly typeId: string;
  readonly says: Text;
  /** Where the voice goes in, where it comes out, where the call's audio goes in. */
  readonly microphone: string;
  readonly out: string;
  readonly in: string;
  /** The earphones; null where a speaker sounds into the room. */
  readonly ears: string | null;
}

export const FAR_GEAR: readonly FarGear[] = [
  {
    typeId: 'headset-usb',
    says: say.wiredHeadset(),
    microphone: 'boom',
    out: 'usb-out',
    in: 'usb-in',
    ears: 'ears',
  },
  {
    typeId: 'headset-bluetooth',
    says: say.wirelessHeadset(),
    microphone: 'boom',
    out: 'bluetooth-out',
    in: 'bluetooth-in',
    ears: 'ears',
  },
  {
    typeId: 'conference-loudspeaker',
    says: say.speakerAndMic(),
    microphone: 'microphone',
    out: 'usb-out',
    in: 'usb-in',
    ears: null,
  },
];

/** Someone at the far side: who, on which call, with which gear; what of them is a source and a listener here. */
export interface FarSeat {
  readonly callId: string;
  readonly personId: string;
  readonly gearId: string;
  /** Null where it is none of the usual ones. */
  readonly gear: FarGear | null;
  readonly sourceId: string;
  readonly listenerId: string | null;
}

const MOUTH_M = 0.03;
const ROOM_M = 0.7;

/** Everybody at the far side of a call. */
export function farSeats(rig: Rig): FarSeat[] {
  const types = findTypes(rig);
  const typeOf = new Map(rig.devices.map((d) => [d.id, d.typeId]));
  return rig.cables.flatMap((cable): FarSeat[] => {
    const port = findPort(rig, types, cable.to);
    if (port?.does !== 'far-side' || !port.channels.some((c) => c.carries === 'sound')) return [];
    const gearId = cable.from.deviceId;
    const heard = rig.cables.find(
      (c) => c.medium === 'air' && c.to.deviceId === gearId && findPort(rig, types, c.from)?.does === 'voice',
    );
    const source = heard && rig.sources.find((s) => s.sound.deviceId === heard.from.deviceId);
    if (!heard || !source) return [];
    const personId = heard.from.deviceId;
    const listener = rig.listeners.find((l) => l.sound.deviceId === gearId || l.sound.deviceId === personId);
    const gear = FAR_GEAR.find((g) => g.typeId === typeOf.get(gearId)) ?? null;
    return [
      { callId: cable.to.deviceId, personId, gearId, gear, sourceId: source.id, listenerId: listener?.id ?? null },
    ];
  });
}

const link = (
  id: string,
  from: readonly [string, string],
  to: readonly [string, string],
  medium: Cable['medium'],
  lengthM = 0,
): Cable => ({
  id,
  from: { deviceId: from[0], portId: from[1] },
  to: { deviceId: to[0], portId: to[1] },
  medium,
  lengthM,
  known: 'assumed',
});

/** The links of a seat: voice to microphone, both ways of the call, and the speaker to the ears where there is one. */
function links(
  rig: Rig,
  { callId, personId, gearId }: Pick<FarSeat, 'callId' | 'personId' | 'gearId'>,
  gear: FarGear,
): Edit[] {
  const taken = new Set(rig.cables.map((c) => c.id));
  const made: Cable[] = [];
  const add = (
    name: string,
    ...rest: [readonly [string, string], readonly [string, string], Cable['medium'], number?]
  ) => {
    const id = freeId(taken, name);
    taken.add(id);
    made.push(link(id, ...rest));
  };
  const near = gear.ears === null ? ROOM_M : MOUTH_M;
  add(`air-${personId}`, [personId, 'voice'], [gearId, gear.microphone], 'air', near);
  add(`${personId}-microphone`, [gearId, gear.out], [callId, 'far-microphone'], 'software');
  add(`${personId}-earphones`, [callId, 'far-loudspeaker'], [gearId, gear.in], 'software');
  if (gear.ears === null) add(`air-${gearId}`, [gearId, 'front'], [personId, 'ears'], 'air', ROOM_M);
  return made.map((cable): Edit => ({ kind: 'plug', cable }));
}

const earsOf = (personId: string, gearId: string, gear: FarGear) =>
  gear.ears === null ? { deviceId: personId, portId: 'ears' } : { deviceId: gearId, portId: gear.ears };

/** Other gear at a far seat: its device, its links and where one listens there; what is wanted of it stays. */
export function setFarGear(rig: Rig, seat: FarSeat, gear: FarGear): Edit {
  const { gearId, personId, listenerId } = seat;
  const device = deviceIn(rig, gearId);
  const gone = rig.cables.filter((c) => c.from.deviceId === gearId || c.to.deviceId === gearId);
  const kept: Rig = { ...rig, cables: rig.cables.filter((c) => !gone.includes(c)) };
  const at = rig.listeners.findIndex((l) => l.id === listenerId);
  const listener = rig.listeners[at];
  return {
    kind: 'batch',
    edits: [
      ...gone.map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
      ...rig.tasks
        .filter((t) => ('deviceId' in t ? t.deviceId === gearId : gone.some((c) => c.id === t.cableId)))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...(listener ? [{ kind: 'remove-listener' as const, listenerId: listener.id }] : []),
      { kind: 'set-device', device: { ...device, typeId: gear.typeId, settings: {} } },
      ...rig.moments
        .filter((m) => m.settings.some((s) => s.deviceId === gearId))
        .map(
          (m): Edit => ({
            kind: 'set-moment',
            moment: { ...m, settings: m.settings.filter((s) => s.deviceId !== gearId) },
          }),
        ),
      ...(listener
        ? [{ kind: 'add-listener' as const, listener: { ...listener, sound: earsOf(personId, gearId, gear) }, at }]
        : []),
      ...links(kept, seat, gear),
    ],
  };
}

/** Someone more at the far side of a call, with a headset: heard here, and hears everything but themselves. */
export function addFarSeat(rig: Rig, callId: string, name: string): Edit {
  const ids = new Set(rig.devices.map((d) => d.id));
  const personId = freeId(ids, idFrom(name, 'guest'));
  const gearId = freeId(new Set([...ids, personId]), `${personId}-headset`);
  const gear = FAR_GEAR[0]!;
  const box = (id: string, typeId: string, called: string): Device => ({ id, typeId, name: called, settings: {} });
  const letters = new Set(rig.sources.map((s) => s.letter));
  const letter =
    [...name.toUpperCase(), ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].find((l) => /[A-Z0-9]/.test(l) && !letters.has(l)) ?? 'X';
  const sourceId = freeId(new Set(rig.sources.map((s) => s.id)), personId);
  const listenerId = freeId(new Set(rig.listeners.map((l) => l.id)), personId);
  const cell = (source: string, want: PlanCell['want']): Edit => ({
    kind: 'set-plan',
    sourceId: source,
    listenerId,
    cell: { sourceId: source, listenerId, want },
  });
  return {
    kind: 'batch',
    edits: [
      { kind: 'add-device', device: box(personId, 'person', name) },
      { kind: 'add-device', device: box(gearId, gear.typeId, `${name}, headset`) },
      ...links(rig, { callId, personId, gearId }, gear),
      {
        kind: 'add-source',
        source: {
          id: sourceId,
          name,
          letter,
          hue: freeHue(rig),
          sound: { deviceId: personId, portId: 'voice' },
          level: [74, 77, 80],
        },
      },
      {
        kind: 'add-listener',
        listener: { id: listenerId, name: `${name}, headphones`, sound: earsOf(personId, gearId, gear) },
      },
      ...rig.sources.map((s) => cell(s.id, 'must')),
      cell(sourceId, 'must-not'),
    ],
  };
}

/**
 * A spare seat: a second device that joins the call muted and records what they hear there. What it gets is wanted as
 * it is wanted at the first listener over there.
 */
export function addSpareSeat(rig: Rig, callId: string): Edit {
  const deviceId = freeId(new Set(rig.devices.map((d) => d.id)), 'spare-seat');
  const listenerId = freeId(new Set(rig.listeners.map((l) => l.id)), 'spare-seat');
  const cableId = freeId(new Set(rig.cables.map((c) => c.id)), 'spare-seat');
  const like = farSeats(rig).find((s) => s.callId === callId)?.listenerId;
  const main = mainVoiceOf(rig);
  const wants = rig.plan.filter((c) => c.listenerId === like && c.want !== 'must-not');
  const cells: PlanCell[] =
    wants.length > 0
      ? wants.map((c) => ({ ...c, listenerId }))
      : main
        ? [{ sourceId: main, listenerId, want: 'must' }]
        : [];
  return {
    kind: 'batch',
    edits: [
      { kind: 'add-device', device: { id: deviceId, typeId: 'recording-program', name: 'Test device', settings: {} } },
      { kind: 'plug', cable: link(cableId, [callId, 'far-loudspeaker'], [deviceId, 'in-1'], 'software') },
      {
        kind: 'add-listener',
        listener: { id: listenerId, name: 'Test device, return', sound: { deviceId, portId: 'track-1' } },
      },
      ...cells.map((cell): Edit => ({ kind: 'set-plan', sourceId: cell.sourceId, listenerId, cell })),
    ],
  };
}

/** The calls of a rig. */
export const callsOf = (rig: Rig): Device[] => {
  const types = findTypes(rig);
  return rig.devices.filter((d) => isCall(types.get(d.typeId)!));
};
