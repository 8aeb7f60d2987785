-- What is really the matter with the contacts of a board on the simulated bench, by contact.
alter table hidden_board add column marks jsonb not null default '{}';

-- The shop's record of strokes is read from the tape.
create index tape_strokes on tape_entry (job_id, seq) where kind = 'stroke';
create index tape_strikes on tape_entry (job_id, strikes) where strikes is not null;
