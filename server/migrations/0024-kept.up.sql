-- Parts that the program keeps for a job since it is booked, or since its work went deeper.
alter table reservation add column planned boolean not null default false;
