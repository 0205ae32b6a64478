-- 0031 amounts by interval: what the time of an amount stands for, and how much of one counts that a window cuts.
-- compatible: yes
alter table metric
  -- Samples are stored by the start of their interval; a sender may write its end.
  add column stamped text not null default 'start' check (stamped in ('start', 'end')),
  -- 'start': an amount counts in full where it begins. 'share': by the share of its interval.
  add column cut     text not null default 'start' check (cut in ('start', 'share'));
-- What the times of a file stood for; null = as each metric says.
alter table intake add column stamped text check (stamped in ('start', 'end'));
