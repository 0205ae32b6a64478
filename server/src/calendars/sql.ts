import { DEFAULT_CALENDAR, type WorkingCalendar } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { allPrepared, one, type Queryable } from '../db/database';

/** The working calendar of a plant; around the clock where none is set. */
export async function calendarOf(db: Queryable, plantId: string): Promise<WorkingCalendar> {
  const row = await one<{ document: WorkingCalendar }>(
    db,
    'select document from working_calendar where plant_id = $1',
    [plantId],
  );
  return row?.document ?? DEFAULT_CALENDAR;
}

export function listCalendars(db: Queryable): Promise<{ plantId: string; calendar: WorkingCalendar }[]> {
  const text = 'select plant_id as "plantId", document as calendar from working_calendar';
  return allPrepared(db, 'list_calendars', text, []);
}

export async function writeCalendar(
  db: Queryable,
  plantId: string,
  calendar: WorkingCalendar,
  personId: string,
  at: number,
): Promise<void> {
  await db.query(
    `insert into working_calendar (plant_id, document, updated_at, updated_by) values ($1, $2::jsonb, $3, $4)
     on conflict (plant_id) do update set document = excluded.document, updated_at = excluded.updated_at,
       updated_by = excluded.updated_by`,
    [plantId, JSON.stringify(calendar), moment(at), personId],
  );
}
