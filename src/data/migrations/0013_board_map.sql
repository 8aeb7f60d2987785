-- What is known of where a board model's parts and nets are: its netlist and its placement list, as they came, packed.
create table board_map (
  board_model_id text not null references board_model (id) on delete cascade,
  kind text not null check (kind in ('netlist', 'placements')),
  name text not null,
  say text not null,
  gzip bytea not null,
  created_at timestamptz not null default now(),
  primary key (board_model_id, kind)
);
alter table board_map alter column gzip set storage external;

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on board_map to needle_app;
  end if;
end
$$;
