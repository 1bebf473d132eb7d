drop table write_proof;
