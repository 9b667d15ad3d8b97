import { plainLine } from '#core/base/text/index.ts';
import type { Rig } from '#core/model/rig/index.ts';

const quoted = (text: string): string => `"${plainLine(text).replace(/\\/g, '\\\\').replace(/"/g, '\\"')}"`;
const STYLE: Partial<Record<Rig['cables'][number]['medium'], string>> = {
  software: 'dashed',
  air: 'dotted',
  light: 'dotted',
  radio: 'bold',
};

/** The rig's devices and what joins them as a Graphviz graph, left to right. */
export function rigToDot(rig: Rig): string {
  const devices = rig.devices.map((d) => `  ${quoted(d.id)} [label=${quoted(d.name)}];`);
  const cables = rig.cables.map((c) => {
    const style = STYLE[c.medium];
    const label =
      c.medium === 'lead' ? `${c.from.portId} > ${c.to.portId}, ${c.lengthM} m` : `${c.from.portId} > ${c.to.portId}`;
    return `  ${quoted(c.from.deviceId)} -> ${quoted(c.to.deviceId)} [label=${quoted(label)}${style ? `, style=${style}` : ''}];`;
  });
  return [`digraph ${quoted(rig.name)} {`, '  rankdir=LR;', '  node [shape=box];', ...devices, ...cables, '}', ''].join(
    '\n',
  );
}
