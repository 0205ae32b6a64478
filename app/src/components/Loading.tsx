import { useEffect, useRef } from 'react';
import { Animated, Easing, StyleSheet, View } from 'react-native';
import { useReducedMotion } from '../hooks/useReducedMotion';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** A line along which a part travels, and what is being read. With reduced motion only the words. */
export function Loading({ what }: { readonly what: string }) {
  const palette = usePalette();
  const still = useReducedMotion();
  const travel = useRef(new Animated.Value(0)).current;
  useEffect(() => {
    if (still) return undefined;
    const loop = Animated.loop(
      Animated.timing(travel, { toValue: 1, duration: 1200, easing: Easing.linear, useNativeDriver: false }),
    );
    loop.start();
    return () => loop.stop();
  }, [still, travel]);
  return (
    <View style={styles.box} role="status" aria-label={what}>
      {!still && (
        <View style={[styles.line, { backgroundColor: palette.line }]}>
          <Animated.View
            style={[
              styles.part,
              {
                backgroundColor: palette.bar,
                left: travel.interpolate({ inputRange: [0, 1], outputRange: ['0%', '75%'] }),
              },
            ]}
          />
        </View>
      )}
      <Words as="second" colour={palette.ink2}>
        {what}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { paddingVertical: 16, gap: 8, alignSelf: 'stretch' },
  line: { height: 5, overflow: 'hidden' },
  part: { position: 'absolute', width: '25%', height: 5 },
});
