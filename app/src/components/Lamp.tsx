import Svg, { Circle, Path } from 'react-native-svg';
import { LEVEL_WORDS, type Level } from '@vivid-beacon/core';
import { NoDataMark } from '../charts/NoDataMark';
import { starPath } from '../charts/starPath';
import { usePalette } from '../theme/useTheme';

/** Marks that an alarm's state adds to its lamp. */
export type AlarmMark = 'notAcknowledged' | 'acknowledged' | 'clearAgain';

interface LampProps {
  readonly level: Level;
  readonly size?: number;
  readonly mark?: AlarmMark;
  /** Set where no word stands beside the lamp. */
  readonly spoken?: boolean;
}

const BOX = 24;
const ROOM = 6;

/** Steady light, half light, flare, light out: shape and colour of a level. Its word stands beside it. */
export function Lamp({ level, size = 22, mark, spoken = false }: LampProps) {
  const palette = usePalette();
  const room = mark ? ROOM : 0;
  const drawn = (size * (BOX + 2 * room)) / BOX;
  return (
    <Svg
      width={drawn}
      height={drawn}
      viewBox={`${-room} ${-room} ${BOX + 2 * room} ${BOX + 2 * room}`}
      role={spoken ? 'img' : undefined}
      aria-label={spoken ? LEVEL_WORDS[level] : undefined}
      aria-hidden={spoken ? undefined : true}
    >
      {level === 'clear' && <Circle cx={12} cy={12} r={7.5} fill={palette.clear} />}
      {level === 'caution' && (
        <>
          <Circle cx={12} cy={12} r={7.5} fill={palette.cautionW} stroke={palette.caution} strokeWidth={2} />
          <Path d="M12 4.5A7.5 7.5 0 0 0 12 19.5Z" fill={palette.caution} />
        </>
      )}
      {level === 'breach' && (
        <Path
          d={starPath(12, 12, 10.6, 6.5)}
          fill={palette.breach}
          stroke={palette.breach}
          strokeWidth={0.8}
          strokeLinejoin="round"
        />
      )}
      {level === 'nodata' && <NoDataMark />}
      {mark === 'notAcknowledged' && (
        <Circle cx={12} cy={12} r={15} fill="none" stroke={palette.ink} strokeWidth={1.2} />
      )}
      {mark === 'acknowledged' && <Path d="M4 26H20" stroke={palette.ink} strokeWidth={2.4} />}
      {mark === 'clearAgain' && <Path d="M23 1V7M20 4H26" stroke={palette.ink} strokeWidth={1.8} />}
    </Svg>
  );
}
