/** Fields are left out: in them keys write, and an undo would be theirs. */
const STOPS = 'a[href], button, summary, [tabindex]:not(input, select, textarea)';
/** What belongs together on the screen: who loses one thing of it goes on with the next. */
const TOGETHER = '[role="group"], [role="list"], ul, tbody, section, main';

type Stop = HTMLElement | SVGElement;
const isStop = (element: Element): element is Stop =>
  (element instanceof HTMLElement || element instanceof SVGElement) &&
  element.tabIndex >= 0 &&
  !element.matches(':disabled') &&
  element.checkVisibility();

interface Held {
  readonly element: Element;
  readonly dialog: Element | null;
  /** All that it lies in, the nearest first. */
  readonly around: readonly Element[];
  /** The places of the keyboard about it, in order. */
  readonly stops: readonly Element[];
}

function heldBy(element: Element): Held {
  const around: Element[] = [];
  for (let one = element.parentElement; one !== null; one = one.parentElement) around.push(one);
  const together = element.parentElement?.closest(TOGETHER);
  return {
    element,
    dialog: element.closest('[role="dialog"]'),
    around,
    stops: together === null || together === undefined ? [] : [...together.querySelectorAll(STOPS)],
  };
}

/** What comes after it, or else before it; or the first place of the nearest that is left of what it lay in; at last the step. */
function nextTo({ element, around, stops }: Held): Stop | undefined {
  const at = stops.indexOf(element);
  const near = [...stops.slice(at + 1), ...stops.slice(0, Math.max(0, at)).toReversed()];
  const left = near.filter((stop) => stop.isConnected).find(isStop);
  if (left !== undefined) return left;
  const within = around.find((one) => one.isConnected);
  const first = [...(within?.querySelectorAll(STOPS) ?? [])].find(isStop);
  return first ?? document.querySelector('main') ?? undefined;
}

/**
 * Keeps the focus where somebody works: when what has it is taken away, as a lamp that is deleted, it goes on to what
 * lies next to it; out of a dialog, to where it was before.
 */
export function keepFocus(frame: HTMLElement): () => void {
  let held: Held | null = null;
  let before: Held | null = null;
  const onFocus = ({ target }: FocusEvent): void => {
    if (!(target instanceof Element)) return;
    held = heldBy(target);
    if (held.dialog === null) before = held;
  };
  const observer = new MutationObserver(() => {
    if (held === null || held.element.isConnected || document.activeElement !== document.body) return;
    const lost = held.dialog === null ? held : before;
    held = null;
    if (lost === null) return;
    if (isStop(lost.element) && lost.element.isConnected) lost.element.focus();
    else nextTo(lost)?.focus();
  });
  frame.addEventListener('focusin', onFocus);
  observer.observe(frame, { childList: true, subtree: true });
  return () => {
    frame.removeEventListener('focusin', onFocus);
    observer.disconnect();
  };
}
