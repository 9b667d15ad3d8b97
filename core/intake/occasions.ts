import type { Rig } from '#core/rig/index.ts';
import { readDesk } from './read-desk.ts';

/** A question before a desk opens: each answer is a few words of it. */
export interface OccasionAsk {
  readonly id: string;
  readonly asks: string;
  /** An answer of another question that makes this one needless: `[question, answer]`. */
  readonly unless?: readonly [ask: string, answer: string];
  readonly options: readonly { readonly id: string; readonly label: string; readonly words: string }[];
}

/** A usual purpose: a desk in plain words, with what has to be known before it opens. */
export interface Occasion {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  /** Plain words with `{id}` where the words of an answer stand. */
  readonly words: string;
  readonly asks: readonly OccasionAsk[];
}

/** What is answered of an occasion: an option's id by the question's. */
export type OccasionAnswers = Readonly<Record<string, string>>;

const option = (id: string, label: string, words: string) => ({ id, label, words });

const VOICE: OccasionAsk = {
  id: 'mic',
  asks: 'Which mic do you have?',
  options: [
    option('usb', 'A USB mic', 'me > usb mic > pc'),
    option('headset', 'The mic of a USB headset', 'me > usb headset > pc'),
    option('xlr-interface', 'An XLR mic and an interface', 'me > xlr mic > interface > pc'),
    option('xlr-mixer', 'An XLR mic and a USB mixer', 'me > xlr mic > usb mixer > pc'),
  ],
};
const EARS: OccasionAsk = {
  id: 'ears',
  asks: 'Where do you listen?',
  unless: ['mic', 'headset'],
  options: [
    option('headphones', 'Headphones at the computer', 'me with headphones on the pc'),
    option('headset', 'A USB headset', 'me with usb headset on the pc'),
    option('speakers', 'Speakers on the desk', 'pc > pc speakers'),
  ],
};

export const OCCASIONS: readonly Occasion[] = [
  {
    id: 'console-stream',
    name: 'Stream a console',
    says: 'One player, a capture card and a mic: what the stream hears, and what you hear.',
    words: '{consoles} > capture card > pc > streaming app\n{mic}\n{ears}',
    asks: [
      {
        id: 'consoles',
        asks: 'How many consoles?',
        options: [
          option('1', 'One', 'console > splitter > tv\nsplitter'),
          option('2', 'Two, by a switch', '2 consoles > hdmi switch'),
          option('3', 'Three, by a switch', '3 consoles > 3 in hdmi switch'),
        ],
      },
      VOICE,
      EARS,
    ],
  },
  {
    id: 'pc-stream',
    name: 'Stream a PC game',
    says: 'The game and the streaming app run on one computer.',
    words: 'pc game and streaming app on the pc\n{mic}\n{ears}\n{camera}',
    asks: [
      VOICE,
      EARS,
      {
        id: 'camera',
        asks: 'Do you show yourself?',
        options: [option('webcam', 'With a webcam', 'webcam > pc'), option('none', 'No', '')],
      },
    ],
  },
  {
    id: 'friends-stream',
    name: 'Stream with friends on voice chat',
    says: 'Your game, your voice, and friends who must hear you and never themselves.',
    words: '{game}\nstreaming app on the pc\n{friends} on voice chat on the pc\n{mic}\n{ears}',
    asks: [
      {
        id: 'friends',
        asks: 'How many friends?',
        options: [option('1', 'One', 'friend'), option('2', 'Two', '2 friends'), option('3', 'Three', '3 friends')],
      },
      VOICE,
      {
        id: 'game',
        asks: 'What do you play on?',
        options: [
          option('pc', 'The computer', 'pc game on the pc'),
          option('console', 'A console', 'console > capture card > pc'),
        ],
      },
      EARS,
    ],
  },
  {
    id: 'two-computers',
    name: 'A gaming PC and a streaming PC',
    says: 'One computer plays, the other takes its picture and streams.',
    words:
      'gaming pc > hdmi splitter > monitor\nhdmi splitter > capture card > streaming pc > streaming app\npc game on the gaming pc\n{mic}\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: 'Which mic do you have?',
        options: [
          option('usb', 'A USB mic', 'me > usb mic > streaming pc'),
          option('xlr', 'An XLR mic and an interface', 'me > xlr mic > interface > streaming pc'),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        options: [
          option('headphones', 'Headphones at the gaming PC', 'me with headphones on the gaming pc'),
          option('headset', 'A USB headset at the gaming PC', 'me with usb headset on the gaming pc'),
        ],
      },
    ],
  },
  {
    id: 'two-players',
    name: 'Two players on a couch',
    says: 'Two voices and a camera beside the game, on one stream.',
    words:
      'console > splitter > tv\nsplitter > capture card > pc > streaming app\n{voices} > 2 xlr mics > digital mixer > pc\n{camera}\n{ears}',
    asks: [
      { id: 'voices', asks: 'Who plays?', options: [option('2', 'You and a guest', 'me and guest')] },
      {
        id: 'camera',
        asks: 'Which camera?',
        options: [
          option('webcam', 'A webcam', 'webcam > pc'),
          option('hdmi', 'A camera over HDMI', 'camera > capture stick > pc'),
          option('none', 'None', ''),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        options: [
          option('amp', 'Two headphones at the mixer', 'digital mixer > headphone amp > 2 headphones'),
          option('tv', 'At the TV', ''),
        ],
      },
    ],
  },
  {
    id: 'class',
    name: 'Teach over a video call',
    says: 'A teacher at a computer, students at home, music or sound that keeps time with the voice.',
    words: 'students on video call on the laptop\n{mic}\n{sound}\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: 'Which mic do you have?',
        options: [
          option('headset', 'A USB headset', 'teacher > usb headset > laptop'),
          option('usb', 'A USB mic', 'teacher > usb mic > laptop'),
          option('lav', 'A wireless lav', 'teacher > wireless lav > laptop'),
        ],
      },
      {
        id: 'sound',
        asks: 'What do you play to them?',
        options: [
          option('none', 'Nothing', ''),
          option('music', 'Music from the computer', 'music on the laptop > video call'),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        unless: ['mic', 'headset'],
        options: [
          option('headset', 'At the computer', ''),
          option('headphones', 'In headphones', 'teacher with headphones on the laptop'),
        ],
      },
    ],
  },
  {
    id: 'podcast',
    name: 'Record a podcast at a table',
    says: 'Each voice on a mic of its own, recorded; a guest far away if there is one.',
    words: '{voices} > {box} > laptop > recording app\n{guest}\n{ears}',
    asks: [
      {
        id: 'voices',
        asks: 'How many talk at the table?',
        options: [
          option('2', 'Two', 'me and guest > 2 xlr mics'),
          option('3', 'Three', 'me and 2 guests > 3 xlr mics'),
          option('4', 'Four', 'me and 3 guests > 4 xlr mics'),
        ],
      },
      {
        id: 'box',
        asks: 'What do the mics go into?',
        options: [
          option('mixer', 'A digital mixer', 'digital mixer'),
          option('interface', 'An interface with four inputs', '4 channel interface'),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        options: [
          option('headphones', 'In headphones', 'me with headphones on the laptop'),
          option('none', 'Nobody listens while it runs', ''),
        ],
      },
      {
        id: 'guest',
        asks: 'Is somebody far away?',
        options: [
          option('none', 'No', ''),
          option('call', 'A guest on a call', 'remote guest on a call on the laptop'),
        ],
      },
    ],
  },
  {
    id: 'panel',
    name: 'A panel in a hall, with members far away',
    says: 'Voices on XLR, loudspeakers for the hall, a call for those who are not there, and a stream.',
    words: '{voices} > digital mixer > pa speakers > audience\ndigital mixer > laptop > streaming app\n{far}\n{camera}',
    asks: [
      {
        id: 'voices',
        asks: 'How many sit at the table?',
        options: [
          option('3', 'Three', 'moderator and 2 guests > 3 xlr mics'),
          option('4', 'Four', 'moderator and 3 guests > 4 xlr mics'),
          option('2', 'Two', 'moderator and guest > 2 xlr mics'),
        ],
      },
      {
        id: 'far',
        asks: 'Does somebody join from far away?',
        options: [
          option('none', 'No', ''),
          option('one', 'One, on a call', 'remote guest on a video call on the laptop'),
        ],
      },
      {
        id: 'camera',
        asks: 'Which camera?',
        options: [
          option('webcam', 'A webcam', 'webcam > laptop'),
          option('hdmi', 'A camera over HDMI', 'camera > capture stick > laptop'),
        ],
      },
    ],
  },
  {
    id: 'interview',
    name: 'An interview on camera',
    says: 'Lav mics into the camera or a recorder, and whoever films listens.',
    words: '{mics}\n{ears}',
    asks: [
      {
        id: 'mics',
        asks: 'Where do the mics go?',
        options: [
          option('recorder', 'Into a field recorder', 'me and guest > 2 xlr mics > field recorder\ncamera'),
          option('camera', 'By radio, on the camera', 'me > wireless lav kit > camera > monitor recorder'),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        options: [
          option('none', 'Nobody listens', ''),
          option('recorder', 'Earphones at the recorder', 'operator with earphones'),
        ],
      },
    ],
  },
  {
    id: 'music',
    name: 'Play and sing on a stream',
    says: 'An instrument and a voice into an interface, heard in headphones without delay.',
    words:
      'me > xlr mic > 2 channel interface > pc > streaming app\n{instrument} > 2 channel interface\nheadphones on the 2 channel interface\n{camera}',
    asks: [
      {
        id: 'instrument',
        asks: 'What do you play?',
        options: [
          option('acoustic', 'An acoustic guitar with pickup', 'acoustic guitar'),
          option('electric', 'An electric guitar, by a DI box', 'electric guitar > di box'),
          option('keys', 'A keyboard', 'keyboard'),
        ],
      },
      {
        id: 'camera',
        asks: 'Do you show yourself?',
        options: [option('webcam', 'With a webcam', 'webcam > pc'), option('none', 'No', '')],
      },
    ],
  },
  {
    id: 'voice',
    name: 'Record one voice',
    says: 'A mic, an interface, headphones, and an app that records.',
    words: '{mic} > laptop > recording app\n{ears}',
    asks: [
      {
        id: 'mic',
        asks: 'Which mic do you have?',
        options: [
          option('condenser', 'A condenser and an interface', 'me > condenser mic > interface'),
          option('dynamic', 'A dynamic mic and an interface', 'me > xlr mic > interface'),
          option('usb', 'A USB mic', 'me > usb mic'),
        ],
      },
      {
        id: 'ears',
        asks: 'Where do you listen?',
        options: [
          option('headphones', 'In headphones at the computer', 'me with headphones on the laptop'),
          option('none', 'Afterwards', ''),
        ],
      },
    ],
  },
  {
    id: 'head-worn',
    name: 'Show a VR game',
    says: 'You move with a display on your head; others watch the same picture, and it is streamed.',
    words: 'pc game and streaming app on the pc\nme > vr headset > pc\npc > {screen}',
    asks: [
      {
        id: 'screen',
        asks: 'Where do the others watch?',
        options: [option('tv', 'On a TV', 'tv'), option('projector', 'On a projector', 'projector')],
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

/** The desk of an occasion; everything on it is assumed until somebody has looked. */
export function rigFor(occasion: Occasion, answers: OccasionAnswers = {}, name = occasion.name): Rig {
  const { rig } = readDesk(wordsFor(occasion, answers), { name });
  if (!rig) throw new Error(`${occasion.name}: nothing was understood`);
  return rig;
}
