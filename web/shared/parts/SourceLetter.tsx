import type { Rig } from '#core/model/rig/index.ts';

type Source = Rig['sources'][number];

export const hueOf = (source: Pick<Source, 'hue'>): string => `var(--s${source.hue})`;

/** A source's letter in its hue: the letter always comes along. */
export function SourceLetter({ source }: { source: Source }) {
  return (
    <span className="letter" style={{ background: hueOf(source) }} title={source.name}>
      {source.letter}
    </span>
  );
}
