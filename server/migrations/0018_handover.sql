-- 0018 what a shift leaves for the next in its own words: only ever added to.
-- compatible: yes
create table handover_note (
  id          bigint generated always as identity primary key,
  plant_id    bigint not null references asset (id) on delete cascade,
  shift_start timestamptz not null,
  text        text not null,
  author_id   bigint not null references person (id),
  written_at  timestamptz not null
);
create index handover_note_shift_idx on handover_note (plant_id, shift_start, id);
create index alarm_event_raised_idx on alarm_event (at) where kind = 'raised';
