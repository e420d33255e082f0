import { useEventListener } from '@vueuse/core';
import type { Ref } from 'vue';

/** Where the drawing of a chart lies within its element, px. */
export interface Plot {
  readonly left: number;
  readonly right: number;
}

export interface PanZoom {
  /** The stretch shown now. */
  readonly shown: () => { readonly from: number; readonly until: number };
  readonly plot: () => Plot | null;
  readonly show: (from: number, until: number) => void;
  readonly reset: () => void;
}

/** How much closer a turn of the wheel goes. */
const PER_TURN = 1.25;

/**
 * Moving along a chart's time by hand: drag to pan, wheel or two fingers to zoom, double click for the whole; with the
 * keyboard the arrows pan, plus and minus zoom, 0 shows the whole.
 */
export function usePanZoom(element: Readonly<Ref<HTMLElement | null>>, { shown, plot, show, reset }: PanZoom): void {
  const pointers = new Map<number, number>();
  const at = (clientX: number): number => clientX - (element.value?.getBoundingClientRect().left ?? 0);
  /** Time under a place of the element. */
  const timeAt = (x: number): number => {
    const { left, right } = plot() ?? { left: 0, right: 1 };
    const { from, until } = shown();
    return from + ((x - left) / (right - left)) * (until - from);
  };
  function zoom(factor: number, around: number): void {
    const { from, until } = shown();
    show(around - (around - from) * factor, around + (until - around) * factor);
  }
  useEventListener(
    element,
    'wheel',
    (event: WheelEvent) => {
      // The page scrolls as ever; the wheel zooms only where it is asked to.
      if (!event.ctrlKey && !event.shiftKey && !event.metaKey) return;
      event.preventDefault();
      zoom((event.deltaY || event.deltaX) > 0 ? PER_TURN : 1 / PER_TURN, timeAt(at(event.clientX)));
    },
    { passive: false },
  );
  useEventListener(element, 'pointerdown', (event: PointerEvent) => {
    pointers.set(event.pointerId, at(event.clientX));
    if (pointers.size === 2) element.value?.setPointerCapture(event.pointerId);
  });
  useEventListener(element, 'pointermove', (event: PointerEvent) => {
    const before = pointers.get(event.pointerId);
    if (before === undefined) return;
    const x = at(event.clientX);
    const { left, right } = plot() ?? { left: 0, right: 1 };
    const { from, until } = shown();
    const perPx = (until - from) / (right - left);
    if (pointers.size === 2) {
      const other = [...pointers].find(([id]) => id !== event.pointerId)![1];
      const apart = Math.max(20, Math.abs(x - other));
      zoom(Math.max(20, Math.abs(before - other)) / apart, timeAt((x + other) / 2));
    } else show(from - (x - before) * perPx, until - (x - before) * perPx);
    pointers.set(event.pointerId, x);
  });
  useEventListener(element, ['pointerup', 'pointercancel', 'pointerleave'], (event: PointerEvent) => pointers.delete(event.pointerId));
  useEventListener(element, 'dblclick', reset);
  useEventListener(element, 'keydown', (event: KeyboardEvent) => {
    const { from, until } = shown();
    const step = (until - from) / 8;
    const keys: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => show(from - step, until - step),
      ArrowRight: () => show(from + step, until + step),
      '+': () => zoom(1 / PER_TURN, (from + until) / 2),
      '=': () => zoom(1 / PER_TURN, (from + until) / 2),
      '-': () => zoom(PER_TURN, (from + until) / 2),
      '0': reset,
    };
    const act = keys[event.key];
    if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  });
}
