-- What the bench reckons with where the shop has figures of its own; the rest are bench defaults.
create table bench_figure (
  name text primary key,
  value double precision not null
);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on bench_figure to needle_app;
  end if;
end $$;
