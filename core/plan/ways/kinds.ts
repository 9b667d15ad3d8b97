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
    name: 'All in software, USB mics direct',
    says: 'Fewest devices: all audio meets in the apps.',
    school: 'Direct has the fewest devices; through a mixer there is more tone control, and two more conversions.',
    draw: usbMicrophones,
  },
  {
    id: 'software-headset',
    name: 'All in software, headsets on USB',
    says: 'Mic and headphones in one, close to the mouth: little room sound, hands free.',
    school: 'One device for both sides of a call helps its echo cancellation; separate ones sound better.',
    draw: usbHeadsets,
  },
  {
    id: 'software-interface',
    name: 'All in software, XLR with a preamp',
    says: 'Long cables and good preamps, mixed in the apps.',
    draw: preampOnUsb,
  },
  {
    id: 'small-extractor',
    plainName: 'Small mixer with USB',
    name: 'Small mixer, audio from HDMI through an extractor',
    says: 'Everything on one small mixer with USB; the console as a line input.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor'),
  },
  {
    id: 'small-jack',
    ofConsole: true,
    name: 'Small mixer, audio from the display’s headphone jack',
    says: 'One device fewer than an extractor; displays add delay, and the ground meets the mixer’s.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'jack'),
  },
  {
    id: 'small-capture',
    ofConsole: true,
    name: 'Small mixer for voices, game through the capture card',
    says: 'The game arrives with its video; headphones at the mixer don’t get it.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'capture'),
  },
  {
    id: 'small-usb-microphone',
    name: 'USB mics through their headphone jacks into a small mixer',
    says: 'More tone control than direct; two more conversions, more gain stages, more hiss.',
    school: 'Through a mixer there is more tone control; direct has the fewest devices.',
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor', 'microphone-usb'),
  },
  {
    id: 'digital',
    name: 'Digital mixer that is its own interface',
    says: 'Delay on every channel, sends for everyone, one cable to the computer.',
    school: 'Delays are set on the device now; the other school moves the tracks in the edit.',
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'extractor'),
  },
  {
    id: 'digital-capture',
    ofConsole: true,
    name: 'Digital mixer for voices, game through the capture card',
    says: 'Sends and delays for voices; the game arrives with its video.',
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'capture'),
  },
  {
    id: 'analogue-interface',
    name: 'Analog mixer and converters to USB',
    says: 'Two simple devices instead of one; the mix is converted after the mixer.',
    school: 'Two devices can be replaced one by one; one device has fewer cables and stages.',
    draw: (make, brief) => overMixer(make, brief, ANALOGUE, 'extractor'),
  },
  {
    id: 'matrix',
    name: 'Matrix mixer as a router',
    says: 'Every input to every output with its own knob: headphones, room, recorder and computer each have their own mix.',
    draw: matrix,
  },
  {
    id: 'open-microphone',
    plainName: 'One open mic for everything',
    name: 'One open mic that hears the speaker too',
    says: 'No cable for the game: the mic picks up the room. You can’t remix it later.',
    school: 'A mic that hears the whole room lets you move about; one that hears the front keeps the room out.',
    draw: openMicrophone,
  },
  {
    id: 'replug',
    name: 'Re-plugging by hand, nothing mixed outside',
    says: 'One mic and one pair of headphones, plugged wherever they are needed.',
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
