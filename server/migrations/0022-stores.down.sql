drop table stock_movement, reservation, stock, part_number, part;
drop extension pg_trgm;
