drop table sheet_revision;
