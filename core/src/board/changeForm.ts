import type { Readout, ReadoutForm } from './board';

/** Forms that show the course over time by period, and need to know by which. */
const BY_PERIOD: ReadonlySet<ReadoutForm> = new Set(['trend']);

/** Turns a readout into another form; whatever the new form does not draw stays with it for the way back. */
export function changeForm(readout: Readout, form: ReadoutForm): Readout {
  const grouped =
    readout.groupBy ?? (form === 'ring' && readout.measures.length === 1 ? { kind: 'asset' as const } : null);
  return {
    ...readout,
    form,
    groupBy: grouped,
    // A size was chosen for the old form; a trend squeezed into a gauge's place tells nothing.
    size: BY_PERIOD.has(form) === BY_PERIOD.has(readout.form) ? readout.size : null,
  };
}
