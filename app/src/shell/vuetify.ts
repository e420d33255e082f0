import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { createVuetify } from 'vuetify';
import 'vuetify/styles';

/** Vuetify for behaviour and accessibility; its look is settled here and in style.css, nowhere else. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'light',
    themes: {
      light: {
        dark: false,
        colors: { background: '#F3F0E8', surface: '#FFFDF8', primary: '#0C5460', error: '#A3301F', warning: '#A86200', success: '#2B7550' },
      },
      dark: {
        dark: true,
        colors: { background: '#14201F', surface: '#1B2A2A', primary: '#7CC3CF', error: '#F08C78', warning: '#E0A552', success: '#7FC8A0' },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: true, menuProps: { offset: 4 } },
    VDialog: { maxWidth: 560, transition: 'fade-transition' },
    VSnackbar: { timeout: 5000, location: 'bottom' },
  },
});
