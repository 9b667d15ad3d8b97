import { csvParseRows } from 'd3-dsv';
import { listOf, quoted, SaidError, type Text, textOf } from '#core/base/said/index.ts';
import { csvOf } from '#core/base/text/index.ts';
import { PARTS } from '#core/model/plug/index.ts';
import {
  applyEdit,
  type Edit,
  findDevice,
  findPort,
  findTypes,
  type PortRef,
  portAt,
  portKey,
  type Rig,
} from '#core/model/rig/index.ts';
import { chainOf, type LeadSeen, leadsOf, numberedLeads } from '#core/rules/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** For people first, by the names on the desk; then the ids by which the rig finds them again. */
const COLUMNS = [
  'cable',
  'from device',
  'from port',
  'to device',
  'to port',
  'kind',
  'length m',
  'known',
  'takes',
  'channels',
  'id',
  'from',
  'to',
  'parts',
] as const;
/** Heads of tables from before, which are read as well. */
const OLDER = ['lead', 'medium'] as const;
type Column = (typeof COLUMNS)[number] | (typeof OLDER)[number];
const NEEDED: readonly Column[] = ['from device', 'from port', 'to device', 'to port', 'length m'];
type Cable = Rig['cables'][number];

/** What a cable is called in a table. */
const KINDS = { lead: 'cable', radio: 'radio' } as const;

/**
 * Cables and radio links as a table, RFC 4180: names as on the desk, what each takes, its number as on the labels; with
 * the ids of the rig, so that it can be imported again.
 */
export function leadsToCsv(rig: Rig): string {
  const types = findTypes(rig);
  const leads = new Map(leadsOf(rig, types).map((lead) => [lead.cable.id, lead]));
  const numbers = new Map(numberedLeads(rig).map(({ number, lead }) => [lead.cable.id, number]));
  const rows = rig.cables.flatMap((c) => {
    if (c.medium !== 'lead' && c.medium !== 'radio') return [];
    const name = (ref: PortRef) => [deviceName(rig, ref.deviceId), findPort(rig, types, ref)?.name ?? ref.portId];
    const lead = leads.get(c.id);
    const at = portKey;
    return [
      [
        String(numbers.get(c.id) ?? ''),
        ...name(c.from),
        ...name(c.to),
        KINDS[c.medium],
        String(c.lengthM),
        c.known,
        lead ? takesOf(lead) : '',
        (c.map ?? []).map((pair) => `${pair.from}=${pair.to}`).join(' '),
        c.id,
        at(c.from.deviceId, c.from.portId),
        at(c.to.deviceId, c.to.portId),
        // What no one has looked at is left open; 'none' is a plug that goes straight in.
        c.parts ? c.parts.join(' + ') || NO_PARTS : '',
      ],
    ];
  });
  return csvOf([[...COLUMNS], ...rows]);
}

/** The cable and its adapters by their names, as drawn or as they fit. */
function takesOf(lead: LeadSeen): string {
  const chain = chainOf(lead);
  return chain === null || chain === 'nothing-to-plug' ? '' : chain.parts.map((part) => textOf(part.name)).join(' + ');
}

const NO_PARTS = 'none';

/** Result of one row: imported, unchanged, or why not. */
export interface RowReport {
  /** As a spreadsheet counts them: the heading is 1. */
  readonly line: number;
  readonly ok: boolean;
  readonly says: Text;
}
export interface LeadsRead {
  /** One step for all rows that are good; null where there is none. */
  readonly edit: Edit | null;
  readonly rows: readonly RowReport[];
}

/** More rows than any rig has leads. */
const MAX_ROWS = 2500;

/** Why a table is none of cables, in a sentence that says what to do. */
export class CsvError extends SaidError {
  constructor(what: Text) {
    super(what);
    this.name = 'CsvError';
  }
}

/**
 * Reads a table of cables against a rig: known cables take the length written, new ones are plugged. Rows that cannot be
 * are reported and left out; the rest is one edit.
 * @throws CsvError where it is no such table
 */
export function leadsFromCsv(rig: Rig, text: string): LeadsRead {
  const [head, ...body] = csvParseRows(text.replace(/^\uFEFF/, ''));
  const names = (head ?? []).map((h) => h.trim().toLowerCase());
  const missing = NEEDED.filter((c) => !names.includes(c));
  if (missing.length > 0) throw new CsvError(say.tableHasNoColumn({ names: listOf('and', missing.map(quoted)) }));
  const lines = body
    .map((cells, i) => ({ cells, line: i + 2 }))
    .filter(({ cells }) => cells.some((c) => c.trim() !== ''));
  if (lines.length > MAX_ROWS) throw new CsvError(say.tableHasRowRig({ rows: lines.length, most: MAX_ROWS }));
  const edits: Edit[] = [];
  let now = rig;
  const rows = lines.map(({ cells, line }): RowReport => {
    const cell = (column: Column) => cells[names.indexOf(column)]?.trim() ?? '';
    const read = readRow(now, cell);
    if ('why' in read) return { line, ok: false, says: read.why };
    if (read.edits.length === 0) return { line, ok: true, says: say.unchanged({ id: read.id }) };
    const done = applyEdit(now, { kind: 'batch', edits: read.edits });
    if (!done.ok) return { line, ok: false, says: done.refusal.reason };
    now = done.rig;
    edits.push(...read.edits);
    return { line, ok: true, says: read.says };
  });
  return { edit: edits.length > 0 ? { kind: 'batch', edits } : null, rows };
}

function readRow(
  rig: Rig,
  cell: (column: Column) => string,
): { why: Text } | { id: string; says: Text; edits: Edit[] } {
  const from = endOf(rig, cell('from'), cell('from device'), cell('from port'));
  const to = endOf(rig, cell('to'), cell('to device'), cell('to port'));
  if ('why' in from) return from;
  if ('why' in to) return to;
  const lengthM = Number(cell('length m').replace(',', '.'));
  if (cell('length m') === '' || !Number.isFinite(lengthM) || lengthM < 0 || lengthM > 1000)
    return { why: say.isNotLengthIn({ length: cell('length m') }) };
  const kind = cell('kind') || cell('medium') || KINDS.lead;
  const medium = kind === KINDS.lead || kind === 'lead' ? 'lead' : kind === KINDS.radio ? 'radio' : null;
  if (medium === null)
    return { why: say.isntValidConnectionType({ medium: kind, first: KINDS.lead, second: KINDS.radio }) };
  const more = readMore(cell);
  if ('why' in more) return more;
  const same = (c: Cable) =>
    c.from.deviceId === from.deviceId &&
    c.from.portId === from.portId &&
    c.to.deviceId === to.deviceId &&
    c.to.portId === to.portId;
  const known = rig.cables.find(same);
  if (known) {
    const next: Cable = { ...known, medium, lengthM, ...more };
    if (JSON.stringify({ ...known, ...next }) === JSON.stringify(known)) return { id: known.id, says: '', edits: [] };
    return {
      id: known.id,
      says:
        known.lengthM === lengthM
          ? say.partsOrChannels({ id: known.id })
          : say.cableLength({ id: known.id, from: known.lengthM, to: lengthM }),
      edits: [
        { kind: 'unplug', cableId: known.id },
        { kind: 'plug', cable: { ...next, known: 'confirmed' } },
      ],
    };
  }
  const wanted = (cell('id') || cell('lead'))
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  const id = freeId(rig, wanted || `${from.deviceId}-${to.deviceId}`.slice(0, 56));
  const cable: Cable = { id, from, to, medium, lengthM, known: 'confirmed', ...more };
  return { id, says: say.connected({ id }), edits: [{ kind: 'plug', cable }] };
}

/**
 * An end by the device and port that are named, each by its name or its id; the id beside them tells apart what is called
 * the same, and gives way where a name was changed in the table.
 */
function endOf(rig: Rig, key: string, device: string, port: string): PortRef | { why: Text } {
  const types = findTypes(rig);
  const { deviceId, portId } = portAt(key);
  const byId = { deviceId, portId };
  const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const known = findPort(rig, types, byId);
  if (known && same(deviceName(rig, deviceId), device) && same(known.name, port)) return byId;
  const named = rig.devices.filter((d) => same(d.name, device));
  const found = findDevice(rig, device) ?? named[0];
  if (!found) return { why: say.thereIsNoDevice({ device }) };
  if (found.id !== device && named.length > 1) return { why: say.severalAreCalled({ name: device }) };
  const ref = { deviceId: found.id, portId: port };
  if (findPort(rig, types, ref)) return ref;
  const ports = types.get(found.typeId)!.ports.filter((p) => same(p.name, port));
  if (ports.length > 1) return { why: say.severalAreCalled({ name: port }) };
  return ports[0] ? { deviceId: found.id, portId: ports[0].id } : { why: say.hasNoPort({ device: found.name, port }) };
}

/** Parts by the list of cables and adapters, channels as 'left=ch-3'; nothing where the cells are empty. */
function readMore(cell: (column: Column) => string): Pick<Cable, 'parts' | 'map'> | { why: Text } {
  const parts = cell('parts')
    .split('+')
    .map((p) => p.trim())
    .filter((p) => p !== '' && p !== NO_PARTS);
  const unknown = parts.find((p) => !PARTS.some((known) => known.id === p));
  if (unknown) return { why: say.isNotCableOr({ part: unknown }) };
  const pairs = cell('channels').split(/\s+/).filter(Boolean);
  const map = pairs.map((pair) => pair.split('=')).map(([from = '', to = '']) => ({ from, to }));
  if (map.some((m) => m.from === '' || m.to === ''))
    return { why: say.namesNoChannelsWrite({ channels: cell('channels') }) };
  return { ...(cell('parts') !== '' && { parts }), ...(map.length > 0 && { map }) };
}

function freeId(rig: Rig, wanted: string): string {
  const taken = new Set(rig.cables.map((c) => c.id));
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}
