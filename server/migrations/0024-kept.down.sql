alter table reservation drop column planned;
