import { useState } from 'react';
import { usePlants } from '../../api/catalogue';
import { usePerson } from '../../api/session';
import { useCalendar } from '../../api/data';
import { QueryResult } from '../../components/QueryResult';
import { Page } from '../../components/Page';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { mayBuild } from '../../api/mayAct';
import { CalendarEditor } from './CalendarEditor';
import { DataPlaces } from './DataPlaces';

/** The working calendar of each plant. */
export function CalendarsScreen() {
  const query = usePlants();
  const person = usePerson();
  const [chosen, setChosen] = useState<string | null>(null);
  const plants = query.data ?? [];
  const plant = plants.find(({ id }) => id === chosen) ?? plants[0];
  const calendar = useCalendar(plant?.id ?? '');
  return (
    <Page title="Data" top={<DataPlaces open="/data/calendars" />}>
      <QueryResult query={query} reading="Loading plants">
        {() =>
          plant ? (
            <>
              <WordRow
                name="Plant"
                options={plants.map(({ id, name }) => ({ value: id, label: name }))}
                chosen={plant.id}
                onChoose={setChosen}
              />
              <QueryResult query={calendar} reading="Loading the calendar">
                {(document) => (
                  <CalendarEditor
                    key={plant.id}
                    plant={plant}
                    calendar={document}
                    mayEdit={mayBuild(person, plant.id)}
                  />
                )}
              </QueryResult>
            </>
          ) : (
            <Words as="body">There are no plants yet. Add one under Assets.</Words>
          )
        }
      </QueryResult>
    </Page>
  );
}
