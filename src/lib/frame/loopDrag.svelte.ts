/** Bars of the strip dragged over: they become the loop. */
import type { Loop } from '$lib/study/playing';

/**
 * @param list what the bars stand in, each with its place in the form as `data-bar`
 * @param onloop told the bars when the drag has ended; none where nothing can be looped
 */
export function createLoopDrag(
  list: () => HTMLElement | undefined,
  onloop: () => ((loop: Loop) => void) | undefined,
) {
  /** From the bar where it began; a press alone is none. */
  let drag = $state.raw<{ readonly from: number; readonly to: number } | null>(null);
  const over = $derived<Loop | null>(
    drag && drag.from !== drag.to
      ? { from: Math.min(drag.from, drag.to), to: Math.max(drag.from, drag.to) + 1 }
      : null,
  );

  function barUnder({ clientX, clientY }: PointerEvent): number | null {
    const cell = document.elementFromPoint(clientX, clientY)?.closest<HTMLElement>('[data-bar]');
    return cell && list()?.contains(cell) ? Number(cell.dataset['bar']) : null;
  }

  return {
    /** The bars that are dragged over by now. */
    get over() {
      return over;
    },
    start(event: PointerEvent) {
      const bar = onloop() && event.button === 0 ? barUnder(event) : null;
      drag = bar === null ? null : { from: bar, to: bar };
    },
    move(event: PointerEvent) {
      if (!drag || event.buttons === 0) return;
      const to = barUnder(event);
      if (to === null || to === drag.to) return;
      // From here on it is a drag, and what it ends on is no press.
      const host = list();
      if (host && !host.hasPointerCapture(event.pointerId)) host.setPointerCapture(event.pointerId);
      drag = { from: drag.from, to };
    },
    end() {
      if (over) onloop()?.(over);
      drag = null;
    },
    cancel() {
      drag = null;
    },
  };
}
