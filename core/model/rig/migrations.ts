import { catalogue } from './catalogue/index.ts';
import { RIG_VERSION } from './schema.ts';
import type { DeviceType } from './schema-type.ts';

type Document = Record<string, unknown>;
type Loose = { readonly id?: unknown; readonly [key: string]: unknown };

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const list = (value: unknown): Loose[] => (Array.isArray(value) ? value.filter(isObject) : []);

interface Shelf {
  /** What each shelf of version 1 implied. */
  readonly is: Pick<DeviceType, 'nature' | 'hosts' | 'shows'>;
  /** What its ends of a level and direction did. */
  readonly does?: readonly (readonly [direction: 'in' | 'out', levels: readonly string[], does: string])[];
}
const AIR = ['air'];
const BITS = ['digital', 'software', 'headphone', 'line'];
const SHELVES: Readonly<Record<string, Shelf>> = {
  people: {
    is: { nature: 'person' },
    does: [
      ['out', AIR, 'voice'],
      ['in', AIR, 'ears'],
      ['in', ['light'], 'view'],
    ],
  },
  programs: { is: { nature: 'program', shows: { levels: 'on-it', picture: true } } },
  computers: { is: { hosts: true, shows: { levels: 'in-programs' } } },
  consoles: { is: {}, does: [['out', BITS, 'game']] },
  headphones: { is: {}, does: [['out', AIR, 'ears']] },
  capture: { is: { shows: { levels: 'in-programs' } }, does: [['in', ['digital'], 'captured']] },
  screens: { is: { shows: { picture: true } }, does: [['out', ['light'], 'view']] },
  cameras: { is: { shows: { levels: 'in-programs', picture: true } } },
  mixers: { is: { shows: { levels: 'on-it' } } },
  interfaces: { is: { shows: { levels: 'on-it' } } },
  recorders: { is: { shows: { levels: 'on-it' } } },
};
const ids = (things: readonly Loose[]): string => things.map((t) => String(t.id)).join();

/** What a type of version 1 did not say of itself yet, as the built-in type has it that it was copied from. */
function typeFromVersion1(type: unknown): unknown {
  if (!isObject(type) || 'nature' in type) return type;
  const [ports, settings] = [list(type.ports), list(type.settings)];
  const shelf = typeof type.family === 'string' ? SHELVES[type.family] : undefined;
  const like = catalogue.find(
    (t) => t.family === type.family && ids(t.ports) === ids(ports) && ids(t.settings) === ids(settings),
  );
  if (!like)
    return shelf
      ? {
          ...shelf.is,
          ...type,
          ports: Array.isArray(type.ports) ? type.ports.map((p) => portOn(shelf, p)) : type.ports,
        }
      : type;
  const said = (own: readonly Loose[], built: readonly object[]) =>
    own.map((thing, i) => {
      const { does, purpose, group, soundDevice, usb } = built[i] as Loose;
      return { ...known({ does, purpose, group, soundDevice, usb }), ...thing };
    });
  return {
    ...known({ nature: like.nature, hosts: like.hosts, shows: like.shows }),
    ...type,
    ports: said(ports, like.ports),
    settings: said(settings, like.settings),
  };
}

function portOn({ does = [] }: Shelf, port: unknown): unknown {
  if (!isObject(port) || 'does' in port) return port;
  const found = does.find(([direction, levels]) => port.direction === direction && levels.includes(String(port.level)));
  return found ? { ...port, does: found[2] } : port;
}

const known = (fields: Loose): Loose => Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined));

/**
 * `migrations[v]` takes a document of version v to v + 1. A released migration never changes; the kept
 * documents in the tests hold it to that.
 */
const migrations: Readonly<Record<number, (document: Document) => Document>> = {
  /** Version 2: a type states its capabilities, whatever shelf it is on. */
  1: (document) =>
    Array.isArray(document.types) ? { ...document, types: document.types.map(typeFromVersion1) } : document,
  /** Version 3: findings that are ignored are called so. */
  2: ({ aside, ...document }) => (aside === undefined ? document : { ...document, dismissed: aside }),
};

/** A document of any version up to this one's, brought to it step by step. Its shape is not checked yet. */
export function migrated(document: Document & { readonly schemaVersion: number }): Document {
  let now: Document = document;
  for (let v = document.schemaVersion; v < RIG_VERSION; v++) now = { ...migrations[v]!(now), schemaVersion: v + 1 };
  return now;
}

/** An edit that a browser kept, in the terms of today. The edits that a batch holds are left as they are. */
export function migratedEdit(edit: unknown): unknown {
  if (!isObject(edit)) return edit;
  const { rig } = edit;
  if (isObject(rig) && typeof rig.schemaVersion === 'number' && rig.schemaVersion < RIG_VERSION)
    return { ...edit, rig: migrated({ ...rig, schemaVersion: Math.max(1, Math.floor(rig.schemaVersion)) }) };
  if (edit.kind === 'put-aside') return { kind: 'dismiss', dismissal: edit.aside };
  return edit.kind === 'take-up' ? { ...edit, kind: 'reinstate' } : edit;
}
