import { type Text, textOf } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { readDesk } from './read-desk.ts';
import { say } from './sayings.ts';

/** A question before a desk opens: each answer is a few words of it. */
export interface OccasionAsk {
  readonly id: string;
  readonly asks: Text;
  /** An answer of another question that makes this one needless: `[question, answer]`. */
  readonly unless?: readonly [ask: string, answer: string];
  readonly options: readonly { readonly id: string; readonly label: Text; readonly words: string }[];
}

/** A usual purpose: a desk in plain words, with what has to be known before it opens. */
export interface Occasion {
  readonly id: string;
  readonly name: Text;
  readonly says: Text;
  /** Plain words with `{id}` where the words of an answer stand. */
  readonly words: string;
  readonly asks: readonly OccasionAsk[];
}

/** What is answered of an occasion: an option's id by the question's. */
export type OccasionAnswers = Readonly<Record<string, string>>;

const option = (id: string, label: Text, words: string) => ({ id, label, words });

const VOICE: OccasionAsk = {
  id: 'mic',
  asks: say.whichMicDoYouHave(),
  options: [
    option('usb', say.usbMic(), 'me > usb mic > pc'),
    option('headset', say.micUsbHeadset(), 'me > usb headset > pc'),
    option('xlr-interface', say.xlrMicAndInterface(), 'me > xlr mic > interface > pc'),
    option('xlr-mixer', say.xlrMicAndUsbMixer(), 'me > xlr mic > usb mixer > pc'),
  ],
};
const EARS: OccasionAsk = {
  id: 'ears',
  asks: say.whereDoYouListen(),
  unless: ['mic', 'headset'],
  options: [
    option('headphones', say.headphonesAtComputer(), 'me with headphones on the pc'),
    option('headset', say.usbHeadset(), 'me with usb headset on the pc'),
    option('speakers', say.speakersOnDesk(), 'pc > pc speakers'),
  ],
};

export const OCCASIONS: readonly Occasion[] = [
  {
    id: 'console-stream',
    name: say.streamConsole(),
    says: say.onePlayerCaptureCardAndMic(),
    words: '{consoles} > capture card > pc > streaming app\n{mic}\n{ears}',
    asks: [
      {
        id: 'consoles',
        asks: say.howManyConsoles(),
        options: [
          option('1', say.one(), 'console > splitter > tv\nsplitter'),
          option('2', say.twoBySwitch(), '2 consoles > hdmi switch'),
          option('3', say.threeBySwitch(), '3 consoles > 3 in hdmi switch'),
        ],
      },
      VOICE,
      EARS,
    ],
  },
  {
    id: 'pc-stream',
    name: say.streamPcGame(),
    says: say.gameAndStreamingAppRunOn(),
    words: 'pc game and streaming app on the pc\n{mic}\n{ears}\n{camera}',
    asks: [
      VOICE,
      EARS,
      {
        id: 'camera',
        asks: say.doYouShowYourself(),
        options: [option('webcam', say.withWebcam(), 'webcam > pc'), option('none', say.no(), '')],
      },
    ],
  },
  {
    id: 'friends-stream',
    name: say.streamWithFriendsOnVoiceChat(),
    says: say.yourGameYourVoiceAndFriends(),
    words: '{game}\nstreaming app on the pc\n{friends} on voice chat on the pc\n{mic}\n{ears}',
    asks: [
      {
        id: 'friends',
        asks: say.howManyFriends(),
        options: [
          option('1', say.one(), 'friend'),
          option('2', say.two(), '2 friends'),
          option('3', say.three(), '3 friends'),
        ],
      },
      VOICE,
      {
        id: 'game',
        asks: say.whatDoYouPlayOn(),
        options: [
          option('pc', say.computer(), 'pc game on the pc'),
          option('console', say.console(), 'console > capture card > pc'),
        ],
      },
      EARS,
    ],
  },
  {
    id: 'two-computers',
    name: say.gamingPcAndStreamingPc(),
    says: say.oneComputerPlaysOtherTakesIts(),
    words:
      'gaming pc > hdmi splitter > monitor\nhdmi splitter > capture card > streaming pc > streaming app\npc game on the gaming pc\n{mic}\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: say.whichMicDoYouHave(),
        options: [
          option('usb', say.usbMic(), 'me > usb mic > streaming pc'),
          option('xlr', say.xlrMicAndInterface(), 'me > xlr mic > interface > streaming pc'),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        options: [
          option('headphones', say.headphonesAtGamingPc(), 'me with headphones on the gaming pc'),
          option('headset', say.usbHeadsetAtGamingPc(), 'me with usb headset on the gaming pc'),
        ],
      },
    ],
  },
  {
    id: 'two-players',
    name: say.twoPlayersOnCouch(),
    says: say.twoVoicesAndCameraBesideGame(),
    words:
      'console > splitter > tv\nsplitter > capture card > pc > streaming app\n{voices} > 2 xlr mics > digital mixer > pc\n{camera}\n{ears}',
    asks: [
      { id: 'voices', asks: say.whoPlays(), options: [option('2', say.youAndGuest(), 'me and guest')] },
      {
        id: 'camera',
        asks: say.whichCamera(),
        options: [
          option('webcam', say.webcam(), 'webcam > pc'),
          option('hdmi', say.cameraOverHdmi(), 'camera > capture stick > pc'),
          option('none', say.none(), ''),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        options: [
          option('amp', say.twoHeadphonesAtMixer(), 'digital mixer > headphone amp > 2 headphones'),
          option('tv', say.atTv(), ''),
        ],
      },
    ],
  },
  {
    id: 'class',
    name: say.teachOverVideoCall(),
    says: say.teacherAtComputerStudentsAtHome(),
    words: 'students on video call on the laptop\n{mic}\n{sound}\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: say.whichMicDoYouHave(),
        options: [
          option('headset', say.usbHeadset(), 'teacher > usb headset > laptop'),
          option('usb', say.usbMic(), 'teacher > usb mic > laptop'),
          option('lav', say.wirelessLav(), 'teacher > wireless lav > laptop'),
        ],
      },
      {
        id: 'sound',
        asks: say.whatDoYouPlayToThem(),
        options: [
          option('none', say.nothing(), ''),
          option('music', say.musicFromComputer(), 'music on the laptop > video call'),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        unless: ['mic', 'headset'],
        options: [
          option('headset', say.atComputer(), ''),
          option('headphones', say.inHeadphones(), 'teacher with headphones on the laptop'),
        ],
      },
    ],
  },
  {
    id: 'podcast',
    name: say.recordPodcastAtTable(),
    says: say.eachVoiceOnMicItsOwn(),
    words: '{voices} > {box} > laptop > recording app\n{guest}\n{ears}',
    asks: [
      {
        id: 'voices',
        asks: say.howManyTalkAtTable(),
        options: [
          option('2', say.two(), 'me and guest > 2 xlr mics'),
          option('3', say.three(), 'me and 2 guests > 3 xlr mics'),
          option('4', say.four(), 'me and 3 guests > 4 xlr mics'),
        ],
      },
      {
        id: 'box',
        asks: say.whatDoMicsGoInto(),
        options: [
          option('mixer', say.digitalMixer(), 'digital mixer'),
          option('interface', say.interfaceWithFourInputs(), '4 channel interface'),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        options: [
          option('headphones', say.inHeadphones(), 'me with headphones on the laptop'),
          option('none', say.nobodyListensWhileRuns(), ''),
        ],
      },
      {
        id: 'guest',
        asks: say.somebodyFarAway(),
        options: [
          option('none', say.no(), ''),
          option('call', say.guestOnCall(), 'remote guest on a call on the laptop'),
        ],
      },
    ],
  },
  {
    id: 'panel',
    name: say.panelInHallWithMembersFar(),
    says: say.voicesOnXlrLoudspeakersForHall(),
    words: '{voices} > digital mixer > pa speakers > audience\ndigital mixer > laptop > streaming app\n{far}\n{camera}',
    asks: [
      {
        id: 'voices',
        asks: say.howManySitAtTable(),
        options: [
          option('3', say.three(), 'moderator and 2 guests > 3 xlr mics'),
          option('4', say.four(), 'moderator and 3 guests > 4 xlr mics'),
          option('2', say.two(), 'moderator and guest > 2 xlr mics'),
        ],
      },
      {
        id: 'far',
        asks: say.doesSomebodyJoinFromFarAway(),
        options: [
          option('none', say.no(), ''),
          option('one', say.oneOnCall(), 'remote guest on a video call on the laptop'),
        ],
      },
      {
        id: 'camera',
        asks: say.whichCamera(),
        options: [
          option('webcam', say.webcam(), 'webcam > laptop'),
          option('hdmi', say.cameraOverHdmi(), 'camera > capture stick > laptop'),
        ],
      },
    ],
  },
  {
    id: 'interview',
    name: say.interviewOnCamera(),
    says: say.lavMicsIntoCameraOrRecorder(),
    words: '{mics}\n{ears}',
    asks: [
      {
        id: 'mics',
        asks: say.whereDoMicsGo(),
        options: [
          option('recorder', say.intoFieldRecorder(), 'me and guest > 2 xlr mics > field recorder\ncamera'),
          option('camera', say.byRadioOnCamera(), 'me > wireless lav kit > camera > monitor recorder'),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        options: [
          option('none', say.nobodyListens(), ''),
          option('recorder', say.earphonesAtRecorder(), 'operator with earphones'),
        ],
      },
    ],
  },
  {
    id: 'music',
    name: say.playAndSingOnStream(),
    says: say.instrumentAndVoiceIntoInterfaceHeard(),
    words:
      'me > xlr mic > 2 channel interface > pc > streaming app\n{instrument} > 2 channel interface\nheadphones on the 2 channel interface\n{camera}',
    asks: [
      {
        id: 'instrument',
        asks: say.whatDoYouPlay(),
        options: [
          option('acoustic', say.acousticGuitarWithPickup(), 'acoustic guitar'),
          option('electric', say.electricGuitarByDiBox(), 'electric guitar > di box'),
          option('keys', say.keyboard(), 'keyboard'),
        ],
      },
      {
        id: 'camera',
        asks: say.doYouShowYourself(),
        options: [option('webcam', say.withWebcam(), 'webcam > pc'), option('none', say.no(), '')],
      },
    ],
  },
  {
    id: 'voice',
    name: say.recordOneVoice(),
    says: say.micInterfaceHeadphonesAndAppThat(),
    words: '{mic} > laptop > recording app\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: say.whichMicDoYouHave(),
        options: [
          option('condenser', say.condenserAndInterface(), 'me > condenser mic > interface'),
          option('dynamic', say.dynamicMicAndInterface(), 'me > xlr mic > interface'),
          option('usb', say.usbMic(), 'me > usb mic'),
        ],
      },
      {
        id: 'ears',
        asks: say.whereDoYouListen(),
        options: [
          option('headphones', say.inHeadphonesAtComputer(), 'me with headphones on the laptop'),
          option('none', say.afterwards(), ''),
        ],
      },
    ],
  },
  {
    id: 'head-worn',
    name: say.showVrGame(),
    says: say.youMoveWithDisplayOnYour(),
    words: 'pc game and streaming app on the pc\nme > vr headset > pc\npc > {screen}',
    asks: [
      {
        id: 'screen',
        asks: say.whereDoOthersWatch(),
        options: [option('tv', say.onTv(), 'tv'), option('projector', say.onProjector(), 'projector')],
      },
    ],
  },
];

/** The option of a question that is taken; null where another answer makes it needless. */
export function takenOf(
  { asks }: Occasion,
  ask: OccasionAsk,
  answers: OccasionAnswers,
): OccasionAsk['options'][number] | null {
  const other = ask.unless && asks.find((a) => a.id === ask.unless![0]);
  if (other && (answers[other.id] ?? other.options[0]!.id) === ask.unless![1]) return null;
  return ask.options.find((o) => o.id === answers[ask.id]) ?? ask.options[0]!;
}

/** The plain words of an occasion, as it was answered; what was not answered as is usual. */
export const wordsFor = (occasion: Occasion, answers: OccasionAnswers = {}): string =>
  occasion.asks
    .reduce((text, ask) => text.replaceAll(`{${ask.id}}`, takenOf(occasion, ask, answers)?.words ?? ''), occasion.words)
    .split('\n')
    .filter((line) => line.trim() !== '')
    .join('\n');

/** The desk of an occasion; everything on it is assumed until someone has looked. */
export function rigFor(occasion: Occasion, answers: OccasionAnswers = {}, name = textOf(occasion.name)): Rig {
  const { rig } = readDesk(wordsFor(occasion, answers), { name });
  if (!rig) throw new Error(`${occasion.id}: nothing was understood`);
  return rig;
}
