import { runIntake } from './runIntake';
import { openSheet } from './sources/sheetSource';

/* Reads spreadsheets. A thread of its own, because the library for them is large. */
runIntake((ask) => openSheet(ask.file, ask.sheet));
