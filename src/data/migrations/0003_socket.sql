-- What is really the matter with the contacts of a board on the simulated bench, by contact.
alter table hidden_board add column marks jsonb not null default '{}';

-- The shop's record of strokes is read from the tape.
create index tape_strokes on tape_entry (job_id, seq) where kind = 'stroke';
create index tape_strikes on tape_entry (job_id, strikes) where strikes is not null;

-- Sockets kept for their contacts; what is left of each is counted down by the tapes.
create table donor_socket (
  name text primary key,
  socket_id text not null references socket (id),
  contacts int not null check (contacts between 1 and 6500)
);
create index tape_replaced on tape_entry ((body ->> 'donor')) where kind = 'replaced';

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on donor_socket to needle_app;
  end if;
end $$;
