import { formOf, isOverTime, takesAllMeasures } from '../readouts/forms';
import type { Slot } from '../readouts/slots';
import type { Readout } from './board';

/** The slots that an indicator governs. */
const GOVERNED: readonly Slot[] = ['summary', 'per', 'more', 'group', 'scope', 'hours', 'band', 'compare'];

/**
 * The slots in which something can be chosen for a readout, in the order of its form. An indicator governs most of
 * them, and the window too where one value is shown. Groups of most forms are of one measure, so they take no more.
 *
 * @example offeredSlots(emptyReadout('r1', 'note')) // => ['words', 'appearance']
 */
export function offeredSlots(readout: Readout): readonly Slot[] {
  const governed: readonly Slot[] =
    readout.indicatorId === null ? [] : isOverTime(readout) ? GOVERNED : [...GOVERNED, 'window'];
  return formOf(readout.form).slots.filter(
    (slot) =>
      !governed.includes(slot) &&
      !(slot === 'more' && readout.groupBy !== null && !takesAllMeasures(readout)),
  );
}
