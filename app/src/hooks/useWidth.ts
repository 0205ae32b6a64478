import { useState } from 'react';
import type { LayoutChangeEvent } from 'react-native';

/** Width of a view in px, 0 before it is laid out: spread `onLayout` on the view. */
export function useWidth(): readonly [number, (event: LayoutChangeEvent) => void] {
  const [width, setWidth] = useState(0);
  return [width, (event) => setWidth(Math.round(event.nativeEvent.layout.width))];
}
