import type { Text } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { say } from '../sayings.ts';
import type { Brief } from './brief.ts';
import { type WayMaker, wayMaker } from './maker.ts';
import { matrix } from './matrix.ts';
import { ANALOGUE, DIGITAL, overMixer, SMALL } from './mixers.ts';
import { openMicrophone, preampOnUsb, replug, usbHeadsets, usbMicrophones } from './software.ts';

export interface WayKind {
  readonly id: string;
  readonly name: Text;
  readonly says: Text;
  /** Where practitioners differ: which school it is, and what the other one says. */
  readonly school?: Text;
  /** Differs only in how a console's audio comes in: without a console it is no alternative of its own. */
  readonly ofConsole?: true;
  /** What it is called where there is no console. */
  readonly plainName?: Text;
  readonly draw: (make: WayMaker, brief: Brief) => void;
}

/** The ways that practitioners build such desks by; each is drawn from a brief and judged by the same model. */
const WAYS: readonly WayKind[] = [
  {
    id: 'software-usb',
    name: say.allInSoftwareUsb(),
    says: say.fewestDevicesAllAudio(),
    school: say.directHasFewestDevices(),
    draw: usbMicrophones,
  },
  {
    id: 'software-headset',
    name: say.allInSoftwareHeadsets(),
    says: say.micAndHeadphonesIn(),
    school: say.oneDeviceForBoth(),
    draw: usbHeadsets,
  },
  {
    id: 'software-interface',
    name: say.allInSoftwareXlr(),
    says: say.longCablesAndGood(),
    draw: preampOnUsb,
  },
  {
    id: 'small-extractor',
    plainName: say.smallMixerWithUsb(),
    name: say.smallMixerAudioFrom(),
    says: say.everythingOnOneSmall(),
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor'),
  },
  {
    id: 'small-jack',
    ofConsole: true,
    name: say.smallMixerAudioFromDisplays(),
    says: say.oneDeviceFewerThan(),
    draw: (make, brief) => overMixer(make, brief, SMALL, 'jack'),
  },
  {
    id: 'small-capture',
    ofConsole: true,
    name: say.smallMixerForVoices(),
    says: say.gameArrivesWithIts(),
    draw: (make, brief) => overMixer(make, brief, SMALL, 'capture'),
  },
  {
    id: 'small-usb-microphone',
    name: say.usbMicsThroughTheir(),
    says: say.moreToneControlThan(),
    school: say.throughMixerThereIs(),
    draw: (make, brief) => overMixer(make, brief, SMALL, 'extractor', 'microphone-usb'),
  },
  {
    id: 'digital',
    name: say.digitalMixerThatIs(),
    says: say.delayOnEveryChannel(),
    school: say.delaysAreSetOn(),
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'extractor'),
  },
  {
    id: 'digital-capture',
    ofConsole: true,
    name: say.digitalMixerForVoices(),
    says: say.sendsAndDelaysFor(),
    draw: (make, brief) => overMixer(make, brief, DIGITAL, 'capture'),
  },
  {
    id: 'analogue-interface',
    name: say.analogMixerAndConverters(),
    says: say.twoSimpleDevicesInstead(),
    school: say.twoDevicesCanBe(),
    draw: (make, brief) => overMixer(make, brief, ANALOGUE, 'extractor'),
  },
  {
    id: 'matrix',
    name: say.matrixMixerAsRouter(),
    says: say.everyInputToEvery(),
    draw: matrix,
  },
  {
    id: 'open-microphone',
    plainName: say.oneOpenMicFor(),
    name: say.oneOpenMicThat(),
    says: say.noCableForGame(),
    school: say.micThatHearsWhole(),
    draw: openMicrophone,
  },
  {
    id: 'replug',
    name: say.rePluggingByHand(),
    says: say.oneMicAndOne(),
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
): { readonly rig: Rig; readonly refused: readonly Text[] } {
  const make = wayMaker(`${like.name}: ${kind.name}`.slice(0, 120), like.session, like.types);
  kind.draw(make, brief);
  return { rig: make.rig(), refused: make.refused };
}
