-- 0008 calendars: working hours, holidays, first weekday and financial year of a site.
-- compatible: yes
create table working_calendar (
  plant_id   bigint primary key references asset (id) on delete cascade,
  document   jsonb not null,                -- core/src/calendar/workingCalendar.ts
  updated_at timestamptz not null,
  updated_by bigint references person (id)
);
