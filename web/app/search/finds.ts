import { findTypes, type Rig } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import type { KeyHint, PickItem } from '#web/shared/parts/index.ts';
import { glossary, guides, guideTitles, search as say, type TermId, textOf } from '#words/index.ts';
import { PAGES, RIG_PAGES } from '../pages.ts';
import type { Act } from './acts.ts';

/** What is found: where it leads, what it does, or what it means. */
export type Find = PickItem & ({ readonly go: string } | { readonly run: () => void } | { readonly explains: TermId });

export interface OpenRig {
  readonly rigId: string;
  readonly rig: Rig;
  readonly findings: readonly Finding[];
}

/** Everything that can be found here: in an open rig its pages, devices and issues; always terms, and what keys do. */
export const findsIn = (
  open: OpenRig | null,
  hints: readonly KeyHint[],
  acts: readonly Act[],
  showKeys: (keys: string) => string,
): Find[] => [
  ...hints.flatMap((hint): Find[] =>
    hint.run
      ? [
          {
            id: `do:${hint.keys}:${hint.label}`,
            label: hint.label,
            note: say.action({ key: showKeys(hint.keys) }),
            group: say.actions(),
            run: hint.run,
          },
        ]
      : [],
  ),
  ...acts.map(
    ({ id, label, section, run }): Find => ({
      id: `act:${id}`,
      label,
      note: section === null ? say.actHere() : say.actIn({ section }),
      group: say.actions(),
      run,
    }),
  ),
  ...pages(open),
  ...(open ? [...jobs(open), ...devices(open), ...issues(open)] : []),
  ...(Object.keys(glossary) as TermId[]).map((id): Find => {
    const { title, says, names } = glossary[id];
    return { id: `term:${id}`, label: title(), note: says(), also: names(), group: say.terms(), explains: id };
  }),
];

/** Of two pages of one name, the rig's own. */
function pages(open: OpenRig | null): Find[] {
  const own = open ? RIG_PAGES.map((page) => ({ ...page, to: `/rigs/${open.rigId}/${page.to}` })) : [];
  const names = new Set(own.map((page) => page.label()));
  return [...own, ...PAGES.filter((page) => !names.has(page.label()))].map(({ to, label, also, answers }) => ({
    id: `page:${to}`,
    label: label(),
    also: also(),
    note: answers(),
    group: say.pages(),
    go: to,
  }));
}

/** Guides by the words that people look for. */
const jobs = ({ rigId }: OpenRig): Find[] =>
  Object.entries(guideTitles).map(([id, { title, says, names }]) => ({
    id: `guide:${id}`,
    label: title(),
    note: says(),
    also: names(),
    group: guides.title(),
    go: `/rigs/${rigId}/how/${id}`,
  }));

function devices({ rigId, rig }: OpenRig): Find[] {
  const types = findTypes(rig);
  return rig.devices.flatMap((device): Find[] => {
    const type = types.get(device.typeId)!;
    const port = type.ports[0];
    const at = port ? `?tap=${device.id}.${port.id}` : '';
    return [
      {
        id: `device:${device.id}`,
        label: device.name,
        also: [type.name, ...(type.words ?? [])].join(', '),
        note: say.device({ type: type.name }),
        group: say.devices(),
        go: `/rigs/${rigId}/wire${at}`,
      },
    ];
  });
}

const issues = ({ rigId, findings }: OpenRig): Find[] =>
  findings.map((finding) => ({
    id: `issue:${finding.id}`,
    label: textOf(finding.asks ?? finding.says),
    note: say.issue(),
    group: say.issues(),
    go: `/rigs/${rigId}/${finding.stage === 'sync' ? 'sync' : `wire?finding=${encodeURIComponent(finding.id)}`}`,
  }));
