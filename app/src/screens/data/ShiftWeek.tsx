import { DAYS } from '../../components/days';
import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { minutesOf, type Shift } from '@vivid-beacon/core';
import { useWidth } from '../../hooks/useWidth';
import { SVG_FONTS } from '../../theme/type';
import { usePalette } from '../../theme/useTheme';

const ROW = 20;
const LEFT = 40;
const TOP = 16;
const DAY = 1440;

/** The week that the shifts make: a bar for each day, ink and water in turn by shift. */
export function ShiftWeek({ shifts }: { readonly shifts: readonly Shift[] }) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const scale = Math.max(1, width - LEFT - 4) / DAY;
  const pieces = shifts.flatMap(({ days, from, to }, k) =>
    days.flatMap((day) => {
      const start = minutesOf(from);
      const end = minutesOf(to);
      const over = end <= start;
      const first = { day: day - 1, start, end: over ? DAY : end, k };
      return over && end > 0 ? [first, { day: day % 7, start: 0, end, k }] : [first];
    }),
  );
  return (
    <View onLayout={onLayout}>
      {width > 0 && (
        <Svg width={width} height={TOP + 7 * ROW + 2} aria-hidden>
          {[0, 6, 12, 18, 24].map((hour) => (
            <G key={hour}>
              <SvgText
                x={LEFT + hour * 60 * scale}
                y={11}
                fontFamily={SVG_FONTS.medium}
                fontSize={12}
                fill={palette.ink2}
                textAnchor={hour === 24 ? 'end' : 'middle'}
              >
                {`${hour}`}
              </SvgText>
              <Line
                x1={LEFT + hour * 60 * scale}
                x2={LEFT + hour * 60 * scale}
                y1={TOP}
                y2={TOP + 7 * ROW}
                stroke={palette.line}
              />
            </G>
          ))}
          {DAYS.map((label, day) => (
            <SvgText
              key={label}
              x={0}
              y={TOP + day * ROW + 14}
              fontFamily={SVG_FONTS.medium}
              fontSize={13}
              fill={palette.ink2}
            >
              {label}
            </SvgText>
          ))}
          {pieces.map(({ day, start, end, k }) => (
            <Rect
              key={`${day} ${start} ${k}`}
              x={LEFT + start * scale}
              y={TOP + day * ROW + 4}
              width={(end - start) * scale}
              height={ROW - 8}
              fill={k % 2 === 0 ? palette.bar : palette.water}
              stroke={palette.ink}
              strokeWidth={1}
            />
          ))}
        </Svg>
      )}
    </View>
  );
}
