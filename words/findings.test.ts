import { describe, expect, it } from 'vitest';
import type { Said } from '#core/base/said/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { CASES, MUCH_WRONG } from '#core/rules/family-cases.testkit.ts';
import { check, fixesOf } from '#core/rules/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { core, textOf } from './index.ts';

const RIGS: readonly Rig[] = [
  ...[boathouse, gliderCorner, quayTalk, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r)))),
  MUCH_WRONG,
  ...CASES.flatMap(([, wrong, right]) => [wrong, right]),
];
const all = RIGS.flatMap((rig) => check(rig).map((finding) => ({ rig, finding })));

/** What an action begins with. */
const ACTS =
  /(?:^|[.;:,] |\b(?:or|and|then|where you|in doubt, ) ?)(?:use|set|put|mute|move|turn|take|switch|select|choose|open|see|measure|connect|add|lower|change|clip|tie|power|pull|plug|charge|route|mix|pan|resample|invert|don’t|never|tape|go|draw|correct|check|secure|push|call|test|read|clamp|send|raise|see|ask|give|remove|keep|try)\b/i;

describe('every issue', () => {
  it('is said in whole sentences, with every parameter filled in', () => {
    // Every rule is here, with a rig that it is wrong on.
    expect(new Set(all.map(({ finding }) => (finding.says as Said).code)).size).toBeGreaterThan(95);
    for (const { finding } of all) {
      const text = textOf(finding.says);
      expect(text, finding.id).toMatch(/^[\p{Lu}\p{Ll}\d“].*[.]$/u);
      expect(text, finding.id).not.toMatch(/undefined|NaN|\[object|null|Infinity|check\.|\{/);
      for (const { says, source } of finding.why)
        expect(`${textOf(says)} ${textOf(source)}`, finding.id).not.toMatch(/undefined|NaN|check\.|\{/);
    }
  });

  it('ends in something to do', () => {
    const idle = all.map(({ finding }) => textOf(finding.says)).filter((text) => !ACTS.test(text));
    expect([...new Set(idle)]).toEqual([]);
  });

  it('has fixes that are said too', () => {
    for (const { rig, finding } of all.slice(0, 30))
      for (const fix of fixesOf(rig, finding)) expect(textOf(fix.label)).not.toMatch(/undefined|check\.|\{|^$/);
  });

  it('never tells anybody to defeat a safety ground', () => {
    for (const [key, message] of Object.entries(core.check))
      expect(message.icu.replace('Never defeat a safety ground (earth).', ''), key).not.toMatch(
        /(lift|defeat)\w* (a|the|its) ((mains|safety) )?(earth|ground)/i,
      );
  });

  it('quotes the names that somebody typed', () => {
    const twice = all.find(({ finding }) => finding.id === 'plan-twice:couch-game>stream')!;
    expect(textOf(twice.finding.says)).toBe(
      '“Couch game” reaches “Stream” twice, 31 ms apart: an echo. Mute one of the two paths.',
    );
  });
});
