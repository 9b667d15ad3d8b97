import { defineRecipe, defineSlotRecipe } from '@chakra-ui/react';
import { checkboxAnatomy, fieldAnatomy, nativeSelectAnatomy, sliderAnatomy } from '@chakra-ui/react/anatomy';

/** Where the keyboard is. */
export const focus = { outline: '2px solid var(--ink)', outlineOffset: '2px' };

export const button = defineRecipe({
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

export const input = defineRecipe({
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

export const nativeSelect = defineSlotRecipe({
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

export const checkbox = defineSlotRecipe({
  className: 'checkbox',
  slots: checkboxAnatomy.keys(),
  base: {
    root: { display: 'inline-flex', gap: '7px', alignItems: 'center', position: 'relative', cursor: 'pointer' },
    control: {
      display: 'inline-flex',
      flex: 'none',
      width: '16px',
      height: '16px',
      borderWidth: '1px',
      borderColor: 'var(--ink2)',
      borderRadius: '3px',
      background: 'var(--raised)',
      color: 'var(--paper)',
      _checked: { background: 'var(--ink)', borderColor: 'var(--ink)' },
      _focusVisible: focus,
      _disabled: { opacity: 0.45 },
    },
    label: { userSelect: 'none', _disabled: { opacity: 0.45 } },
  },
});

export const slider = defineSlotRecipe({
  className: 'slider',
  slots: sliderAnatomy.keys(),
  base: {
    root: { display: 'flex', position: 'relative', isolation: 'isolate', touchAction: 'none' },
    control: { display: 'inline-flex', alignItems: 'center', position: 'relative', height: '18px', width: '100%' },
    track: { flex: 1, height: '3px', background: 'var(--rule2)' },
    range: { height: 'inherit', background: 'var(--ink)' },
    thumb: {
      width: '9px',
      height: '17px',
      borderRadius: '2px',
      background: 'var(--paper)',
      borderWidth: '1px',
      borderColor: 'var(--ink)',
      cursor: 'ew-resize',
      _focusVisible: focus,
    },
  },
});

export const field = defineSlotRecipe({
  slots: fieldAnatomy.keys(),
  base: {
    root: { flexDirection: 'column', gap: '2px', verticalAlign: 'middle' },
    errorText: { color: 'var(--fix)', fontSize: '13px', lineHeight: '16px' },
  },
});
