import { isOverTime, traitsOfForm, type ReadoutForm } from '../readouts/forms';
import { emptyReadout, withMatchingChoices, type Readout } from './board';

/**
 * Changes the form of a readout and keeps every choice that the new form has by the same name.
 *
 * @param left the readout as it was when it last had the new form, whose own choices are restored; null =
 * never.
 */
export function changeForm(readout: Readout, form: ReadoutForm, left: Readout | null = null): Readout {
  if (readout.form === form) return readout;
  const own = left?.form === form ? left : emptyReadout(readout.id, form);
  const grouped =
    readout.groupBy ??
    (traitsOfForm(form).splits && readout.measures.length === 1 ? { kind: 'asset' as const } : null);
  return {
    ...withMatchingChoices<Readout>(own, readout),
    form,
    groupBy: grouped,
    // The size was chosen for the old form; a trend squeezed into a gauge's place is useless.
    size: isOverTime({ form }) === isOverTime(readout) ? readout.size : null,
  } as Readout;
}
