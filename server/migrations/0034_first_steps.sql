-- 0034 first steps: who has put them away.
-- compatible: yes
alter table person add column first_steps_away boolean not null default false;
