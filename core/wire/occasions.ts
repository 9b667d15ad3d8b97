import { applyEdit, type Edit, emptyRig, findPort, findTypes, type PortRef, type Rig } from '#core/rig/index.ts';
import { startingLevels } from './levels.ts';
import { usualLength } from './sockets.ts';
import { readTyped } from './typed.ts';

/** A usual purpose, with a desk to start from: changed afterwards as the own one is. */
export interface Occasion {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  /** Boxes from source to end, as one would type them. */
  readonly way: string;
  /** 'box.end > box.end': what a program or an ear takes besides. */
  readonly also?: readonly string[];
  /** 'box.setting': what stands otherwise than the box comes. */
  readonly set?: Readonly<Record<string, number | boolean | string>>;
  /** 'source > listener': what it is for. */
  readonly must: readonly string[];
}

const CONSOLE = 'console > splitter';

export const OCCASIONS: readonly Occasion[] = [
  {
    id: 'console-stream',
    name: 'A console on the stream',
    says: 'One player, one voice, a capture device: what the stream hears, and what the player hears.',
    way: `${CONSOLE} > television; splitter > capture usb compressed > computer desktop > capture program; person > microphone dynamic > mixer usb send > computer desktop; mixer usb send > headphones`,
    also: ['computer.from-usb-2 > capture-program.in-2'],
    must: ['game-console > capture-program-stream', 'person > capture-program-stream', 'person > headphones'],
  },
  {
    id: 'two-players',
    name: 'Two players and a guest on a call',
    says: 'Two voices on a couch, a camera, and somebody at home who must not hear themselves.',
    way: `${CONSOLE} > television; splitter > capture usb compressed > computer desktop > capture program; 2 person > 2 microphone dynamic > mixer digital ten > computer desktop > call; camera hdmi full > capture stick > computer desktop; mixer digital ten > headphone amplifier; headphone amplifier > 2 headphones`,
    also: [
      'computer.from-usb-2 > capture-program.in-2',
      'computer.from-usb-3 > capture-program.in-3',
      'call.near-loudspeaker > computer.to-usb-2',
    ],
    set: {
      'camera.microphone-mute': true,
      'mixer.strip-1-send-1': 0,
      'mixer.strip-2-send-1': 0,
      'mixer.strip-9-10-send-1': 0,
    },
    must: [
      'game-console > capture-program-stream',
      'person > capture-program-stream',
      'person-2 > capture-program-stream',
      'person-2 > headphones',
      'person > headphones-2',
    ],
  },
  {
    id: 'class',
    name: 'A class over a call, with music',
    says: 'A teacher at a laptop, music from a program, pupils at home: music and voice have to keep time.',
    way: 'person > usb microphone headphone > computer laptop > call; webcam > computer laptop; music player > call; microphone > headphones; audience',
    also: [
      'call.near-loudspeaker > computer.to-usb-1',
      'music-player.sound > computer.to-usb-1',
      'call.far-loudspeaker > audience.ears',
    ],
    must: ['person > audience', 'music-player > audience', 'music-player > headphones'],
  },
  {
    id: 'panel',
    name: 'A panel in a hall',
    says: 'Four voices on XLR, loudspeakers for the hall, a recorder, and a stream with a camera.',
    way: '4 person > 4 microphone dynamic > mixer digital ten > loudspeakers active; mixer digital ten > recorder line in; mixer digital ten > computer laptop > capture program; camera hdmi full > capture usb compressed > computer laptop; audience',
    also: ['computer.from-usb-2 > capture-program.in-2', 'loudspeakers.front > audience.ears'],
    set: {
      'camera.microphone-mute': true,
      'mixer.strip-1-send-3': 0,
      'mixer.strip-2-send-3': 0,
      'mixer.strip-3-send-3': 0,
      'mixer.strip-4-send-3': 0,
    },
    must: ['person > audience', 'person-4 > audience', 'person > recorder', 'person > capture-program-stream'],
  },
  {
    id: 'interview',
    name: 'An interview with a camera',
    says: 'A lapel microphone into the recorder on the camera, earphones for whoever films, a backup in the hand.',
    way: 'person > lapel wired > monitor-recorder > earphones; person > camera full > monitor-recorder; person > recorder hand',
    set: { 'monitor-recorder.sound-from': 'microphone' },
    must: ['person > monitor-recorder', 'person > recorder', 'person > earphones'],
  },
  {
    id: 'head-worn',
    name: 'A head-worn display, shown on a screen',
    says: 'Somebody moves with a display on the head; others watch the same picture, and a recording runs.',
    way: 'game program > computer desktop > head-worn display; person > head-worn display > computer desktop > capture program; computer desktop > television',
    also: [
      'game-on-the-computer.sound > computer.to-screen-1',
      'game-on-the-computer.screen > computer.to-screen-2',
      'game-on-the-computer.screen > capture-program.in-2',
      'game-on-the-computer.sound > capture-program.in-2',
    ],
    must: [
      'person > capture-program-stream',
      'game-on-the-computer > capture-program-stream',
      'game-on-the-computer > head-worn-display',
    ],
  },
  {
    id: 'voice',
    name: 'One voice, recorded at a desk',
    says: 'A microphone on phantom power, an interface, headphones, and a program that records.',
    way: 'person > microphone condenser > interface one > computer laptop > recording program; interface one > headphones',
    set: { 'sound-interface.phantom': 'on', 'sound-interface.direct': -12 },
    must: ['person > recording-program-track-1', 'person > headphones'],
  },
];

/** The desk of an occasion; everything on it is assumed until somebody has looked. */
export function rigFor({ name, way, also = [], set = {}, must }: Occasion): Rig {
  const apply = (rig: Rig, edits: readonly Edit[]): Rig => {
    const done = applyEdit(rig, { kind: 'batch', edits: [...edits] });
    if (!done.ok) throw new Error(`${name}: ${done.refusal.reason}`);
    return done.rig;
  };
  const { edit } = readTyped(emptyRig(name), way, { levels: false });
  const drawn = apply(emptyRig(name), edit ? [edit] : []);
  const pair = (text: string) => text.split(' > ') as [string, string];
  const half = (text: string) => text.split('.') as [string, string];
  const ref = (text: string): PortRef => {
    const [deviceId, portId] = half(text);
    return { deviceId, portId };
  };
  const linked = apply(drawn, [
    ...also.map((text, i): Edit => {
      const [from, to] = pair(text).map(ref) as [PortRef, PortRef];
      const port = findPort(drawn, findTypes(drawn), from);
      const medium = port?.connector === 'air' ? 'air' : 'software';
      const end = { ...from, id: from.portId, name: '', connector: medium, ports: port ? [port] : [], cableIds: [] };
      const lengthM = usualLength(medium, end);
      return { kind: 'plug', cable: { id: `also-${i + 1}`, from, to, medium, lengthM, known: 'assumed' } };
    }),
    ...Object.entries(set).map(([key, value]): Edit => {
      const [deviceId, settingId] = half(key);
      return { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } };
    }),
    ...must.map((text): Edit => {
      const [sourceId, listenerId] = pair(text);
      return { kind: 'set-plan', sourceId, listenerId, cell: { sourceId, listenerId, want: 'must' } };
    }),
  ]);
  return apply(linked, startingLevels(linked, new Set(linked.devices.map((d) => d.id))));
}
