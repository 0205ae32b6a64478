import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import type { ScaleLinear } from 'd3-scale';
import { formatValue } from '@vivid-beacon/core';
import { usePalette } from '../../theme/useTheme';

/** Width of the handle, and how far around it a finger hits it, px. */
export const LIMIT_HANDLE = 44;
const KNOB = 8;

interface LimitHandleProps {
  /** Right end of the plot, px from the left of it. */
  readonly x: number;
  readonly value: number;
  readonly scale: ScaleLinear<number, number>;
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (value: number) => void;
}

/** The end of a limit's line: dragged up and down by pointer or touch, or moved by the arrow keys (Shift: six steps). */
export function LimitHandle({ x, value, scale, name, unit, decimals, onChange }: LimitHandleProps) {
  const palette = usePalette();
  const grip = useRef<number | null>(null);
  const [low, high] = scale.domain();
  const y = scale(value);
  const step = 10 ** -decimals;
  const set = (next: number): void => {
    const inside = Math.min(high, Math.max(low, next));
    onChange(Number((Math.round(inside / step) * step).toFixed(decimals)));
  };
  return (
    <View
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-orientation="vertical"
      aria-valuenow={value}
      aria-valuemin={low}
      aria-valuemax={high}
      aria-valuetext={formatValue(value, unit, decimals)}
      {...({
        onPointerDown: (event: PointerEvent) => {
          (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
          grip.current = event.clientY - y;
        },
        onPointerMove: (event: PointerEvent) => {
          if (grip.current !== null) set(scale.invert(event.clientY - grip.current));
        },
        onPointerUp: () => (grip.current = null),
        onPointerCancel: () => (grip.current = null),
        onKeyDown: (event: KeyboardEvent) => {
          const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
          if (way === undefined) return;
          event.preventDefault();
          set(value + way * step * (event.shiftKey ? 6 : 1));
        },
      } as object)}
      style={[styles.touch, NO_SCROLL, { left: x - 6, top: y - LIMIT_HANDLE / 2 }]}
    >
      <Svg width={LIMIT_HANDLE} height={LIMIT_HANDLE} aria-hidden>
        <Path
          d={`M0 ${LIMIT_HANDLE / 2}L${LIMIT_HANDLE / 2 - KNOB} ${LIMIT_HANDLE / 2 - 2}v4Z`}
          fill={palette.ink}
          stroke={palette.ink}
        />
        <Circle
          cx={LIMIT_HANDLE / 2}
          cy={LIMIT_HANDLE / 2}
          r={KNOB}
          fill={palette.sheet}
          stroke={palette.ink}
          strokeWidth={2}
        />
        <Circle cx={LIMIT_HANDLE / 2} cy={LIMIT_HANDLE / 2} r={2.6} fill={palette.ink} />
      </Svg>
    </View>
  );
}

/** The browser must not scroll while a finger drags. */
const NO_SCROLL = { touchAction: 'none', cursor: 'ns-resize' } as object;

const styles = StyleSheet.create({
  touch: { position: 'absolute', width: LIMIT_HANDLE, height: LIMIT_HANDLE },
});
