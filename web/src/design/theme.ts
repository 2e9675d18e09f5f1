import { Button, createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core';

const verdigris: MantineColorsTuple = [
  '#eaf4f2',
  '#d3e6e2',
  '#a6cfc7',
  '#76b6aa',
  '#4e9f91',
  '#338c7d',
  '#1b5e54',
  '#175047',
  '#12423b',
  '#0c332d',
];

export const theme = createTheme({
  primaryColor: 'verdigris',
  primaryShade: 6,
  colors: { verdigris },
  fontFamily: 'var(--sans)',
  headings: { fontFamily: 'var(--serif)' },
  defaultRadius: 3,
  respectReducedMotion: true,
  components: {
    // The library writes white on filled buttons whatever the light; ours follow the tokens.
    Button: Button.extend({
      vars: (_theme, props) => ({
        root:
          props.variant === 'outline'
            ? { '--button-color': 'var(--act)', '--button-bd': '1px solid var(--act)' }
            : {
                '--button-color': 'var(--on-act)',
                '--button-bg': 'var(--act)',
                '--button-hover': 'var(--act)',
              },
      }),
    }),
  },
});

/** Mantine's own surfaces take our tokens, in both lights. */
export const variables: CSSVariablesResolver = () => {
  const shared = {
    '--mantine-color-body': 'var(--sheet)',
    '--mantine-color-text': 'var(--ink)',
    '--mantine-color-dimmed': 'var(--faded)',
    '--mantine-color-default': 'var(--sheet)',
    '--mantine-color-default-border': 'var(--strong-rule)',
    '--mantine-color-placeholder': 'var(--faded)',
    '--mantine-color-error': 'var(--late)',
    '--mantine-color-verdigris-filled': 'var(--act)',
    '--mantine-color-verdigris-filled-hover': 'var(--act)',
    '--mantine-color-verdigris-outline': 'var(--act)',
    '--mantine-primary-color-contrast': 'var(--on-act)',
  };
  return { variables: {}, light: shared, dark: shared };
};
