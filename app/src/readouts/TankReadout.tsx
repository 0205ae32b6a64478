import { Pressable, StyleSheet, View } from 'react-native';
import { formatNumber, formatValue } from '@vivid-beacon/core';
import { useParts } from '../boards/useParts';
import { Tank } from '../charts/Tank';
import { sharedScale } from '../charts/valueAxis';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { useOpenPlace } from './useOpenPlace';
import { StateLine, stateWords } from './StateLine';

/** Tanks side by side on one scale. */
export function TankReadout({ readout, title }: ReadoutProps) {
  const answer = useParts(readout);
  const openPlace = useOpenPlace(readout);
  const { band, scale } = answer.shown.readout;
  return (
    <View>
      <PartsView answer={answer} title={title} reading="Reading the tank">
        {(parts, onOpen) => {
          const shared = sharedScale(scale, band, parts);
          return (
            <View style={styles.tanks}>
              {parts.map((part) => (
                <View key={part.key} style={styles.one}>
                  <Pressable
                    role="button"
                    aria-label={`${parts.length === 1 ? title : part.name}: ${formatValue(part.value, part.unit, answer.decimals)}, ${stateWords(part, band, answer.decimals)}. ${openPlace ? `Open ${readout.link}` : 'How it was made'}`}
                    onPress={openPlace ?? (() => onOpen(part))}
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
                  {openPlace ? (
                    <NumberButton
                      text={part.value === null ? '–' : formatNumber(part.value, answer.decimals)}
                      unit={part.unit}
                      name={`${part.name}. How it was made`}
                      onPress={() => onOpen(part)}
                    />
                  ) : (
                    <Words as="figure">{formatValue(part.value, part.unit, answer.decimals)}</Words>
                  )}
                  {parts.length > 1 && <Words as="rowTitle">{part.name}</Words>}
                  <StateLine part={part} band={band} decimals={answer.decimals} />
                </View>
              ))}
            </View>
          );
        }}
      </PartsView>
    </View>
  );
}

const styles = StyleSheet.create({
  tanks: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-evenly', gap: 12 },
  one: { alignItems: 'center', gap: 2, maxWidth: 180 },
});
