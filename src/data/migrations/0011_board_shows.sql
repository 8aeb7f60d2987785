-- What a board model can show of a start.
alter table board_reference drop constraint board_reference_kind_check;
alter table board_reference add constraint board_reference_kind_check
  check (kind in ('shows', 'codes', 'rails', 'current', 'releases', 'cpus', 'ways', 'chips'));
