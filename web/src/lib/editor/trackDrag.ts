/** A press that moves less than this is a click, px. */
const CLICK_PX = 4;

export interface DragSteps {
  /** The pointer has moved while pressed, past what a click may. */
  readonly move: (clientX: number, clientY: number) => void;
  /** It was let go after it had moved. */
  readonly drop: (clientX: number, clientY: number) => void;
  /** It was let go where it was pressed. */
  readonly click?: () => void;
  /** Escape was pressed before that, or the system took the pointer away. */
  readonly cancel: () => void;
}

/** Follows a pressed pointer over the whole window until it is let go, or Escape is pressed. */
export function trackDrag(press: PointerEvent, { move, drop, click, cancel }: DragSteps): void {
  const track = new AbortController();
  const { signal } = track;
  let moved = false;
  window.addEventListener(
    'pointermove',
    (event) => {
      moved ||= Math.hypot(event.clientX - press.clientX, event.clientY - press.clientY) > CLICK_PX;
      if (moved) move(event.clientX, event.clientY);
    },
    { signal },
  );
  window.addEventListener(
    'pointerup',
    (event) => {
      track.abort();
      if (moved) drop(event.clientX, event.clientY);
      else click?.();
    },
    { signal },
  );
  window.addEventListener(
    'pointercancel',
    () => {
      track.abort();
      cancel();
    },
    { signal },
  );
  window.addEventListener(
    'keydown',
    (event) => {
      if (event.key !== 'Escape') return;
      track.abort();
      cancel();
    },
    { signal },
  );
}
