import { runIntake } from './runIntake';
import { openText } from './sources/textSource';

/* Reads text files: tables, lines of JSON, OpenMetrics. */
runIntake((ask) =>
  openText(ask.file, (ask.kind === 'look' ? ask.correct.separator : ask.layout.separator) ?? null),
);
