import { markedText } from './marked.ts';
import { speak } from './message.ts';

/** The language that someone reads, and how they write numbers. */
export interface Chosen {
  readonly language: 'en' | 'marked';
  readonly numberLocale: string;
}

/** Regions that measure rooms in feet (Unicode CLDR, measurementSystemData: US). */
const FEET = new Set(['US', 'LR', 'MM']);

/** Whether feet are read where numbers are written so: 'en-US' yes, 'en-GB' or 'en' no. */
const readsFeet = (locale: string): boolean => FEET.has(new Intl.Locale(locale).region ?? '');

let chosen: Chosen | null = null;

/** From now on everything here is said in this language. */
export function speakIn(next: Chosen): void {
  chosen = next;
  speak({
    numberLocale: next.numberLocale,
    feet: readsFeet(next.numberLocale),
    ...(next.language === 'marked' && { textOf: ({ icu }) => markedText(icu) }),
  });
}

/** What is spoken here, for a worker of this page: it goes along as the worker's name. */
export const handedOn = (): string => JSON.stringify(chosen);

/** In a worker: speaks as the page does that made it. */
export function speakAsHandedOn(name: string): void {
  const handed: Chosen | null = name === '' ? null : JSON.parse(name);
  if (handed) speakIn(handed);
}
