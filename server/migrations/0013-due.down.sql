drop table unit_due, due, service_told, service_done;
