import { defineVuetifyConfiguration } from 'vuetify-nuxt-module/custom-configuration'

// Colours come from our own tokens (app/theme); Vuetify's are set to the same so that nothing of its own shows through.
export default defineVuetifyConfiguration({
  icons: { defaultSet: 'mdi-svg' },
  theme: {
    defaultTheme: 'paper',
    themes: {
      paper: {
        dark: false,
        colors: { background: '#f7f4ed', surface: '#fffdf9', primary: '#1c4a47', error: '#a2322b' },
      },
    },
  },
  defaults: {
    VBtn: { ripple: false, variant: 'flat' },
    VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: true, singleLine: true },
    VTextarea: { variant: 'outlined', density: 'comfortable', hideDetails: true },
  },
})
