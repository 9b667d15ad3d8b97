import { type Chain, connectorOf } from '#core/model/plug/index.ts';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import { chainOf, type Finding, type LeadSeen, leadsOf, limitOf, type Severity } from '#core/rules/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { wire as say, textOf } from '#words/index.ts';

/** A cable as a row of the table. */
export interface LeadRow {
  readonly id: string;
  readonly lead: LeadSeen;
  /** The parts of the cable; null where none fits, undefined where an app is at one end. */
  readonly chain: Chain | null | undefined;
  readonly limit: ReturnType<typeof limitOf>;
  /** Sources whose sound goes along it. */
  readonly sourceIds: readonly string[];
  readonly worst: Severity | null;
}

const WEIGHT: Record<Severity, number> = { stop: 0, fix: 1, watch: 2 };

/** Every cable of the rig, in the order of its names. */
export function leadRows(rig: Rig, evaluation: Evaluation, findings: readonly Finding[]): LeadRow[] {
  return leadsOf(rig, findTypes(rig))
    .filter((l) => !l.twin)
    .map((lead) => {
      const chain = chainOf(lead);
      const here = findings.filter((f) => f.where.cableIds.includes(lead.cable.id));
      const arrived = evaluation.graph.nodesOf(lead.cable.from).flatMap((node) => evaluation.arrivals[node]!);
      return {
        id: lead.cable.id,
        lead,
        chain: chain === 'nothing-to-plug' ? undefined : chain,
        limit: limitOf(lead),
        sourceIds: [...new Set(arrived.map((a) => rig.sources[a.sourceIndex]!.id))],
        worst: here.map((f) => f.severity).sort((a, b) => WEIGHT[a] - WEIGHT[b])[0] ?? null,
      };
    });
}

/** The cable in words: 'lead, hdmi-mini to hdmi'; its sockets where an app is at one end. */
export function sayParts({ chain, lead }: LeadRow): string {
  if (chain === null) return say.noCableFits();
  if (chain) return chain.parts.length === 0 ? say.itsOwnCable() : chain.parts.map((p) => textOf(p.name)).join(' + ');
  const socket = connectorOf(lead.from.port.connector) ?? connectorOf(lead.to.port.connector);
  return socket ? say.cableFromToComputer({ socket: textOf(socket.name) }) : say.insideComputer();
}

/** What all the cables cost together, as such things usually cost, and how many parts they are. */
export function billOf(rows: readonly LeadRow[]): { parts: number; low: number; high: number } {
  const chains = rows.flatMap((r) => (r.chain ? [r.chain] : []));
  return {
    parts: chains.reduce((n, c) => n + c.parts.length, 0),
    low: chains.reduce((n, c) => n + c.price[0], 0),
    high: chains.reduce((n, c) => n + c.price[1], 0),
  };
}

export const matches = (row: LeadRow, search: string): boolean => {
  const { from, to } = row.lead;
  const text = `${from.device.name} ${from.port.name} ${to.device.name} ${to.port.name} ${sayParts(row)}`.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
};
