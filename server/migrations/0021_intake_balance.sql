-- 0021 intake balance: what became of every line of a file, not only of the refused ones.
-- compatible: no   (an older server would write lines to intake_refusal)
alter table intake_refusal rename to intake_line;
alter index intake_refusal_idx rename to intake_line_idx;
alter table intake_line
  add column kind text not null default 'refused',
  add constraint intake_line_kind_known check (kind in ('refused', 'leftOut', 'repeated', 'met', 'short'));
alter table intake
  -- What holds where values of one series meet in the file: they were combined before they were sent, or the last does.
  add column collisions text not null default 'refuse',
  add constraint intake_collisions_known check (collisions in ('refuse', 'last'));
-- How a file of this shape was read: what a person set, and the file it was first used for.
alter table intake_mapping add column file_name text not null default '';
-- Layouts of mappings are written otherwise now: what was remembered before is forgotten.
delete from intake_mapping;
