import '@fontsource-variable/atkinson-hyperlegible-next/index.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './shell/App.vue';
import { router } from './shell/router';
import './shell/style.css';
import { vuetify } from './shell/vuetify';
import { offerDemoOnce } from './store/demo';

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');
void offerDemoOnce();
