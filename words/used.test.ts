import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import * as words from './index.ts';

/** Messages that are chosen by the kind of a figure, or by what a verdict rests on. */
const BY_KIND = ['standard', 'typical', 'measured', 'set', 'confirmed'];
/** Messages by the id of what they are of. */
const BY_ID = ['core', 'glossary', 'guideTitles'];
const SPEAKERS = ['web', 'server', 'cli', 'words'];
const IMPORT = /import \{([^}]*)\} from ['"](?:#words\/index|\.\/en\/\w+)\.ts['"]/g;
const NAME = /^\s*(\w+)(?:\s+as\s+(\w+))?\s*$/;

const sourcesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sourcesIn(path);
    return /(?<!\.test|\.testkit)\.tsx?$/.test(path) ? [readFileSync(path, 'utf8')] : [];
  });

it('what is in the words is said somewhere', () => {
  const said = new Set<string>();
  for (const source of SPEAKERS.flatMap(sourcesIn))
    for (const [, list] of source.matchAll(IMPORT))
      for (const [, subject, alias = subject] of list!.split(',').flatMap((part) => [NAME.exec(part) ?? []]))
        if (subject)
          for (const [, key] of source.matchAll(new RegExp(`\\b${alias}\\.(\\w+)`, 'g'))) said.add(`${subject}.${key}`);
  const unsaid = Object.entries(words).flatMap(([subject, messages]) =>
    typeof messages === 'object' && !Array.isArray(messages) && !BY_ID.includes(subject)
      ? Object.keys(messages)
          .filter((key) => !BY_KIND.includes(key))
          .map((key) => `${subject}.${key}`)
          .filter((name) => !said.has(name))
      : [],
  );
  expect(unsaid).toEqual([]);
});
