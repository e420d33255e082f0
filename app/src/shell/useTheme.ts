import { usePreferredDark } from '@vueuse/core';
import { watchEffect } from 'vue';
import { useTheme as useVuetifyTheme } from 'vuetify';

/** Light paper by day; the dark theme follows the device, for vans and cellars at night. */
export function useTheme(): void {
  const dark = usePreferredDark();
  const vuetifyTheme = useVuetifyTheme();
  watchEffect(() => {
    const name = dark.value ? 'dark' : 'light';
    document.documentElement.dataset['theme'] = name;
    void vuetifyTheme.change(name);
  });
}
