-- How what is derived was made, and how records are hashed, are numbers of their own: what was made another way is made anew.
-- Some books of the second and third step were made before these two tables belonged to them.
CREATE TABLE IF NOT EXISTS closed_periods(
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL,
    revision INTEGER NOT NULL,
    at TEXT NOT NULL,
    by TEXT NOT NULL,
    PRIMARY KEY(first_day, last_day)) STRICT, WITHOUT ROWID;
CREATE TABLE IF NOT EXISTS derived_how(oldest_first INTEGER NOT NULL) STRICT;
CREATE TABLE made_how(
    oldest_first INTEGER NOT NULL,
    derived_format INTEGER NOT NULL,
    hash_format INTEGER NOT NULL) STRICT;
INSERT INTO made_how SELECT coalesce(max(oldest_first), 0), 0, 0 FROM derived_how;
DROP TABLE derived_how;
