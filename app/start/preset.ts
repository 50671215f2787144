import { definePreset } from '@primeuix/themes';
import badge from '@primeuix/themes/aura/badge';
import base from '@primeuix/themes/aura/base';
import button from '@primeuix/themes/aura/button';
import datatable from '@primeuix/themes/aura/datatable';
import dialog from '@primeuix/themes/aura/dialog';
import iconfield from '@primeuix/themes/aura/iconfield';
import inputnumber from '@primeuix/themes/aura/inputnumber';
import inputtext from '@primeuix/themes/aura/inputtext';
import menu from '@primeuix/themes/aura/menu';
import select from '@primeuix/themes/aura/select';
import slider from '@primeuix/themes/aura/slider';
import tabs from '@primeuix/themes/aura/tabs';
import toasts from '@primeuix/themes/aura/toast';
import toggleswitch from '@primeuix/themes/aura/toggleswitch';
import tooltip from '@primeuix/themes/aura/tooltip';
import virtualscroller from '@primeuix/themes/aura/virtualscroller';

const quietShadow = '0 6px 24px rgb(20 24 28 / 18%)';

/** The components that are used here and those they are made of: the others' tokens would be much of the first load. */
const used = {
  ...base,
  components: {
    badge,
    button,
    datatable,
    dialog,
    iconfield,
    inputnumber,
    inputtext,
    menu,
    select,
    slider,
    tabs,
    toast: toasts,
    toggleswitch,
    tooltip,
    virtualscroller,
  },
  // What the pointer is on shows at once.
  css: `
    li.p-select-option,
    div.p-menu-item-content,
    thead.p-datatable-thead > tr > th,
    .p-datatable .p-datatable-tbody > tr {
      transition: none;
    }`,
};

/**
 * The library's components in our colours: everything points at the page's own custom properties, so light and dark
 * follow one switch.
 */
const preset = definePreset(used, {
  primitive: { borderRadius: { none: '0', xs: '3px', sm: '4px', md: '6px', lg: '6px', xl: '6px' } },
  semantic: {
    primary: {
      50: 'var(--accent-soft)',
      100: 'var(--accent-soft)',
      200: 'var(--accent-soft)',
      300: 'var(--accent)',
      400: 'var(--accent)',
      500: 'var(--accent)',
      600: 'var(--accent)',
      700: 'var(--accent)',
      800: 'var(--accent)',
      900: 'var(--accent)',
      950: 'var(--accent)',
    },
    focusRing: { width: '2px', style: 'solid', color: 'var(--accent)', offset: '2px' },
    formField: {
      paddingX: '10px',
      paddingY: '5px',
      borderRadius: '6px',
    },
    colorScheme: {
      light: scheme(),
      dark: scheme(),
    },
  },
  components: {
    toast: { colorScheme: { light: toast(), dark: toast() } },
    toggleswitch: {
      root: { width: '40px', height: '24px', gap: '3px' },
      handle: { size: '18px' },
      colorScheme: { light: toggle(), dark: toggle() },
    },
    slider: {
      track: { background: 'var(--line)', size: '6px', borderRadius: '3px' },
      range: { background: 'var(--accent)' },
      handle: {
        width: '24px',
        height: '24px',
        background: 'var(--accent)',
        content: {
          background: 'var(--surface)',
          hoverBackground: 'var(--surface)',
          width: '16px',
          height: '16px',
          shadow: 'none',
        },
      },
    },
    datatable: {
      headerCell: {
        background: 'transparent',
        selectedBackground: 'transparent',
        hoverBackground: 'transparent',
        color: 'var(--quiet)',
        borderColor: 'var(--line)',
        padding: '8px 12px',
      },
      bodyCell: { padding: '7px 12px', borderColor: 'var(--line)' },
      row: { background: 'transparent', color: 'var(--ink)' },
    },
    select: {
      root: { background: 'var(--surface)', disabledBackground: 'transparent', disabledColor: 'var(--quiet)' },
      dropdown: { width: '28px', color: 'var(--quiet)' },
      overlay: { background: 'var(--surface)', borderColor: 'var(--line-strong)', shadow: quietShadow },
      list: { padding: '4px', gap: '0' },
      option: { padding: '6px 10px', borderRadius: '4px' },
    },
    tabs: {
      tablist: { background: 'transparent', borderWidth: '0 0 1px 0', borderColor: 'var(--line)' },
      tab: {
        background: 'transparent',
        hoverBackground: 'transparent',
        activeBackground: 'transparent',
        borderWidth: '0',
        color: 'var(--ink)',
        hoverColor: 'var(--ink)',
        activeColor: 'var(--ink)',
        padding: '8px 2px',
        fontWeight: '500',
        margin: '0',
        gap: '8px',
      },
      activeBar: { height: '2px', bottom: '-1px', background: 'var(--accent)' },
    },
    tooltip: {
      root: {
        background: 'var(--ink)',
        color: 'var(--ground)',
        maxWidth: '22rem',
        padding: '6px 10px',
        borderRadius: '4px',
        shadow: 'none',
      },
    },
    menu: {
      root: { background: 'var(--surface)', borderColor: 'var(--line-strong)', shadow: quietShadow },
      list: { padding: '4px', gap: '0' },
      item: { padding: '7px 12px', borderRadius: '4px', focusBackground: 'var(--sunken)' },
    },
    dialog: {
      root: {
        background: 'var(--surface)',
        borderColor: 'var(--line)',
        color: 'var(--ink)',
        borderRadius: '6px',
        shadow: quietShadow,
      },
      title: { fontSize: '17px', fontWeight: '650' },
    },
  },
});

/** What the style sheet of the library's components is made from (`npm run gen`); the page itself needs none of it. */
export const THEME = {
  preset,
  options: { darkModeSelector: '.dark', cssLayer: { name: 'primeng', order: 'primeng, app' } },
};

function scheme(): object {
  return {
    surface: {
      0: 'var(--surface)',
      50: 'var(--ground)',
      100: 'var(--sunken)',
      200: 'var(--line)',
      300: 'var(--line)',
      400: 'var(--line-strong)',
      500: 'var(--quiet)',
      600: 'var(--quiet)',
      700: 'var(--ink)',
      800: 'var(--ink)',
      900: 'var(--ink)',
      950: 'var(--ink)',
    },
    primary: {
      color: 'var(--accent)',
      contrastColor: 'var(--accent-ink)',
      hoverColor: 'var(--accent)',
      activeColor: 'var(--accent)',
    },
    highlight: {
      background: 'var(--accent-soft)',
      focusBackground: 'var(--accent-soft)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
    },
    mask: { background: 'rgb(20 24 28 / 45%)', color: 'var(--ink)' },
    formField: {
      background: 'var(--surface)',
      borderColor: 'var(--line-strong)',
      hoverBorderColor: 'var(--accent)',
      focusBorderColor: 'var(--accent)',
      color: 'var(--ink)',
      placeholderColor: 'var(--quiet)',
      shadow: 'none',
    },
    text: {
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      mutedColor: 'var(--quiet)',
      hoverMutedColor: 'var(--quiet)',
    },
    content: {
      background: 'var(--surface)',
      hoverBackground: 'var(--sunken)',
      borderColor: 'var(--line)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
    },
    overlay: {
      select: { background: 'var(--surface)', borderColor: 'var(--line)', color: 'var(--ink)' },
      popover: { background: 'var(--surface)', borderColor: 'var(--line)', color: 'var(--ink)' },
      modal: { background: 'var(--surface)', borderColor: 'var(--line)', color: 'var(--ink)' },
    },
    list: {
      option: {
        focusBackground: 'var(--sunken)',
        selectedBackground: 'var(--accent-soft)',
        selectedFocusBackground: 'var(--accent-soft)',
        color: 'var(--ink)',
        focusColor: 'var(--ink)',
        selectedColor: 'var(--ink)',
        selectedFocusColor: 'var(--ink)',
      },
    },
  };
}

function toast(): object {
  const kind = (colour: string): object => ({
    background: 'var(--surface)',
    borderColor: colour,
    color: 'var(--ink)',
    detailColor: 'var(--ink)',
    shadow: quietShadow,
    closeButton: { hoverBackground: 'var(--sunken)', focusRing: { color: 'var(--accent)', shadow: 'none' } },
  });
  return {
    info: kind('var(--accent)'),
    success: kind('var(--good)'),
    warn: kind('var(--warn)'),
    error: kind('var(--mark)'),
  };
}

function toggle(): object {
  return {
    root: {
      background: 'var(--line-strong)',
      hoverBackground: 'var(--line-strong)',
      checkedBackground: 'var(--accent)',
      checkedHoverBackground: 'var(--accent)',
    },
    handle: {
      background: 'var(--surface)',
      hoverBackground: 'var(--surface)',
      checkedBackground: 'var(--surface)',
      checkedHoverBackground: 'var(--surface)',
    },
  };
}
