-- 0037 second factor: one-time codes after RFC 6238, and codes for when the device is lost.
-- compatible: yes
alter table person
  add column second_factor_required boolean not null default false,
  add column otp_secret    bytea,        -- sealed with a key of the server (http/seal.ts)
  add column otp_pending   bytea,        -- the same, until the first code has come
  add column otp_last_step bigint;       -- number of the last time step used: each code works once

create table recovery_code (
  person_id bigint not null references person (id) on delete cascade,
  code_hash bytea not null,              -- SHA-256 of a code of 80 random bits
  used_at   timestamptz,
  primary key (person_id, code_hash)
);
create constraint trigger trail after insert or update or delete on recovery_code deferrable initially deferred
  for each row execute function trail_row('person_id', 'code_hash', '');
-- Its secrets are secret, and the step is counted by the server.
drop trigger trail on person;
create constraint trigger trail after insert or update or delete on person deferrable initially deferred
  for each row execute function trail_row('id', 'password_hash,otp_secret,otp_pending',
    'first_steps_away,rights_changed_at,otp_last_step');
