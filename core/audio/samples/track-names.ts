/** Names of tracks in a WAV: the TRACK_LIST of an iXML chunk, an open format of field recorders. */

const ENTITIES = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" } as const;

/** By channel of the file, '' where one has no name; empty where there is no list. */
export function readTrackNames(ixml: string): string[] {
  const names: string[] = [];
  for (const [, track = ''] of ixml.matchAll(/<TRACK>([\s\S]*?)<\/TRACK>/g)) {
    const channel = Number(/<INTERLEAVE_INDEX>\s*(\d{1,4})\s*</.exec(track)?.[1] ?? names.length + 1);
    const name = /<NAME>([^<]*)<\/NAME>/.exec(track)?.[1] ?? '';
    if (channel < 1) continue;
    while (names.length < channel) names.push('');
    names[channel - 1] = name
      .replace(/&(amp|lt|gt|quot|apos);/g, (_, key: keyof typeof ENTITIES) => ENTITIES[key])
      .trim();
  }
  return names;
}

export function writeTrackNames(names: readonly string[]): string {
  const escaped = (name: string) =>
    Object.entries(ENTITIES).reduce((text, [key, sign]) => text.replaceAll(sign, `&${key};`), name);
  const tracks = names.map(
    (name, i) =>
      `<TRACK><CHANNEL_INDEX>${i + 1}</CHANNEL_INDEX><INTERLEAVE_INDEX>${i + 1}</INTERLEAVE_INDEX><NAME>${escaped(name)}</NAME></TRACK>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?><BWFXML><IXML_VERSION>1.61</IXML_VERSION><TRACK_LIST><TRACK_COUNT>${names.length}</TRACK_COUNT>${tracks.join('')}</TRACK_LIST></BWFXML>`;
}
