-- Up Migration

-- What is known of a board model beyond where things are: its codes, the rails and the current of a good one.
create table board_reference (
  board_model_id text not null references board_model (id),
  kind text not null check (kind in ('codes', 'rails', 'current')),
  name text not null,
  body jsonb not null,
  created_at timestamptz not null default now(),
  primary key (board_model_id, kind)
);

-- A hidden board behind the simulated instruments; practice boards are worked like jobs but are none.
create table hidden_board (
  job_id uuid primary key references job (id),
  faults text[] not null,
  seed int not null,
  -- The tape's last line when the practice was over and the faults were shown.
  shown_seq int
);
alter table job add column practice boolean not null default false;
create sequence practice_tag as int;
drop index job_open;
create index job_open on job (promised_at, id) where closed_at is null and not practice;
create index job_practice on job (created_at desc, id desc) where practice;

-- What triage's tests need and the shop does not have at hand; everything else is there.
create table shelf_missing (item text primary key);

-- A shop's own odds of faults, in place of the bench defaults.
create table fault_odds (fault text primary key, odds double precision not null check (odds > 0 and odds <= 0.5));

-- A board that comes back is told by its serial number.
create index job_serial on job ((state -> 'ticket' ->> 'serial')) where not practice;

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on board_reference, hidden_board, shelf_missing, fault_odds to needle_app;
    grant usage, select on sequence practice_tag to needle_app;
  end if;
end $$;
