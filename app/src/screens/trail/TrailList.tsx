import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type PageOf, type TrailEntry } from '@vivid-beacon/core';
import type { Pages } from '../../api/pages';
import { Button } from '../../components/Button';
import { Fact } from '../../components/Fact';
import { LongList } from '../../components/LongList';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';
import { entryTitle, memberChanges } from './trailWords';

/** Longer values are cut until they are asked for whole. */
const SHORT = 240;

/** Entries of the trail; one opens to what was before and after. */
export function TrailList({
  pages,
  searched,
}: {
  readonly pages: Pages<PageOf<TrailEntry>>;
  readonly searched: string;
}) {
  const now = useNow(60_000);
  const [open, setOpen] = useState<string | null>(null);
  const zone = deviceZone();
  return (
    <LongList pages={pages} reading="Loading the trail" empty="Nothing has happened yet." searched={searched}>
      {(entry: TrailEntry, last) => (
        <View key={entry.id}>
          <Row
            title={entryTitle(entry)}
            second={[formatMoment(entry.at, zone, now), entry.personName ?? 'the server', entry.plantName]
              .filter(Boolean)
              .join(' · ')}
            right={
              <Button
                variant="quiet"
                label={open === entry.id ? 'Close' : 'Details'}
                name={`${open === entry.id ? 'Close' : 'Details of'} entry ${entry.id}`}
                onPress={() => setOpen(open === entry.id ? null : entry.id)}
              />
            }
            last={last && open !== entry.id}
          />
          {open === entry.id && <EntryDetail entry={entry} />}
        </View>
      )}
    </LongList>
  );
}

function EntryDetail({ entry }: { readonly entry: TrailEntry }) {
  const palette = usePalette();
  const changes = memberChanges(entry);
  return (
    <View style={[styles.detail, { backgroundColor: palette.water }]}>
      <Fact name="Entry" text={entry.id} />
      {entry.request && <Fact name="Request" text={entry.request} />}
      {entry.address && <Fact name="Came from" text={entry.address} />}
      {changes.map(({ name, before, after }) => (
        <View key={name}>
          <Words as="bodyStrong">{name}</Words>
          {before !== null && <Value label="before" text={before} />}
          {after !== null && <Value label={before === null ? 'is' : 'after'} text={after} />}
        </View>
      ))}
      <Words as="second" colour={palette.ink2}>{`Hash ${entry.hash}`}</Words>
    </View>
  );
}

function Value({ label, text }: { readonly label: string; readonly text: string }) {
  const [whole, setWhole] = useState(text.length <= SHORT);
  return (
    <>
      <Fact name={label} text={whole ? text : `${text.slice(0, SHORT)}…`} />
      {!whole && <Button variant="quiet" label="Show all of it" onPress={() => setWhole(true)} />}
    </>
  );
}

const styles = StyleSheet.create({ detail: { padding: 12, gap: 6, marginBottom: 8 } });
