import 'driver.js/dist/driver.css';
import { goto } from '$app/navigation';
import type { Editor } from '$lib/editor/editor.svelte';

/** What is shown of the real screen, in the order of the work. */
const STOPS = [
  {
    element: 'nav[aria-label="Steps"]',
    title: 'The work, from top to bottom',
    description:
      'Brief, vehicle, layout, timing, visibility, rules. Each step shows how many findings wait in it.',
  },
  {
    element: '[aria-label="Catalogue"]',
    title: 'Lamps to choose from',
    description: 'Drag one onto the vehicle, or choose it and press a zone. Zones that take it light up.',
  },
  {
    element: '[aria-label="Sheet of the vehicle"]',
    title: 'The vehicle, unfolded',
    description:
      'Five views of one geometry, to scale. A lamp is dragged, nudged with the arrow keys, or typed to the millimetre.',
  },
  {
    element: '[aria-label="Inspector"]',
    title: 'What is selected',
    description: 'Colours, sync group, phase, aim and fixing. Several lamps are changed together.',
  },
  {
    element: '[aria-label="State bar"]',
    title: 'What is looked at',
    description:
      'The stage, what else is on, what stands open, day or night. Every step shows this state. Play runs slowed down until you choose true speed.',
  },
  {
    element: '[aria-label="Findings"]',
    title: 'What is wrong, and where',
    description:
      'Checked while you work: in each stage, by day and night, shut and with parts open. Show leads to the evidence; press ? for keys and words.',
  },
];

/** Shows the real screen of a build stop by stop; Esc, or a press beside it, leaves at any moment. */
export async function startTour(editor: Editor): Promise<void> {
  await goto(`/builds/${editor.build.id}/layout`);
  const { driver } = await import('driver.js');
  driver({
    showProgress: true,
    popoverClass: 'tour',
    nextBtnText: 'Next',
    prevBtnText: 'Back',
    doneBtnText: 'Done',
    animate: !window.matchMedia('(prefers-reduced-motion: reduce)').matches,
    steps: STOPS.map(({ element, title, description }) => ({ element, popover: { title, description } })),
  }).drive();
}
