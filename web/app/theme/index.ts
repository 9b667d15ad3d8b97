import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import { button, checkbox, field, input, nativeSelect, slider } from './controls.ts';
import { collapsible, listbox, progress, table } from './display.ts';
import { dialog, popover } from './surfaces.ts';

/** Chakra carries the controls; their whole look comes from the sheet's tokens. */
export const system = createSystem(
  defaultBaseConfig,
  defineConfig({
    preflight: true,
    cssVarsRoot: ':where(:root, :host)',
    theme: {
      recipes: { button, input },
      slotRecipes: {
        checkbox,
        collapsible,
        dialog,
        field,
        listbox,
        nativeSelect,
        popover,
        progress,
        slider,
        table,
      },
    },
  }),
);
