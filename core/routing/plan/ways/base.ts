import type { Brief } from './brief.ts';
import type { WayMaker } from './maker.ts';

/** What is the same however it is built: people, consoles on a screen, the computer with its programs. */
export interface Base {
  readonly computer: string;
  readonly program: string;
  readonly call: string | null;
  readonly people: readonly string[];
  readonly screen: string;
  readonly splitter: string | null;
  readonly phone: string | null;
  /** The end that shows what the capture device brings; null without a console. */
  readonly captured: string | null;
}

export const SAME_SIDES = [
  { from: 'left', to: 'left' },
  { from: 'right', to: 'right' },
];

export function base(make: WayMaker, brief: Brief, screenType = 'television'): Base {
  const computer = make.add('computer-desktop', 'Computer');
  const program = make.add('capture-program', 'Streaming software');
  const people = Array.from({ length: brief.voices }, (_, i) => make.add('person', i === 0 ? 'Host' : 'Second voice'));
  const screen = make.add(screenType, 'Display');
  const consoles = Array.from({ length: brief.consoles }, (_, i) =>
    make.add('game-console', i === 0 ? 'Console' : 'Second console'),
  );
  let splitter: string | null = null;
  let captured: string | null = null;
  if (consoles.length > 0) {
    if (consoles.length > 1) {
      splitter = make.add('hdmi-switch-splitter', 'Switch and splitter');
      make.lead(consoles[0]!, splitter, { to: 'in-a' });
      make.lead(consoles[1]!, splitter, { to: 'in-b' });
    } else {
      splitter = make.add('hdmi-splitter', 'Splitter');
      make.lead(consoles[0]!, splitter);
    }
    make.lead(splitter, screen, { from: 'out-1' });
    const capture = make.add('capture-usb-compressed', 'Capture card');
    make.lead(splitter, capture, { from: 'out-2' });
    make.lead(capture, computer);
    captured = make.brings(computer, capture);
    if (captured) make.link(captured, `${program}.in-1`, 'software');
  }
  const call = brief.guests > 0 ? make.add('call', 'Call') : null;
  if (call) make.guest(call, 'Guest');
  const phone = brief.music ? make.add('phone', 'Phone') : null;
  return { computer, program, call, people, screen, splitter, phone, captured };
}

/** Gain that a close dynamic microphone needs, dB (typical). */
export const MICROPHONE_DB = 50;

/** Each voice into a microphone of its own. */
export const voices = (make: WayMaker, people: readonly string[], typeId: string): string[] =>
  people.map((person) => {
    const microphone = make.add(typeId);
    make.link(`${person}.voice`, `${microphone}.capsule`, 'air', 0.15);
    return microphone;
  });

/** Speakers for the room: from a device by the cheapest lead, or from one end by a cable that is said. */
export function room(
  make: WayMaker,
  from: string,
  port: string | null | undefined,
  map?: { from: string; to: string }[],
): void {
  const loudspeakers = make.add('loudspeakers-active', 'Room speakers');
  const audience = make.add('audience', 'Audience');
  if (map) make.link(from, `${loudspeakers}.line`, 'lead', 5, map);
  else make.lead(from, loudspeakers, port ? { from: port } : {});
  make.link(`${loudspeakers}.front`, `${audience}.ears`, 'air', 4);
}
