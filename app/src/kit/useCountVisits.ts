import { useLocalStorage } from '@vueuse/core';

/** Whether somebody's visits are counted in what water costs: one switch, in sight wherever money stands. */
export const useCountVisits = () => useLocalStorage('yes-clear:count-visits', false);
