import type { Attachment } from 'svelte/attachments';

const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea, [tabindex="0"]';

/** Lets the keyboard come to what scrolls and holds nothing that it could come to. */
export const reachable: Attachment<HTMLElement> = (node) => {
  const settle = (): void => {
    const scrolls = node.scrollHeight > node.clientHeight || node.scrollWidth > node.clientWidth;
    if (scrolls && node.querySelector(FOCUSABLE) === null) node.tabIndex = 0;
    else node.removeAttribute('tabindex');
  };
  const size = new ResizeObserver(settle);
  const content = new MutationObserver(settle);
  size.observe(node);
  content.observe(node, { childList: true, subtree: true });
  return () => {
    size.disconnect();
    content.disconnect();
  };
};
