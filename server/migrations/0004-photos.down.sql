drop table photo;
