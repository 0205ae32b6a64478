-- 0001 people: accounts, sessions, throttling, push tokens.
-- compatible: yes
create table person (
  id            bigint generated always as identity primary key,
  email         text not null,
  name          text not null,
  role          text not null,
  password_hash text not null,              -- argon2id, PHC string
  created_at    timestamptz not null,
  constraint person_role_known check (role in ('viewer', 'operator', 'analyst', 'administrator'))
);
create unique index person_email_idx on person (lower(email));

-- Layout asked for by connect-pg-simple.
create table session (
  sid    varchar primary key,
  sess   json not null,
  expire timestamp(6) not null
);
create index session_expire_idx on session (expire);

-- Layout asked for by rate-limiter-flexible.
create table throttle (
  key    varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);

create table push_token (
  id           bigint generated always as identity primary key,
  name         text not null,
  token_hash   bytea not null unique,       -- SHA-256 of a token of 256 random bits
  created_by   bigint not null references person (id),
  created_at   timestamptz not null,
  last_used_at timestamptz,
  revoked_at   timestamptz
);

-- Small facts about this installation, such as the moment the demo was laid out for.
create table setting (
  name  text primary key,
  value jsonb not null
);
