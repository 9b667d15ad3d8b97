import { defineSlotRecipe } from '@chakra-ui/react';
import { collapsibleAnatomy, listboxAnatomy, progressAnatomy, tableAnatomy } from '@chakra-ui/react/anatomy';
import { focus } from './controls.ts';

export const table = defineSlotRecipe({
  className: 'table',
  slots: tableAnatomy.keys(),
  base: {
    root: {
      borderCollapse: 'collapse',
      width: '100%',
      fontSize: '14px',
      '& tbody th': {
        textAlign: 'left',
        fontWeight: 400,
        color: 'var(--ink2)',
        padding: '4px 8px 4px 0',
        borderBottom: '1px solid var(--rule)',
      },
      '& .number': { textAlign: 'right', whiteSpace: 'nowrap' },
      '& tr[aria-selected="true"] td': { background: 'var(--mark)' },
      '& tr.sum td': { borderTop: '1px solid var(--rule2)', borderBottom: 0, fontWeight: 640 },
      '@media print': { '& tr': { breakInside: 'avoid' } },
    },
    columnHeader: {
      textAlign: 'left',
      fontWeight: 400,
      color: 'var(--ink2)',
      padding: '4px 8px 4px 0',
      borderBottom: '1.5px solid var(--rule2)',
      verticalAlign: 'bottom',
    },
    cell: { paddingRight: '8px', borderBottom: '1px solid var(--rule)' },
  },
  variants: {
    size: {
      md: { cell: { paddingBlock: '6px', verticalAlign: 'top' } },
      sm: { cell: { paddingBlock: '3px', verticalAlign: 'middle' } },
    },
  },
  defaultVariants: { size: 'md' },
});

export const progress = defineSlotRecipe({
  className: 'progress',
  slots: progressAnatomy.keys(),
  base: {
    track: { height: '8px', background: 'var(--paper)', borderWidth: '1px', borderColor: 'var(--rule2)' },
    range: { height: '100%', background: 'var(--ink)' },
  },
});

export const collapsible = defineSlotRecipe({
  className: 'collapsible',
  slots: collapsibleAnatomy.keys(),
  base: {
    root: { marginBlock: '6px' },
    trigger: {
      display: 'flex',
      alignItems: 'baseline',
      gap: '6px',
      font: 'inherit',
      color: 'inherit',
      textAlign: 'left',
      cursor: 'pointer',
      _focusVisible: focus,
    },
    indicator: {
      flex: 'none',
      color: 'var(--ink2)',
      _before: { content: '"\\25B8"' },
      _open: { _before: { content: '"\\25BE"' } },
    },
  },
});

/** A list to choose from: the option that Enter takes is marked. */
export const listbox = defineSlotRecipe({
  className: 'listbox',
  slots: listboxAnatomy.keys(),
  base: {
    content: {
      marginTop: '6px',
      maxHeight: '300px',
      overflow: 'auto',
      borderWidth: '1px',
      borderColor: 'var(--rule)',
      outline: 'none',
    },
    item: {
      padding: '5px 10px',
      cursor: 'pointer',
      borderLeft: '3px solid transparent',
      _highlighted: { borderLeftColor: 'var(--ink)', background: 'var(--desk)' },
    },
  },
});
