import { defineSlotRecipe } from '@chakra-ui/react';
import { dialogAnatomy, popoverAnatomy } from '@chakra-ui/react/anatomy';

const sheetOfPaper = {
  background: 'var(--paper)',
  color: 'var(--ink)',
  borderWidth: '1px',
  borderColor: 'var(--ink)',
  borderRadius: '0',
};

export const dialog = defineSlotRecipe({
  className: 'dialog',
  slots: dialogAnatomy.keys(),
  base: {
    backdrop: {
      position: 'fixed',
      inset: 0,
      background: 'color-mix(in srgb, var(--desk) 78%, transparent)',
      zIndex: 50,
    },
    positioner: {
      position: 'fixed',
      inset: 0,
      display: 'flex',
      justifyContent: 'center',
      alignItems: 'flex-start',
      paddingTop: '8vh',
      zIndex: 51,
      overflow: 'auto',
    },
    content: { ...sheetOfPaper, width: 'min(640px, 92vw)', padding: '20px 24px', outline: 'none' },
    header: { marginBottom: '10px' },
    title: { fontSize: '19px', fontWeight: 640, margin: 0 },
    body: { fontSize: '14.5px' },
    footer: { display: 'flex', gap: '8px', marginTop: '16px' },
  },
});

export const popover = defineSlotRecipe({
  className: 'popover',
  slots: popoverAnatomy.keys(),
  base: {
    content: {
      ...sheetOfPaper,
      maxWidth: '360px',
      padding: '12px 14px',
      fontSize: '14px',
      zIndex: 60,
      outline: 'none',
    },
  },
});
