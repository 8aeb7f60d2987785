-- Releases, the CPUs they start, the ways by which they get into the chip, and the chips it takes, per board model.
alter table board_reference drop constraint board_reference_kind_check;
alter table board_reference add constraint board_reference_kind_check
  check (kind in ('codes', 'rails', 'current', 'releases', 'cpus', 'ways', 'chips'));
