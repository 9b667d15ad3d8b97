import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CONNECTORS, type ConnectorKind, PARTS } from '#core/model/plug/index.ts';
import type { LevelClass, Rig } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { joined } from './check.testkit.ts';
import { check } from './index.ts';

/** Rules that say of a cable that nothing is heard by it. */
const SILENT = new Set([
  'plug-three-in-four',
  'plug-four-in-three',
  'plug-parts-do-not-fit',
  'plug-none-fits',
  'plug-nothing-over',
  'usb-two-alike',
  'level-digital-into-analogue',
  'level-analogue-into-digital',
]);
const LEVELS: Readonly<Record<ConnectorKind, readonly LevelClass[]>> = {
  jack: ['microphone', 'line', 'headphone'],
  xlr: ['microphone', 'line'],
  phono: ['line', 'digital'],
  hdmi: ['digital'],
  usb: ['digital'],
  optical: ['digital'],
  network: ['digital'],
  loudspeaker: ['speaker'],
  pins: ['line'],
};

const anEnd = () =>
  fc.constantFrom(...CONNECTORS).chain(({ id, kind }) =>
    fc.record({
      connector: fc.constant(id),
      level: fc.constantFrom(...LEVELS[kind]),
      channels: fc.constantFrom(1, 2),
    }),
  );
/** Nothing said, nothing between, one part, or two. */
const someParts = () =>
  fc.oneof(
    fc.constant(undefined),
    fc.uniqueArray(fc.constantFrom(...PARTS.map((p) => p.id)), { maxLength: 2 }),
    fc.constantFrom(...PARTS.map((p) => [p.id])),
  );

const arrivesBy = (rig: Rig): boolean => {
  const { arrivals, graph } = evaluate(rig);
  return graph.nodesOf({ deviceId: 'b', portId: 'port' }).some((n) => arrivals[n]!.length > 0);
};

describe('a lead, whatever stands in it', () => {
  it('is silent in the findings exactly where nothing arrives by it', () => {
    let [silent, heard] = [0, 0];
    fc.assert(
      fc.property(anEnd(), anEnd(), someParts(), (from, to, parts) => {
        const plain = joined({ from, to });
        const rig: Rig = {
          ...plain,
          cables: plain.cables.map((c) => ({ ...c, ...(parts && { parts }) })),
          sources: [
            {
              id: 's',
              name: 's',
              letter: 'S',
              hue: 1,
              sound: { deviceId: 'a', portId: 'port' },
              level: [-20, -14, -8],
            },
          ],
          listeners: [{ id: 'l', name: 'l', sound: { deviceId: 'b', portId: 'port' } }],
        };
        const claims = check(rig)
          .map((f) => f.rule)
          .filter((rule) => SILENT.has(rule));
        if (arrivesBy(rig)) {
          heard++;
          expect(claims).toEqual([]);
        } else {
          silent++;
          expect(claims.length).toBeGreaterThan(0);
        }
      }),
      { numRuns: casesOf(1500, 4000), seed: 7 },
    );
    expect(Math.min(silent, heard)).toBeGreaterThan(casesOf(80, 200));
  });
});
