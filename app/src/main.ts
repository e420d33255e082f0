import '@fontsource-variable/atkinson-hyperlegible-next/index.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './shell/App.vue';
import { loadPagesAhead, router } from './shell/router';
import './shell/style.css';
import { vuetify } from './shell/vuetify';
import { useNotice } from './kit/useNotice';
import { useOffline } from './kit/useOffline';
import { useStartUp } from './store/startUp';
import { useStoreState } from './store/storeState';
import { listen } from './worker/listen';
import { config } from 'zod';

// The page may not make code out of text (its security policy forbids it), which the schema library would try first.
config({ jitless: true });

const app = createApp(App).use(createPinia()).use(router).use(vuetify);

/** What nobody foresaw is told, never dropped. */
function unforeseen(error: unknown): void {
  console.error(error);
  useNotice().say(`Something went wrong: ${error instanceof Error ? error.message : String(error)}. What was saved is safe.`);
}
app.config.errorHandler = unforeseen;
window.addEventListener('unhandledrejection', (event) => unforeseen(event.reason));

// A page that cannot be fetched: no signal yet, or the server holds a newer version under other names.
router.onError((error) => {
  console.error(error);
  useNotice().say('This page could not be loaded: there is no signal, or a newer version has taken its place.', {
    label: 'Reload',
    run: () => location.reload(),
  });
});

void useStartUp().begin();
app.mount('#app');
useOffline().begin();
void router.isReady().then(loadPagesAhead);
/** Meters are listened to once the first page stands. */
const LISTEN_AFTER_MS = 1500;
void useStoreState().ready.then(() => setTimeout(listen, LISTEN_AFTER_MS));
