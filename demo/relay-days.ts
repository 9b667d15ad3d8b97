import { seededNormal } from '#core/audio/samples/index.ts';
import { DayEvent } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { boathouse } from './boathouse.ts';

const EVENINGS = 24;
const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** The first Thursday evening of the rehearsals. */
const FIRST_MS = Date.UTC(2026, 4, 28, 17, 30);
/** From this evening on the capture device had other firmware, and was later. */
const FIRMWARE_AT = 21;

/** Ids that are the same each time: set up twice, nothing is there twice. */
const id = (evening: number, n: number): string =>
  `0da70000-${String(evening).padStart(4, '0')}-4000-8000-${String(n).padStart(12, '0')}`;

/** The relay as it stood on the last evening that went well: a shorter lead, less gain, no jingles yet. */
function lastEvening(): Rig {
  return {
    ...boathouse,
    cables: boathouse.cables
      .filter((c) => c.id !== 'phone-line')
      .map((c) => (c.id === 'wren-xlr' ? { ...c, lengthM: 4 } : c)),
    devices: boathouse.devices.map((d) =>
      d.id === 'mixer'
        ? { ...d, settings: { ...d.settings, 'strip-1-gain': { value: 52, known: 'confirmed' as const } } }
        : d,
    ),
  };
}

type Told<E> = E extends DayEvent ? Omit<E, 'id' | 'at' | 'sessionId' | 'by'> : never;

/** What was wrong on which evening, and what it was. */
const TROUBLES: Readonly<Record<number, Told<DayEvent>>> = {
  3: trouble(
    'At Backup recorder, Wren, voice is not heard.',
    'lead-out:wren-xlr',
    'A plug of the lead from Wren’s microphone was out.',
    3,
  ),
  9: trouble(
    'At Stream, Couch game has no picture.',
    'set:console.copy-protection:on',
    'The console’s copy protection was on.',
    4,
  ),
  12: trouble(
    'At Backup recorder, Wren, voice is not heard.',
    'lead-out:wren-xlr',
    'A plug of the lead from Wren’s microphone was out.',
    2,
  ),
  18: trouble('Stream has clicks or drop-outs.', 'set:mixer.sample-rate:44100', 'The mixer counted 44.1 kHz.', 5),
};

function trouble(complaint: string, faultId: string, was: string, looks: number): Told<DayEvent> {
  return { kind: 'trouble', complaint, faultId, was, looks };
}

/** Rehearsals of the relay: half a year of Thursday evenings, with what was measured on each. */
export function relayDays(): DayEvent[] {
  const normal = seededNormal(2026);
  return Array.from({ length: EVENINGS }, (_, evening) => {
    const beganMs = FIRST_MS + 7 * evening * DAY_MS;
    let n = 0;
    const tell = (afterMs: number, told: Told<DayEvent>): DayEvent =>
      DayEvent.parse({
        ...told,
        id: id(evening, ++n),
        at: new Date(beganMs + afterMs).toISOString(),
        sessionId: id(evening, 0),
        by: 'desk',
      });
    const figure = (key: string, label: string, unit: string, value: number, sd: number): Told<DayEvent> => ({
      kind: 'figure',
      measurementId: `${key}-${evening}`,
      key,
      label,
      unit,
      value: Number(value.toFixed(2)),
      sd,
      count: 5,
    });
    const wrong = TROUBLES[evening];
    const last = evening === EVENINGS - 1;
    return [
      tell(0, { kind: 'begin', name: `Rehearsal ${evening + 1}` }),
      ...(wrong ? [tell(HOUR_MS / 3, wrong)] : []),
      tell(HOUR_MS, { kind: 'mark', says: 'full run' }),
      tell(
        1.6 * HOUR_MS,
        figure(
          'delay:capture',
          'Couch game at Stream: delay',
          'ms',
          63 + 1.1 * normal() + (evening >= FIRMWARE_AT ? 6 : 0),
          0.9,
        ),
      ),
      tell(1.7 * HOUR_MS, figure('noise:backup', 'Backup recorder: noise', 'dB', -71 + 0.5 * normal(), 0.3)),
      tell(2 * HOUR_MS, {
        kind: 'end',
        good: evening !== 9 && evening !== 18,
        says: evening === FIRMWARE_AT ? 'capture card got new firmware' : last ? 'all as planned' : '',
        rig: last ? lastEvening() : null,
      }),
    ];
  }).flat();
}
