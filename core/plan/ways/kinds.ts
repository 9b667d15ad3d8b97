import type { Rig } from '#core/rig/index.ts';
import type { Brief } from './brief.ts';
import { type WayMaker, wayMaker } from './maker.ts';
import { matrix } from './matrix.ts';
import { ANALOGUE, DIGITAL, overMixer, SMALL } from './mixers.ts';
import { openMicrophone, preampOnUsb, replug, usbHeadsets, usbMicrophones } from './software.ts';

export interface WayKind {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  /** Where practitioners differ: which school it is, and what the other one says. */
  readonly school?: string;
  /** It is about how a console's sound comes in: without a console it is no way of its own. */
  readonly ofConsole?: true;
  /** What it is called where there is no console. */
  readonly plainName?: string;
  readonly draw: (make: WayMaker, brief: Brief) => void;
}

/** The ways that practitioners build such desks by; each is drawn from a brief and judged by the same model. */
const WAYS: readonly WayKind[] = [
  {
    id: 'software-usb',
    name: 'All in software, USB microphones straight in',
    says: 'Fewest boxes: every sound meets in the programs.',
    school: 'Straight in has the fewest boxes; through a mixer there is more tone control, and two more conversions.',
    draw: usbMicrophones,
  },
  {
    id: 'software-headset',
    name: 'All in software, headsets on USB',
    says: 'Microphone and ears in one, at the mouth: little room, no hands.',
    school: 'One device for both sides of a call helps its echo cancelling; split ones sound better.',
    draw: usbHeadsets,
  },
  {
    id: 'software-interface',
    name: 'All in software, XLR with a preamp',
    says: 'Long leads and good preamps, mixed in the programs.',
    draw: preampOnUsb,
  },
  {
    id: 'small-extractor',
    plainName: 'Small mixer with USB',
    name: 'Small mixer, sound out of HDMI by an extractor',
    says: 'Everything on one small mixer with USB; the console as line.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor'),
  },
  {
    id: 'small-jack',
    ofConsole: true,
    name: 'Small mixer, sound from the screen’s headphone jack',
    says: 'One box fewer than an extractor; screens delay it, and its earth meets the mixer’s.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'jack'),
  },
  {
    id: 'small-capture',
    ofConsole: true,
    name: 'Small mixer for voices, game through the capture device',
    says: 'The game comes with its picture; ears at the mixer do not have it.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'capture'),
  },
  {
    id: 'small-usb-microphone',
    name: 'USB microphones by their headphone jacks through a small mixer',
    says: 'More tone control than straight in; two more conversions, more gain stages, more hiss.',
    school: 'Through a mixer there is more tone control; straight in has the fewest boxes.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor', 'microphone-usb'),
  },
  {
    id: 'digital',
    name: 'Digital mixer that is its own interface',
    says: 'Delay on every strip, sends for everybody, one lead to the computer.',
    school: 'Delays are set on the device now; the other school slips the tracks in the edit.',
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'extractor'),
  },
  {
    id: 'digital-capture',
    ofConsole: true,
    name: 'Digital mixer for voices, game through the capture device',
    says: 'Sends and delays for voices; the game comes with its picture.',
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'capture'),
  },
  {
    id: 'analogue-interface',
    name: 'Analogue mixer and converters to USB',
    says: 'Two simple boxes in place of one; the mix is converted behind the mixer.',
    school: 'Two boxes can be replaced one by one; one box has fewer leads and stages.',
    draw: (make, brief) => overMixer(make, brief, ANALOGUE, 'extractor'),
  },
  {
    id: 'matrix',
    name: 'Matrix mixer as a router',
    says: 'Every input to every output with a knob each: ears, room, recorder and computer have mixes of their own.',
    draw: matrix,
  },
  {
    id: 'open-microphone',
    plainName: 'One open microphone for all',
    name: 'One open microphone that hears the loudspeaker too',
    says: 'Nothing to plug for the game: the room is what one hears. No balance afterwards.',
    school: 'A microphone that hears the whole room lets one move about; one that hears the front keeps the room out.',
    draw: openMicrophone,
  },
  {
    id: 'replug',
    name: 'Re-plugging by hand, nothing mixed outside',
    says: 'One microphone, one pair of headphones that are plugged where they are needed just then.',
    draw: replug,
  },
];

/** The ways that there are for a brief, under the names that they have there. */
export const waysFor = (brief: Brief): WayKind[] =>
  WAYS.filter((w) => brief.consoles > 0 || !w.ofConsole).map((w) =>
    brief.consoles > 0 || !w.plainName ? w : { ...w, name: w.plainName },
  );

/** A way drawn from a brief: the rig, and what of it would not fit. */
export function drawWay(
  kind: WayKind,
  brief: Brief,
  like: Rig,
): { readonly rig: Rig; readonly refused: readonly string[] } {
  const make = wayMaker(`${like.name}: ${kind.name}`.slice(0, 120), like.session, like.types);
  kind.draw(make, brief);
  return { rig: make.rig(), refused: make.refused };
}
