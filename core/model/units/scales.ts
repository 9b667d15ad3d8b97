import type { Text } from '#core/base/said/index.ts';
import {
  dbFromRatio,
  dbuFromDbfs,
  dbuFromDbv,
  dbuFromVolts,
  dbvFromDbu,
  ratioFromDb,
  voltsFromDbu,
} from './decibels.ts';
import { say } from './sayings.ts';

/** Scales of level. Volts are RMS; dBFS is sine-referenced: peak and RMS of a sine read the same (AES17). */
export type LevelUnit = 'dBu' | 'dBV' | 'V' | 'mV' | 'dBFS' | 'dBTP' | 'LUFS' | 'VU' | '%';
/** What is typed: a level, or where a knob points. */
export type TypedLevel =
  | { readonly kind: 'level'; readonly value: number; readonly unit: LevelUnit }
  | { readonly kind: 'knob'; readonly travel: number };

/** The rig's reference: the level in dBu at full scale. */
export interface ScaleReference {
  readonly fullScaleDbu: number;
}

const VU_AT_DBU = 4;
const UNITS: readonly (readonly [RegExp, LevelUnit])[] = [
  [/^db\s?u$/i, 'dBu'],
  [/^db\s?v$/i, 'dBV'],
  [/^db\s?fs$/i, 'dBFS'],
  [/^db\s?tp$/i, 'dBTP'],
  [/^lufs$|^lkfs$/i, 'LUFS'],
  [/^vu$/i, 'VU'],
  [/^mv$/i, 'mV'],
  [/^v$|^volts?$/i, 'V'],
  [/^%$|^percent$/i, '%'],
];
/** Small numbers as people write them, from none. */
export const NUMBER_WORDS = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** Knobs run from 7 o'clock, all the way down, by 12, half their travel, to 5. */
const FIRST_HOUR = 7;
const HOURS = 10;

/** '+4 dBu', '0 VU', '-18 dBFS', '775 mV', '50 %', 'one o'clock', "12:30 o'clock"; null for what is none of these. */
export function readLevel(text: string): TypedLevel | null {
  const clean = text.trim().toLowerCase().replace('−', '-').replace(',', '.').replace(/’/g, "'");
  const clock = /^(?:(\d{1,2})(?::([0-5]\d))?|([a-z]+))\s*o'?\s?clock$/.exec(clean);
  if (clock) {
    const hour = clock[3] === undefined ? Number(clock[1]) : NUMBER_WORDS.indexOf(clock[3]);
    return readClock(hour, Number(clock[2] ?? 0));
  }
  const found = /^([+-]?\d+(?:\.\d+)?)\s*([a-z% ]+)$/.exec(clean);
  const unit = found && UNITS.find(([pattern]) => pattern.test(found[2]!.trim()))?.[1];
  if (!found || !unit) return null;
  const value = Number(found[1]);
  const positive = unit === 'V' || unit === 'mV' || unit === '%';
  return Number.isFinite(value) && (!positive || value > 0) ? { kind: 'level', value, unit } : null;
}

function readClock(hour: number, minute: number): TypedLevel | null {
  if (hour < 1 || hour > 12) return null;
  const past = (hour % 12) + minute / 60;
  const hours = past >= FIRST_HOUR ? past - FIRST_HOUR : past + 12 - FIRST_HOUR;
  return hours <= HOURS ? { kind: 'knob', travel: hours / HOURS } : null;
}

/** One scale's reading, with what it takes for granted. */
export interface Reading {
  readonly unit: LevelUnit;
  readonly value: number;
  readonly note: Text;
}

/** A level in all scales, by the rig's reference. Standards: 0 dBu 0.775 V, 0 VU +4 dBu, alignment by EBU R 68 or as set. */
export function readingsOf(
  { value, unit }: Extract<TypedLevel, { kind: 'level' }>,
  reference: ScaleReference,
): Reading[] {
  const dbu = toDbu(value, unit, reference);
  const dbfs = dbu - reference.fullScaleDbu;
  const at = say.fullScaleAt({ dbu: `${reference.fullScaleDbu > 0 ? '+' : ''}${reference.fullScaleDbu}` });
  return [
    { unit: 'dBu', value: dbu, note: say.dbuIs() },
    { unit: 'dBV', value: dbvFromDbu(dbu), note: say.dbvIs() },
    { unit: 'V', value: voltsFromDbu(dbu), note: say.rmsOfSine() },
    { unit: 'VU', value: dbu - VU_AT_DBU, note: say.vuIs() },
    { unit: 'dBFS', value: dbfs, note: at },
    { unit: 'dBTP', value: dbfs, note: say.peakOfSine() },
    { unit: 'LUFS', value: dbfs, note: say.sineOnBothSides() },
    { unit: '%', value: 100 * ratioFromDb(dbfs), note: say.ofFullScale() },
  ];
}

function toDbu(value: number, unit: LevelUnit, reference: ScaleReference): number {
  switch (unit) {
    case 'dBu':
      return value;
    case 'dBV':
      return dbuFromDbv(value);
    case 'V':
      return dbuFromVolts(value);
    case 'mV':
      return dbuFromVolts(value / 1000);
    case 'VU':
      return value + VU_AT_DBU;
    case '%':
      return dbuFromDbfs(dbFromRatio(value / 100), reference);
    default:
      return dbuFromDbfs(value, reference);
  }
}

const HALF_TRAVEL_DB = 15;

/** Attenuation of an audio-taper control at a position, dB below maximum: low, nominal, high. Halfway: -20, -15, -12 (typical). */
export function knobDb(travel: number): [low: number, nominal: number, high: number] {
  const turn = Math.log10(travel);
  return [-20, -HALF_TRAVEL_DB, -12].map((half) => (half / Math.log10(0.5)) * turn) as [number, number, number];
}

/** Position of an audio-taper control, as a fraction of its travel, for an attenuation in dB (nominal). */
export const knobTravel = (belowMaximumDb: number): number => Math.min(1, 0.5 ** (belowMaximumDb / HALF_TRAVEL_DB));

/** "1 o'clock", "12:30 o'clock": where a knob points at a part of its travel, to the nearest quarter of an hour. */
export function clockOf(travel: number): string {
  const quarters = Math.round(travel * HOURS * 4);
  const minutes = FIRST_HOUR * 60 + quarters * 15;
  const hour = Math.floor(minutes / 60) % 12 || 12;
  const minute = minutes % 60;
  return `${hour}${minute > 0 ? `:${String(minute).padStart(2, '0')}` : ''} o’clock`;
}
