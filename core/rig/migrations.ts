import { catalogue } from './catalogue/index.ts';
import type { DeviceType } from './schema-type.ts';

type Document = Record<string, unknown>;
type Loose = { readonly id?: unknown; readonly [key: string]: unknown };

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const list = (value: unknown): Loose[] => (Array.isArray(value) ? value.filter(isObject) : []);

const NATURES: Readonly<Record<string, NonNullable<DeviceType['nature']>>> = { people: 'person', programs: 'program' };
const ids = (things: readonly Loose[]): string => things.map((t) => String(t.id)).join();

/** What a type of version 1 did not say of itself yet, as the built-in type has it that it was copied from. */
function typeFromVersion1(type: unknown): unknown {
  if (!isObject(type) || 'nature' in type) return type;
  const [ports, settings] = [list(type.ports), list(type.settings)];
  const nature = typeof type.family === 'string' ? NATURES[type.family] : undefined;
  const like = catalogue.find(
    (t) => t.family === type.family && ids(t.ports) === ids(ports) && ids(t.settings) === ids(settings),
  );
  if (!like) return nature ? { ...type, nature } : type;
  const said = (own: readonly Loose[], built: readonly object[]) =>
    own.map((thing, i) => {
      const { does, purpose, group, soundDevice } = built[i] as Loose;
      return { ...thing, ...known({ does, purpose, group, soundDevice }), ...thing };
    });
  return {
    ...known({ nature: like.nature, hosts: like.hosts, shows: like.shows }),
    ...type,
    ports: said(ports, like.ports),
    settings: said(settings, like.settings),
  };
}

const known = (fields: Loose): Loose => Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined));

/**
 * `migrations[v]` takes a document of version v to v + 1. A released migration never changes; the kept
 * documents in the tests hold it to that.
 */
export const migrations: Readonly<Record<number, (document: Document) => Document>> = {
  /** Version 2: a type says what it is, whatever shelf it stands on. */
  1: (document) =>
    Array.isArray(document.types) ? { ...document, types: document.types.map(typeFromVersion1) } : document,
};
