import { listOf, type Said, type Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  type Cable,
  type Device,
  type DeviceType,
  type Edit,
  findDevice,
  findTypes,
  type PlanCell,
  type PortRef,
  type Rig,
  type Types,
} from '#core/model/rig/index.ts';
import { freeId, type Offer } from '#core/routing/wiring/index.ts';
import type { Answers } from './questions.ts';
import { say } from './sayings.ts';

interface Option {
  readonly id: string;
  readonly label: Text;
}
/** How else something could have been made: answered under `changeOf` its id. */
export interface Choice {
  readonly options: readonly Option[];
  readonly taken: string;
}
/** The question's id under which a choice is answered. */
export const changeOf = (madeId: string): string => `change:${madeId}`;

/** Something that was made of what was not typed: said in a sentence, and taken back by its id. */
export interface Made {
  /** The same for the same text: what is taken back stays so when more is typed. */
  readonly id: string;
  readonly says: Said;
  /** Why, or what comes with it; '' for nothing. */
  readonly note: Text;
  /** Someone has taken it back: it is shown, and not made. */
  readonly removed: boolean;
  /** Null where it could not be otherwise. */
  readonly choice: Choice | null;
}

/** What was made, with its note in parentheses. */
export const sayMade = ({ says, note }: Pick<Made, 'says' | 'note'>): Text =>
  note === '' ? says : say.withNote({ says, note });

/** 'A, B and C' */
export const listed = (names: readonly string[]): Text => (names.length < 2 ? names.join() : listOf('and', names));

/** A rig under construction: edits are applied as they are made, and each is reported. */
export class Builder {
  rig: Rig;
  readonly edits: Edit[] = [];
  readonly made: Made[] = [];
  /** What someone's ears do without, because it sounds in the room or they said so. */
  readonly spared: Pick<PlanCell, 'sourceId' | 'listenerId'>[] = [];
  /** The person who types, addressed as you. */
  you: string | null;
  readonly #without: ReadonlySet<string>;
  readonly #answers: Answers;

  constructor(rig: Rig, you: string | null, without: ReadonlySet<string>, answers: Answers) {
    this.rig = rig;
    this.you = you;
    this.#without = without;
    this.#answers = answers;
  }

  get types(): Types {
    return findTypes(this.rig);
  }

  take(edit: Edit): boolean {
    const done = applyEdit(this.rig, edit);
    if (!done.ok) return false;
    this.rig = done.rig;
    this.edits.push(edit);
    return true;
  }

  /** Which of several ways something is made: as someone changed it, else the first. Null where there is none. */
  choose<T>(madeId: string, options: readonly (T & Option)[]): { one: T & Option; choice: Choice | null } | null {
    const answer = this.#answers.get(changeOf(madeId));
    const one = options.find((o) => o.id === answer) ?? options[0];
    if (!one) return null;
    const told = options.map(({ id, label }) => ({ id, label }));
    return { one, choice: options.length > 1 ? { options: told, taken: one.id } : null };
  }

  /** Makes something and reports it, unless it was dismissed; whether it was made. */
  make(
    id: string,
    says: Said,
    edits: () => readonly Edit[],
    { choice = null, note = '' }: { readonly choice?: Choice | null; readonly note?: Text } = {},
  ): boolean {
    const removed = this.#without.has(id);
    const stands = !removed && this.take({ kind: 'batch', edits: [...edits()] });
    if (removed || stands) this.made.push({ id, says, note, removed, choice });
    return stands;
  }

  device(id: string): Device {
    return findDevice(this.rig, id)!;
  }

  typeOf(id: string): DeviceType {
    return this.types.get(this.device(id).typeId)!;
  }

  /** A link between two ends: in software, or through the air. */
  link(from: PortRef, to: PortRef, medium: Cable['medium'] = 'software', lengthM = 0): Edit {
    const taken = new Set(this.rig.cables.map((c) => c.id));
    const id = freeId(taken, `${from.deviceId}-${from.portId}-${to.deviceId}`);
    return { kind: 'plug', cable: { id, from, to, medium, lengthM, known: 'assumed' } };
  }

  plugs({ cables }: Offer): Edit[] {
    return cables.map((cable): Edit => ({ kind: 'plug', cable }));
  }

  set(deviceId: string, settingId: string, value: number | boolean | string): Edit {
    return { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } };
  }
}
