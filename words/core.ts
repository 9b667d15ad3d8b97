import { textOf as sayText, speakWith, type Text } from '#core/base/said/index.ts';
import { core } from './en/core/index.ts';
import { messageOf, speakerOf } from './said.ts';

export { core };

// Whoever imports this can be told what core says: from then on its codes are sentences.
speakWith(speakerOf(core));

/** A text of core in the language that is spoken. */
export const textOf = (text: Text): string => sayText(text);

/** What core says, as a message that is drawn with its strong parts. */
export const messageOfSaid = messageOf(core);
