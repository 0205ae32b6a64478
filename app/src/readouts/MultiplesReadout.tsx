import type { ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Readout } from '@vivid-beacon/core';
import {
  BETWEEN,
  copiesWords,
  leastWidth,
  traitsOfForm,
  type MultiplesData,
  type ReadData,
} from '@vivid-beacon/core/src/boards';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';

interface MultiplesReadoutProps extends DrawProps<MultiplesData> {
  /** Draws one copy. */
  readonly draw: ComponentType<DrawProps<ReadData>>;
}

/** A readout once for each group, as small copies that do what the readout does. */
export function MultiplesReadout({
  data,
  readout,
  title,
  width,
  onOpen,
  draw: Draw,
  ...props
}: MultiplesReadoutProps) {
  const palette = usePalette();
  const least = leastWidth(traitsOfForm(readout.form));
  const columns = Math.max(
    1,
    Math.min(data.copies.length, Math.floor((width + BETWEEN) / (least + BETWEEN))),
  );
  const each = Math.floor((width - BETWEEN * (columns - 1)) / columns);
  const left = copiesWords(data);
  return (
    <>
      <View style={styles.copies}>
        {data.copies.map(({ key, name, readout: own, data: drawn }) => {
          const copy = { ...own, form: readout.form } as Readout;
          return (
            <View key={key} style={{ width: each }} role="group" aria-label={name}>
              <Words as="bodyStrong" heading={3}>
                {name}
              </Words>
              <Draw
                {...props}
                data={drawn}
                readout={copy}
                title={`${title}, ${name}`}
                width={each}
                onOpen={(part) => onOpen(part, copy)}
              />
            </View>
          );
        })}
      </View>
      {left !== '' && (
        <Words as="second" colour={palette.ink2}>
          {left}
        </Words>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  copies: { flexDirection: 'row', flexWrap: 'wrap', columnGap: BETWEEN, rowGap: 16 },
});
