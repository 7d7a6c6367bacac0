/** The words of the screen that need saying; the rest of them stands in docs/glossary.md. */
export const WORDS: readonly { readonly word: string; readonly means: string }[] = [
  { word: 'Build', means: 'One vehicle with its lamps, patterns, controls and rules.' },
  { word: 'Zone', means: 'A flat patch of the vehicle that accepts lamps.' },
  {
    word: 'Module',
    means: 'The smallest part of a fixture that is lit separately. A head has one, a bar has many.',
  },
  { word: 'Channel', means: 'One colour of one module of one lamp: what an output drives.' },
  { word: 'Sync group', means: 'Lamps on one clock. A module without a group is free-running.' },
  { word: 'Phase', means: 'The letter that selects a lamp’s line of a pattern. A and B alternate.' },
  {
    word: 'Drift',
    means: 'Unsynchronised clocks move against each other, so every alignment occurs at some time.',
  },
  {
    word: 'Function',
    means:
      'Something the operator or the vehicle switches. Higher functions in the priority list override lower ones.',
  },
  { word: 'Stage', means: 'Warning level: off, or stage 1 to 3 in order of urgency.' },
  { word: 'Lamp set', means: 'Modules that functions address together, regardless of sync groups.' },
  { word: 'State', means: 'Active functions, open parts, and day or night.' },
  {
    word: 'Finding',
    means: 'A rule or requirement that fails or is inconclusive, with its evidence.',
  },
  { word: 'Requirement', means: 'An agency request in the brief, checked like a rule.' },
  {
    word: 'Effective intensity',
    means: 'The steady intensity, in candela, that is visible as far as the flash.',
  },
  { word: 'Optical power', means: 'Light toward a bearing over one minute of flashing, in cd·s/min.' },
];
