/** Longest that a menu takes to stand, ms. */
const STANDS_MS = 60;

/** Puts the focus into a menu that has opened, on its first choice: hand it to `update:modelValue` of the menu. */
export function focusMenu(open: boolean): void {
  if (!open) return;
  setTimeout(() => {
    const menu = document.querySelector('.v-menu.v-overlay--active .v-overlay__content');
    menu?.querySelector<HTMLElement>('.v-list-item, [role=radio][tabindex="0"], button')?.focus();
  }, STANDS_MS);
}
