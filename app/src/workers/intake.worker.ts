import { runIntake } from './runIntake';
import { openText } from './sources/openFile';

/* Reads text files: tables, JSON, lines of JSON, OpenMetrics. */
runIntake((ask) =>
  openText(ask.file, (ask.kind === 'scan' ? ask.correct.separator : ask.layout.separator) ?? null),
);
