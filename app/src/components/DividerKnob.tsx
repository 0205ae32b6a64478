import { memo } from 'react';
import Svg, { Circle, Path } from 'react-native-svg';
import { usePalette } from '../theme/useTheme';

interface DividerKnobProps {
  /** Length of the leg, px. */
  readonly leg: number;
  readonly pointing: 1 | -1;
}

/** Width of a divider, and how far around its knob a finger hits it, px. */
export const DIVIDER_TOUCH = 44;
const KNOB = 8;

/** What a divider looks like: it is moved as a whole, not drawn again. */
export const DividerKnob = memo(function DividerKnob({ leg, pointing }: DividerKnobProps) {
  const palette = usePalette();
  const height = DIVIDER_TOUCH + leg;
  const middle = DIVIDER_TOUCH / 2;
  const knobY = pointing === 1 ? middle : height - middle;
  const tip = knobY + pointing * (KNOB + leg);
  return (
    <Svg width={DIVIDER_TOUCH} height={height} aria-hidden>
      <Path
        d={`M${middle - 2} ${knobY + pointing * KNOB}L${middle} ${tip}L${middle + 2} ${knobY + pointing * KNOB}Z`}
        fill={palette.ink}
        stroke={palette.ink}
        strokeWidth={1}
      />
      <Circle cx={middle} cy={knobY} r={KNOB} fill={palette.sheet} stroke={palette.ink} strokeWidth={2} />
      <Circle cx={middle} cy={knobY} r={2.6} fill={palette.ink} />
    </Svg>
  );
});
