type Document = Record<string, unknown>;

/**
 * `migrations[v]` takes a document of version v to v + 1. A released migration never changes; the kept
 * documents in the tests hold it to that. Version 1 is the first, so there is none yet.
 */
export const migrations: Readonly<Record<number, (document: Document) => Document>> = {};
