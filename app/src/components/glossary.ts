/** The product's own words, each in one or two sentences. */
export const GLOSSARY = {
  indicator: [
    'Indicator',
    'A measure with a window, a target band and an owner, defined once. Every board, list and report that shows it judges it alike, and a changed definition holds from then on.',
  ],
  readout: ['Readout', 'One thing on a board: a gauge, a lamp, a figure, a trend, a ring or a note.'],
  band: [
    'Target band',
    'The values that are Clear, in Caution and in Breach, with a target. Without a band a value has no level.',
  ],
  levels: [
    'Clear, Caution, Breach, No data',
    'The levels of a value. No data means that there is none; a value of too little data is shown faint, with its coverage, and has no level.',
  ],
  coverage: ['Coverage', 'The share of the time that has passed in which there are data to be trusted.'],
  rehearsal: [
    'Rehearsal',
    'An alarm rule run over the past with the code that watches live: when it would have fired, for how long, and how often with other limits.',
  ],
  rule: [
    'Alarm rule',
    'What is looked for in a metric, and who is told. It raises alarms while it is in force.',
  ],
  shelve: ['Shelve', 'To set an alarm rule aside for a while, with a reason; it comes back by itself.'],
  flag: [
    'Flag',
    'Something handed to a person, with the numbers as they were, a due time, and an outcome when it is closed.',
  ],
  focus: ['Focus', 'One asset that a whole board follows until it is released.'],
  scope: ['Scope', 'Which assets a board, a readout or a rule speaks of.'],
  intake: ['Intake', 'Taking in a file. Every row is taken, refused, left out or repeated, and told.'],
  feed: ['Feed', 'A metric that samples keep coming in for. One that has not been heard in time is silent.'],
  making: [
    'How it was made',
    'The formula, window, coverage and samples behind a number. Every number opens it.',
  ],
} as const;
export type Term = keyof typeof GLOSSARY;
