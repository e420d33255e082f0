/** A menu is asked for the first time after so long, and again until it stands or this is over, ms. */
const STANDS_MS = 60;
const AT_MOST_MS = 2000;

/** Puts the focus into a menu that has opened, on its first choice: hand it to `update:modelValue` of the menu. */
export function focusMenu(open: boolean): void {
  if (!open) return;
  const until = Date.now() + AT_MOST_MS;
  // On a slow phone it takes longer to stand: asked again until the focus is in it.
  const attempt = (): void => {
    const menu = document.querySelector('.v-menu.v-overlay--active .v-overlay__content');
    menu?.querySelector<HTMLElement>('.v-list-item, [role=radio][tabindex="0"], button')?.focus();
    if (!menu?.contains(document.activeElement) && Date.now() < until) setTimeout(attempt, STANDS_MS);
  };
  setTimeout(attempt, STANDS_MS);
}
