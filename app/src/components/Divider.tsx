import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { DividerKnob, DIVIDER_TOUCH as TOUCH } from './DividerKnob';

interface DividerProps {
  /** Where it stands, px from the left of its track. */
  readonly x: number;
  /** y of its knob's centre and length of its leg, px. */
  readonly y: number;
  readonly leg: number;
  /** −1: the knob stands at the foot and the leg points up; 1: on top, the leg points down. */
  readonly pointing: 1 | -1;
  readonly name: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly words: string;
  /** Moved by the pointer, px from the left of the track. */
  readonly onMove: (x: number) => void;
  /** Moved by the keyboard, in steps. */
  readonly onStep: (steps: number) => void;
  readonly onDone?: () => void;
}

/** A divider that stands on a scale: dragged by pointer or touch, or moved by the arrow keys (Shift: six steps). */
export function Divider(props: DividerProps) {
  const { x, y, leg, pointing, name, value, min, max, words, onMove, onStep, onDone } = props;
  const grip = useRef<number | null>(null);
  const height = TOUCH + leg;
  return (
    <View
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuetext={words}
      {...({
        onPointerDown: (event: PointerEvent) => {
          (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
          grip.current = event.clientX - x;
        },
        onPointerMove: (event: PointerEvent) => {
          if (grip.current !== null) onMove(event.clientX - grip.current);
        },
        onPointerUp: () => {
          if (grip.current !== null) onDone?.();
          grip.current = null;
        },
        onPointerCancel: () => (grip.current = null),
        onKeyDown: (event: KeyboardEvent) => {
          const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
          if (way === undefined) return;
          event.preventDefault();
          onStep(way * (event.shiftKey ? 6 : 1));
        },
      } as object)}
      style={[
        styles.touch,
        NO_SCROLL,
        { left: x - TOUCH / 2, top: pointing === 1 ? y - TOUCH / 2 : y + TOUCH / 2 - height, height },
      ]}
    >
      <DividerKnob leg={leg} pointing={pointing} />
    </View>
  );
}

/** The browser must not scroll while a finger drags. */
const NO_SCROLL = { touchAction: 'none', cursor: 'ew-resize' } as object;

const styles = StyleSheet.create({ touch: { position: 'absolute', width: TOUCH } });
