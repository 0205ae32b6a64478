-- 0017 notices to people by e-mail and text message, and how each person wants them.
-- compatible: yes
create table notice_wish (
  person_id  bigint primary key references person (id) on delete cascade,
  by_email   boolean not null,
  by_text    boolean not null,
  phone      text,
  quiet_from text,             -- "22:00" on the clock of `zone`; null = no quiet hours
  quiet_to   text,
  zone       text not null,
  constraint notice_wish_text_has_phone check (not by_text or phone is not null),
  constraint notice_wish_quiet_is_whole check ((quiet_from is null) = (quiet_to is null))
);

create table notice (
  id          bigint generated always as identity primary key,
  -- What it is about, once: the same thing is never told twice to one person in one way.
  key         text not null unique,
  person_id   bigint not null references person (id) on delete cascade,
  channel     text not null check (channel in ('email', 'text')),
  kind        text not null check (kind in ('breach', 'return', 'escalation', 'digest', 'flag', 'lateFlag')),
  urgent      boolean not null,
  subject     text not null,
  body        text not null,
  address     text not null,   -- path within the app
  alarm_id    bigint references alarm (id) on delete cascade,
  flag_id     bigint references flag (id) on delete cascade,
  created_at  timestamptz not null,
  due_at      timestamptz not null,
  sent_at     timestamptz,
  sent_to     text,
  attempts    integer not null default 0,
  last_error  text,
  -- Gathered into this digest instead of being sent.
  digest_id   bigint references notice (id) on delete cascade
);
create index notice_waiting_idx on notice (due_at) where sent_at is null and digest_id is null;
create index notice_person_idx on notice (person_id, created_at desc);
create index notice_digest_idx on notice (digest_id) where digest_id is not null;
create index notice_alarm_idx on notice (alarm_id) where alarm_id is not null;

-- What the stand-ins for a mail server and a text-message gateway have received.
create table caught_message (
  id          bigint generated always as identity primary key,
  channel     text not null check (channel in ('email', 'text')),
  message_id  text not null unique,
  sent_to     text not null,
  subject     text not null,
  body        text not null,
  received_at timestamptz not null
);
create index caught_message_newest_idx on caught_message (received_at desc);

-- Due time for which its being late has been told.
alter table flag add column late_told_for timestamptz;
