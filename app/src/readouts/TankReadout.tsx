import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue } from '@vivid-beacon/core';
import type { Part } from '../boards/parts';
import { useParts } from '../boards/useParts';
import { Tank } from '../charts/Tank';
import { sharedScale } from '../charts/valueAxis';
import { Words } from '../components/Words';
import { PartsView } from './PartsView';
import { PartTray } from './PartTray';
import type { ReadoutProps } from './ReadoutView';
import { StateLine, stateWords } from './StateLine';

/** Tanks side by side on one scale. */
export function TankReadout({ readout, title }: ReadoutProps) {
  const [open, setOpen] = useState<Part | null>(null);
  const answer = useParts(readout);
  const { band, scale } = answer.shown.readout;
  return (
    <View>
      <PartsView answer={answer} reading="Reading the tank">
        {(parts) => {
          const shared = sharedScale(scale, band, parts);
          return (
            <View style={styles.tanks}>
              {parts.map((part) => (
                <View key={part.key} style={styles.one}>
                  <Pressable
                    role="button"
                    aria-label={`${parts.length === 1 ? title : part.name}: ${formatValue(part.value, part.unit, answer.decimals)}, ${stateWords(part, band, answer.decimals)}. How it was made`}
                    onPress={() => setOpen(part)}
                  >
                    <Tank
                      value={part.value}
                      level={part.level}
                      band={band}
                      reference={part.previous}
                      decimals={answer.decimals}
                      scale={shared}
                    />
                  </Pressable>
                  <Words as="figure">{formatValue(part.value, part.unit, answer.decimals)}</Words>
                  {parts.length > 1 && <Words as="rowTitle">{part.name}</Words>}
                  <StateLine part={part} band={band} decimals={answer.decimals} />
                </View>
              ))}
            </View>
          );
        }}
      </PartsView>
      <PartTray
        title={title}
        readout={answer.shown.readout}
        decimals={answer.decimals}
        part={open}
        onClose={() => setOpen(null)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  tanks: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-evenly', gap: 12 },
  one: { alignItems: 'center', gap: 2, maxWidth: 180 },
});
