import 'driver.js/dist/driver.css';
import { goto } from '$app/navigation';
import type { Editor } from '$lib/editor/editor.svelte';

/** What is shown of the real screen, in the order of the work. */
const STOPS = [
  {
    element: 'nav[aria-label="Steps"]',
    title: 'Steps',
    description:
      'Brief, Vehicle, Layout, Timing, Controls, Visibility, Rules. Each step shows its number of findings.',
  },
  {
    element: '[aria-label="Catalogue"]',
    title: 'Catalogue',
    description:
      'Drag a fixture onto the vehicle, or select it and click a zone. Zones that accept it are highlighted.',
  },
  {
    element: '[aria-label="Vehicle drawing"]',
    title: 'Vehicle drawing',
    description:
      'Five views of one geometry, to scale. Drag a lamp, move it with the arrow keys, or enter millimetres.',
  },
  {
    element: '[aria-label="Inspector"]',
    title: 'Selected lamps',
    description: 'Colours, sync group, phase, aim and mounting. Several lamps can be changed together.',
  },
  {
    element: '[aria-label="State bar"]',
    title: 'State',
    description:
      'Stage, other active functions, open parts, day or night. Every step shows this state. Play runs slowly until you select true speed.',
  },
  {
    element: '[aria-label="Findings"]',
    title: 'Findings',
    description:
      'Checked while you work: every stage, day and night, closed and with open parts. Show opens the evidence. Press ? for keys and terms.',
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
