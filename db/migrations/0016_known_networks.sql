-- From which network a session was begun: others' wrong tries do not keep a person out where the person is known.
alter table session add column network text not null default '';
