-- Releases, the CPUs they start, the ways by which they get into the chip, and the chips it takes, per board model.
alter table board_reference drop constraint board_reference_kind_check;
alter table board_reference add constraint board_reference_kind_check
  check (kind in ('codes', 'rails', 'current', 'releases', 'cpus', 'ways', 'chips'));

-- CPUs the shop keeps to carry boards over an update, and what others would cost.
create table bench_cpu (
  cpu text primary key check (length(cpu) between 1 and 60),
  owned boolean not null,
  price_minor int check (price_minor between 0 and 1000000000)
);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on bench_cpu to needle_app;
  end if;
end
$$;
