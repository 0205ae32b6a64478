import { BASELINE_STRETCHES } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface BaselineWeeksProps {
  readonly weeks: number;
  readonly onChange: (weeks: number) => void;
}

/** Number of weeks of the baseline, with an explanation. */
export function BaselineWeeks({ weeks, onChange }: BaselineWeeksProps) {
  const palette = usePalette();
  const { least, most } = BASELINE_STRETCHES;
  const right = Number.isInteger(weeks) && weeks >= least && weeks <= most;
  return (
    <>
      <NumberField
        label="Number of weeks before"
        value={weeks}
        error={right ? undefined : `Whole weeks, ${least} to ${most}`}
        onChange={onChange}
      />
      <Words as="second" colour={palette.ink2}>
        The mean of the same hours of the week in the weeks before; a longer window is set against stretches
        of its own length. For a ratio, sums are divided. Weeks with too little data are left out; with fewer
        than half of them there is no value.
      </Words>
    </>
  );
}
