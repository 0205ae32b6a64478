import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatDate, formatWindow, type Handover } from '@vivid-beacon/core';
import { useAddHandoverNote, useHandover } from '../../api/handover';
import { mayAct, mayBuild } from '../../api/mayAct';
import { useWatch } from '../../api/queries';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { RemarkField } from '../../components/RemarkField';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useLayout } from '../../hooks/useLayout';
import { CopyButton } from './CopyButton';
import { HandoverSections } from './HandoverSections';
import { handoverText } from './handoverText';

/** The events of a shift, what is still open, and the notes for the next shift. */
export function HandoverScreen() {
  const router = useRouter();
  const watch = useWatch();
  const plants = watch.data?.plants ?? [];
  const [plant, setPlant] = useState<string | null>(null);
  const [shift, setShift] = useState<number | null>(null);
  const plantId = plant ?? plants[0]?.id ?? null;
  const query = useHandover(plantId, shift);
  const person = usePerson();
  return (
    <Page
      title="Shift handover"
      full
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      tools={query.data && <CopyButton text={handoverText(query.data)} />}
    >
      {plants.length > 1 && (
        <WordRow
          name="Plant"
          options={plants.map(({ id, name }) => ({ value: id, label: name }))}
          chosen={plantId}
          onChoose={(id) => {
            setPlant(id);
            setShift(null);
          }}
        />
      )}
      {watch.data && plants.length === 0 && (
        <Message
          kind="empty"
          title="No plant yet"
          text="A shift belongs to a plant, with its time zone and its working calendar."
          action={mayBuild(person) ? { label: 'Go to Data', onPress: () => router.push('/data') } : undefined}
        />
      )}
      {plantId === null ? (
        <QueryResult query={watch} reading="Loading the plants">
          {() => null}
        </QueryResult>
      ) : (
        <QueryResult query={query} reading="Loading the shift">
          {(handover) => <Sheet handover={handover} onShift={setShift} />}
        </QueryResult>
      )}
    </Page>
  );
}

function Sheet({
  handover,
  onShift,
}: {
  readonly handover: Handover;
  readonly onShift: (start: number) => void;
}) {
  const { wide } = useLayout();
  const { shift, shifts, zone, now, notes } = handover;
  const person = usePerson();
  const add = useAddHandoverNote();
  return (
    <>
      <WordRow
        name="Shift"
        options={shifts.map(({ start, end, name }) => ({
          value: String(start),
          label: now < end ? `${name}, now` : `${name}, ${formatDate(start, zone, now)}`,
        }))}
        chosen={String(shift.start)}
        onChoose={(start) => onShift(Number(start))}
      />
      <Words as="second">{formatWindow(shift.start, shift.end, zone, now)}</Words>
      <View style={wide && styles.columns}>
        <View style={wide && styles.column}>
          <Section title="For the next shift" aside={notes.length > 0 ? String(notes.length) : ''}>
            {notes.map(({ id, text, author }) => (
              <Row key={id} title={text} second={author} last />
            ))}
            {mayAct(person, handover.plantId) ? (
              <RemarkField
                label="Add a note for the next shift"
                pending={add.isPending}
                error={add.error}
                onAdd={(text, clear) =>
                  add.mutate({ plantId: handover.plantId, shift: shift.start, text }, { onSuccess: clear })
                }
              />
            ) : (
              notes.length === 0 && <Words as="body">No notes yet.</Words>
            )}
          </Section>
        </View>
        <HandoverSections handover={handover} />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  columns: { flexDirection: 'row', gap: 28, flexWrap: 'wrap' },
  column: { flexGrow: 1, flexBasis: 340, minWidth: 0 },
});
