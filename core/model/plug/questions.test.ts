import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { type End, type LeadFound, leadsFor, lostBy } from './index.ts';

// 'Can this go there, with what, and what is lost?' The answers were written down from how the plugs are built and wired
// (tip, ring and sleeve; pin 2 hot, 3 cold; four contacts as CTIA has them) before the solver was asked.

const end = (direction: 'in' | 'out', connector: string, level: string, sides: number): End => ({
  direction,
  connector,
  level,
  sides,
});
const OUT = (connector: string, level: string, sides = 1) => end('out', connector, level, sides);
const IN = (connector: string, level: string, sides = 1) => end('in', connector, level, sides);

const OUTPUTS: Record<string, End> = {
  'XLR, microphone': OUT('xlr-male', 'microphone'),
  'XLR, line': OUT('xlr-male', 'line'),
  'two XLR, line': OUT('xlr-male-pair', 'line', 2),
  '6.35 balanced': OUT('jack-635-trs', 'line'),
  'two 6.35': OUT('jack-635-pair', 'line', 2),
  '6.35 phones': OUT('jack-635-trs', 'headphone', 2),
  '3.5 line': OUT('jack-35-trs', 'line', 2),
  '3.5 phones': OUT('jack-35-trs', 'headphone', 2),
  'four contacts': OUT('jack-35-trrs', 'headphone', 2),
  'two phono': OUT('phono-pair', 'line', 2),
  '6.35 mono': OUT('jack-635-ts', 'line'),
  'lapel, 3 contacts': OUT('plug-35-trs', 'microphone'),
  'lapel, 4 contacts': OUT('plug-35-trrs', 'microphone'),
  HDMI: OUT('hdmi', 'digital', 2),
  'USB device': OUT('usb-b', 'digital', 2),
  optical: OUT('toslink', 'digital', 2),
  terminals: OUT('terminals', 'speaker'),
};
const INPUTS: readonly End[] = [
  IN('combo-xlr', 'microphone'),
  IN('xlr-female', 'line'),
  IN('xlr-female-pair', 'line', 2),
  IN('jack-635-pair', 'line', 2),
  IN('jack-635-trs', 'line'),
  IN('jack-35-trs', 'line', 2),
  IN('jack-35-trs', 'microphone', 2),
  IN('jack-35-trs', 'microphone'),
  IN('jack-35-trrs', 'microphone'),
  IN('phono-pair', 'line', 2),
  IN('plug-635-trs', 'headphone', 2),
  IN('plug-35-trs', 'headphone', 2),
  IN('hdmi', 'digital', 2),
  IN('usb-a', 'digital', 2),
  IN('toslink', 'digital', 2),
  IN('terminals', 'speaker'),
  IN('jack-635-ts', 'line'),
  IN('plug-35-trrs', 'headphone', 2),
];

/**
 * What comes through the right lead. W: everything, each side to its own, one to both, or one to one. S: both sides in
 * one. 1: one side. I: the right side upside down. D: bits or power. `=` in full, `~` from half to all, as a balanced
 * output gives with one wire grounded. After the stroke, what the plain lead would do instead: c left minus right, i the
 * right side upside down, 1 one side only, s silence. `--` nothing goes.
 */
const ANSWERS = `
                    combo  xlr-f  2xlr   2x635  635bal 35line 35cam  35pc   4mic   2phono hp635  hp35   hdmi   usb    opt    term   635ts  hp4
XLR, microphone   | W=     W=     W=     W=     W=     W=     W=     W=     W=     W=     --     --     --     --     --     --     W=     --
XLR, line         | W=     W=     W=     W=     W=     W~     W~     W~     W~     W~     --     --     --     --     --     --     W~     --
two XLR, line     | 1=     1=     W=     W=     1=     W~     W~     1~     1~     W~     --     --     --     --     --     --     1~     --
6.35 balanced     | W=     W=     W=     W=     W=     W~/i   W~/i   W~     W~     W~     W~/i   W~/i   --     --     --     --     W~     W~/i
two 6.35          | S~     1=     W=     W=     S~     W~     W~     S~     1~     W~     1~/i   1~/i   --     --     --     --     S~     1~/i
6.35 phones       | S=/c   S=     W=     W=     S=/c   W=     W=     S=/1   S=/s   W=     W=     W=     --     --     --     --     S=/1   W=
3.5 line          | S=/c   S=     W=     W=     S=/c   W=     W=     S=/1   S=/s   W=     W=     W=     --     --     --     --     S=/1   W=
3.5 phones        | S=/c   S=     W=     W=     S=/c   W=     W=     S=/1   S=/s   W=     W=     W=     --     --     --     --     S=/1   W=
four contacts     | S=/c   S=     W=     W=     S=/c   W=     W=     S=/1   S=/s   W=     W=     W=     --     --     --     --     S=/1   W=
two phono         | S=     1=     W=     W=     S=     W=     W=     S=     1=     W=     --     1=     --     --     --     --     S=     --
6.35 mono         | W=     W=     W=     W=     W=     W=/1   W=/1   W=     W=     W=     W=/1   W=/1   --     --     --     --     W=     W=/1
lapel, 3 contacts | W=     W=     1=     1=     W=     W=     W=     W=     W=/s   1=     --     --     --     --     --     --     W=     --
lapel, 4 contacts | W=     W=     1=     1=     W=     W=/s   W=/s   W=/s   W=     --     --     --     --     --     --     --     W=     --
HDMI              | --     --     --     --     --     --     --     --     --     --     --     --     D      --     --     --     --     --
USB device        | --     --     --     --     --     --     --     --     --     --     --     --     --     D      --     --     --     --
optical           | --     --     --     --     --     --     --     --     --     --     --     --     --     --     D      --     --     --
terminals         | --     --     --     --     --     --     --     --     --     --     --     --     --     --     --     D      --     --
`;

const questions = ANSWERS.trim()
  .split('\n')
  .slice(1)
  .flatMap((row) => {
    const [name, cells] = row.split('|') as [string, string];
    return cells
      .trim()
      .split(/\s+/)
      .map((answer, i) => [name.trim(), INPUTS[i]!, answer] as const);
  });

/** What a cable does, in the letters of the table. */
function told(from: End, to: End, found: LeadFound | null): string {
  if (!found) return '--';
  const { wiring } = found;
  if (!wiring) return 'D';
  const { carried } = wiring;
  if (carried.length === 0) return 's';
  const low = Math.min(...carried.map((c) => Math.abs(c.low)));
  const high = Math.max(...carried.map((c) => Math.abs(c.high)));
  const size = high / low > 1.5 ? '~' : '=';
  if (carried.some((c) => c.nominal < 0)) return carried.some((c) => c.to === 1) ? `I${size}` : `c${size}`;
  const fed = new Set(carried.map((c) => c.to)).size;
  const taken = new Set(carried.map((c) => c.from)).size;
  if (fed < to.sides || taken < from.sides) return `1${size}`;
  return from.sides > to.sides ? `S${size}` : `W${size}`;
}

describe('what is lost', () => {
  const lost = (from: End, to: End) => lostBy(from, to, leadsFor(from, to).presumed!).map(textOf);
  it('is said in short', () => {
    const [phones, stereo, mono] = [
      OUTPUTS['3.5 phones']!,
      IN('jack-635-pair', 'line', 2),
      IN('combo-xlr', 'microphone'),
    ];
    expect(lost(phones, stereo)).toEqual([]);
    expect(lost(phones, mono)).toEqual(['plug.leftMinusRightCenter']);
    expect(lost(phones, IN('jack-635-ts', 'line'))).toEqual(['plug.oneSideOnly']);
    expect(lost(OUTPUTS['two phono']!, mono)).toEqual(['plug.bothSidesSummedEach']);
    expect(lost(OUTPUTS['XLR, line']!, IN('phono-pair', 'line', 2))).toEqual(['plug.unbalancedUpToDb']);
    expect(lost(OUTPUTS['lapel, 3 contacts']!, IN('jack-35-trrs', 'microphone'))).toEqual(['plug.nothingGetsThrough']);
    expect(lost(OUTPUTS['6.35 mono']!, IN('jack-35-trs', 'line', 2))).toEqual(['plug.onlyOneSideInput']);
  });
});

describe('can this go there, with what, and what is lost', () => {
  it('asks three hundred questions and more', () => {
    expect(questions.length).toBeGreaterThanOrEqual(300);
    expect(questions.every(([name]) => OUTPUTS[name])).toBe(true);
  });
  it.each(questions)('%s into %o: %s', (name, to, answer) => {
    const from = OUTPUTS[name]!;
    const [right, plain] = answer.split('/');
    const { right: found, presumed, suffices } = leadsFor(from, to);
    expect(told(from, to, found)).toBe(right);
    if (plain === undefined) expect(told(from, to, presumed)).toBe(right);
    else {
      expect(told(from, to, presumed)[0]!.toLowerCase()).toBe(plain);
      expect(suffices).toBe(false);
    }
  });
});
