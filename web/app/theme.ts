import { createSystem, defaultBaseConfig, defineConfig, defineRecipe, defineSlotRecipe } from '@chakra-ui/react';
import { dialogAnatomy, nativeSelectAnatomy, popoverAnatomy, progressAnatomy } from '@chakra-ui/react/anatomy';

/** Chakra carries the controls; their whole look comes from the sheet's tokens. */

const focus = { outline: '2px solid var(--ink)', outlineOffset: '2px' };

const button = defineRecipe({
  className: 'button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '6px',
    borderRadius: '5px',
    borderWidth: '1px',
    fontSize: '14.5px',
    lineHeight: '20px',
    paddingInline: '11px',
    paddingBlock: '4px',
    whiteSpace: 'nowrap',
    cursor: 'pointer',
    userSelect: 'none',
    _focusVisible: focus,
    _disabled: { opacity: 0.45, cursor: 'not-allowed' },
  },
  variants: {
    variant: {
      outline: {
        background: 'var(--paper)',
        borderColor: 'var(--rule2)',
        color: 'var(--ink)',
        _hover: { borderColor: 'var(--ink)' },
      },
      solid: {
        background: 'var(--ink)',
        borderColor: 'var(--ink)',
        color: 'var(--paper)',
        _hover: { background: 'var(--ink2)' },
      },
      plain: {
        background: 'transparent',
        borderColor: 'transparent',
        color: 'var(--ink)',
        paddingInline: '2px',
        textDecoration: 'underline',
        textUnderlineOffset: '3px',
        textDecorationThickness: '1px',
      },
    },
  },
  defaultVariants: { variant: 'outline' },
});

const input = defineRecipe({
  className: 'input',
  base: {
    background: 'var(--raised)',
    borderWidth: '1px',
    borderColor: 'var(--rule2)',
    borderRadius: '5px',
    color: 'var(--ink)',
    fontSize: '14px',
    paddingInline: '8px',
    paddingBlock: '3px',
    fontVariantNumeric: 'tabular-nums',
    _focusVisible: focus,
    _invalid: { borderColor: 'var(--fix)' },
  },
});

const sheetOfPaper = {
  background: 'var(--paper)',
  color: 'var(--ink)',
  borderWidth: '1px',
  borderColor: 'var(--ink)',
  borderRadius: '0',
};

const dialog = defineSlotRecipe({
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

const popover = defineSlotRecipe({
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

const nativeSelect = defineSlotRecipe({
  className: 'select',
  slots: nativeSelectAnatomy.keys(),
  base: {
    root: { position: 'relative', display: 'inline-block' },
    field: {
      appearance: 'none',
      background: 'var(--paper)',
      borderWidth: '1px',
      borderColor: 'var(--rule2)',
      borderRadius: '5px',
      color: 'var(--ink)',
      fontSize: '14.5px',
      lineHeight: '20px',
      paddingInline: '10px 28px',
      paddingBlock: '4px',
      maxWidth: '100%',
      cursor: 'pointer',
      _focusVisible: focus,
    },
    indicator: {
      position: 'absolute',
      right: '8px',
      top: '50%',
      transform: 'translateY(-50%)',
      width: '14px',
      pointerEvents: 'none',
      color: 'var(--ink2)',
    },
  },
});

const progress = defineSlotRecipe({
  className: 'progress',
  slots: progressAnatomy.keys(),
  base: {
    track: { height: '6px', background: 'var(--rule)' },
    range: { height: '100%', background: 'var(--ink)' },
  },
});

export const system = createSystem(
  defaultBaseConfig,
  defineConfig({
    preflight: true,
    cssVarsRoot: ':where(:root, :host)',
    theme: { recipes: { button, input }, slotRecipes: { dialog, popover, nativeSelect, progress } },
  }),
);
