import { chakra } from '@chakra-ui/react';

const focus = { outline: '2px solid var(--ink)', outlineOffset: '2px' };
/** As the text around it. */
const asText = {
  background: 'none',
  padding: 0,
  font: 'inherit',
  color: 'inherit',
  cursor: 'pointer',
  _focusVisible: focus,
} as const;
const isButton = { defaultProps: { type: 'button' } } as const;

/** A word that explains itself when it is pressed. */
export const TermButton = chakra(
  'button',
  { base: { ...asText, borderBottom: '1px dotted var(--ink2)', cursor: 'help' } },
  isButton,
);

/** A line of a list. */
export const LineButton = chakra(
  'button',
  {
    base: {
      ...asText,
      textAlign: 'left',
      paddingBlock: '2px',
      _hover: { textDecoration: 'underline', textUnderlineOffset: '3px' },
    },
  },
  isButton,
);

/** Only what is in it: a picture, a place on a page. */
export const BareButton = chakra('button', { base: asText }, isButton);
