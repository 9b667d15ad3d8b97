/** A piece of a typed text: a word, a name in quotes, an arrow, or what parts words. */
export interface Lexeme {
  readonly kind: 'word' | 'name' | 'arrow' | 'back' | 'comma' | 'and' | 'break' | 'colon';
  readonly text: string;
  /** Its position in the text. */
  readonly from: number;
  readonly to: number;
}

const PIECES: readonly [kind: Lexeme['kind'] | 'space', pattern: RegExp][] = [
  ['name', /"[^"\n]*"|“[^”\n]*”/y],
  ['back', /<[-=]+|←|⇐|<(?=\s)/y],
  ['arrow', /[-=]+>+|>+|→|⇒|»|›/y],
  ['break', /[;\n]|\.(?=\s|$)|[!?]/y],
  ['comma', /,/y],
  ['colon', /:(?=\s)/y],
  ['and', /[&+](?![\w])|[&](?=\w)|(?:and|plus|as well as)\b(?!-)/iy],
  ['space', /[\s()[\]:]+|[-–—*•](?=\s)/y],
  ['word', /[^\s,;>→⇒»›()[\]"“”!?:←⇐]+?(?=-+>|=+>|\.(?:\s|$)|[\s,;>→⇒»›()[\]"“”!?:←⇐]|$)/y],
];

/** Parts a text into pieces; what is no piece (a stray sign) is left out, as a space is. */
export function lexemesOf(text: string): Lexeme[] {
  const found: Lexeme[] = [];
  for (let at = 0; at < text.length; ) {
    const hit = PIECES.map(([kind, pattern]) => {
      pattern.lastIndex = at;
      return { kind, text: pattern.exec(text)?.[0] };
    }).find((h) => h.text);
    const length = hit?.text?.length ?? 1;
    if (hit?.text && hit.kind !== 'space') found.push({ kind: hit.kind, text: hit.text, from: at, to: at + length });
    at += length;
  }
  return found;
}
