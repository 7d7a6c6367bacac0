/** The words of the screen that need saying; the rest of them stands in docs/glossary.md. */
export const WORDS: readonly { readonly word: string; readonly means: string }[] = [
  { word: 'Build', means: 'One vehicle being designed, whole.' },
  { word: 'Zone', means: 'A flat patch of the vehicle that bears lamps.' },
  {
    word: 'Module',
    means: 'The smallest part of a fixture that is lit by itself; a head has one, a bar many.',
  },
  { word: 'Channel', means: 'One colour of one module of one lamp: what an output drives.' },
  { word: 'Sync group', means: 'Lamps on one clock, which keep step. Without one, each module runs free.' },
  { word: 'Phase', means: 'The letter by which a lamp takes its line of a pattern; B answers A.' },
  {
    word: 'Drift',
    means: 'What clocks do that do not follow each other: every alignment comes up some time.',
  },
  {
    word: 'Function',
    means: 'Something the operator or the vehicle switches; the stronger ones stand above in the ladder.',
  },
  { word: 'Stage', means: 'A function of warning: Off, or stage 1 to 3 in order of urgency.' },
  { word: 'Set', means: 'Lamps that functions speak to together, whatever sync groups they are in.' },
  { word: 'State', means: 'What is on, what stands open, and day or night, together.' },
  {
    word: 'Finding',
    means: 'A rule or wish that is broken, or of which it cannot be told, with its evidence.',
  },
  { word: 'Wish', means: 'What the agency asks for in the brief, checked like a rule.' },
  { word: 'Effective intensity', means: 'The steady light, in candela, that a flash is seen as far as.' },
  { word: 'Optical power', means: 'Light toward a bearing summed over a minute of flashing, in cd·s/min.' },
];
